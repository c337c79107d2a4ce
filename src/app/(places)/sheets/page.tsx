import { sheetCards } from '@/server/shop/sheet-cards';
import { SheetList } from '@/ui/sheets/sheet-list';
import { shopOfPage } from '@/server/shop/shop-of-page';
import { PageTitle } from '@/ui/shell/page-title';

export default async function SheetsPage() {
  return (
    <>
      <PageTitle of="Unit sheets" />
      <SheetList sheets={await sheetCards(await shopOfPage())} />
    </>
  );
}
