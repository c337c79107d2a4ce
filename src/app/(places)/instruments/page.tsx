import type { Metadata } from 'next';
import { listInstruments } from '@/data/settings';
import { InstrumentsPage } from '@/ui/instruments/instruments-page';

export const metadata: Metadata = { title: 'Instruments' };

export default async function Instruments() {
  return <InstrumentsPage instruments={await listInstruments()} today={new Date().toISOString().slice(0, 10)} />;
}
