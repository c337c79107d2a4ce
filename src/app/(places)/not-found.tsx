export { NothingHere as default } from '@/ui/shell/nothing-here';
