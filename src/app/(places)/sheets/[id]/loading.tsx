export { OnItsWay as default } from '@/ui/shell/on-its-way';
