import { notFound } from 'next/navigation';
import { airNow } from '@/server/jobs/air-text';
import { sheetInLibrary } from '@/server/shop';
import { SheetPage } from '@/ui/sheets/sheet-page';
import { PageTitle } from '@/ui/shell/page-title';

export default async function OneSheetPage({ params }: PageProps<'/sheets/[id]'>) {
  const sheet = await sheetInLibrary((await params).id);
  if (!sheet) notFound();
  return (
    <>
      <PageTitle of={sheet.name} />
      <SheetPage sheet={sheet} air={await airNow()} />
    </>
  );
}
