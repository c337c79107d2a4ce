import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { findSheet } from '@/data/unit-sheets';
import { airNow } from '@/server/jobs/air-text';
import { SheetPage } from '@/ui/sheets/sheet-page';

export const metadata: Metadata = { title: 'Unit sheet' };

export default async function OneSheetPage({ params }: PageProps<'/sheets/[id]'>) {
  const sheet = await findSheet((await params).id);
  if (!sheet) notFound();
  return <SheetPage sheet={sheet} air={await airNow()} />;
}
