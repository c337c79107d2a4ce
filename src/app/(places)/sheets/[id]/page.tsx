import { notFound } from 'next/navigation';
import { airOf } from '@/server/shop/air-text';
import { shopOfPage } from '@/server/shop/shop-of-page';
import { sheetInLibrary } from '@/server/shop/library';
import { SheetPage } from '@/ui/sheets/sheet-page';
import { PageTitle } from '@/ui/shell/page-title';

export default async function OneSheetPage({ params }: PageProps<'/sheets/[id]'>) {
  const sheet = await sheetInLibrary((await params).id);
  if (!sheet) notFound();
  return (
    <>
      <PageTitle of={sheet.name} />
      <SheetPage sheet={sheet} air={airOf(await shopOfPage())} />
    </>
  );
}
