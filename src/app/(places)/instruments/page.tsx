import { mountedInstruments } from '@/server/shop/library';
import { InstrumentsPage } from '@/ui/instruments/instruments-page';
import { shopOfPage } from '@/server/shop/shop-of-page';
import { takenOffToday } from '@/server/shop/instruments';
import { PageTitle } from '@/ui/shell/page-title';

export default async function Instruments() {
  return (
    <>
      <PageTitle of="Instruments" />
      <InstrumentsPage
        {...await mountedInstruments()}
        takenOff={await takenOffToday()}
        today={(await shopOfPage()).today}
      />
    </>
  );
}
