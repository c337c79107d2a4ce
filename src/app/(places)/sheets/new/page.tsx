import type { Metadata } from 'next';
import { airNow } from '@/server/jobs/air-text';
import { SheetForm } from '@/ui/sheets/sheet-form';

export const metadata: Metadata = { title: 'Make a sheet' };

export default async function NewSheetPage() {
  return <SheetForm air={await airNow()} />;
}
