import { listInstruments } from '@/data/settings';
import { InstrumentsPage } from '@/ui/instruments/instruments-page';
import { PageTitle } from '@/ui/shell/page-title';

export default async function Instruments() {
  return (
    <>
      <PageTitle of="Instruments" />
      <InstrumentsPage instruments={await listInstruments()} today={new Date().toISOString().slice(0, 10)} />
    </>
  );
}
