import { airOf } from '@/server/shop/air-text';
import { shopOfPage } from '@/server/shop/shop-of-page';
import { FamilyAtHand } from '@/ui/parts/family-at-hand';
import { SheetForm } from '@/ui/sheets/sheet-form';
import { PageTitle } from '@/ui/shell/page-title';

export default async function NewSheetPage() {
  return (
    <>
      <PageTitle of="Make a sheet" />
      <FamilyAtHand of="any">
        <SheetForm air={airOf(await shopOfPage())} />
      </FamilyAtHand>
    </>
  );
}
