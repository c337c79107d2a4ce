import { sheetCards } from '@/server/jobs/sheet-cards';
import { SheetList } from '@/ui/sheets/sheet-list';
import { PageTitle } from '@/ui/shell/page-title';

export default async function SheetsPage() {
  return (
    <>
      <PageTitle of="Unit sheets" />
      <SheetList sheets={await sheetCards()} />
    </>
  );
}
