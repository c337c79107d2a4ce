import { mountedInstruments } from '@/server/shop';
import { InstrumentsPage } from '@/ui/instruments/instruments-page';
import { takenOffToday } from '@/server/instruments';
import { PageTitle } from '@/ui/shell/page-title';

export default async function Instruments() {
  return (
    <>
      <PageTitle of="Instruments" />
      <InstrumentsPage
        {...await mountedInstruments()}
        takenOff={await takenOffToday()}
        today={new Date().toISOString().slice(0, 10)}
      />
    </>
  );
}
