import type { Metadata } from 'next';
import { sheetCards } from '@/server/jobs/sheet-cards';
import { SheetList } from '@/ui/sheets/sheet-list';

export const metadata: Metadata = { title: 'Unit sheets' };

export default async function SheetsPage() {
  return <SheetList sheets={await sheetCards()} />;
}
