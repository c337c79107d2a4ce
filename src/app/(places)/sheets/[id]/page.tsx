import { notFound } from 'next/navigation';
import { findSheet } from '@/data/unit-sheets';
import { airNow } from '@/server/jobs/air-text';
import { SheetPage } from '@/ui/sheets/sheet-page';
import { PageTitle } from '@/ui/shell/page-title';

export default async function OneSheetPage({ params }: PageProps<'/sheets/[id]'>) {
  const sheet = await findSheet((await params).id);
  if (!sheet) notFound();
  return (
    <>
      <PageTitle of={sheet.name} />
      <SheetPage sheet={sheet} air={await airNow()} />
    </>
  );
}
