'use client';
export { PageFailed as default } from '@/ui/shell/page-failed';
