import { sheetsToWire } from '@/server/shop/library';
import { PageTitle } from '@/ui/shell/page-title';
import { WiringPage } from '@/ui/wiring/wiring-page';

export default async function Wiring({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  const [{ sheet }, sheets] = await Promise.all([searchParams, sheetsToWire()]);
  return (
    <>
      <PageTitle of="Wiring" />
      <WiringPage sheets={sheets} chosen={sheets.find((each) => each.id === sheet)?.id ?? null} />
    </>
  );
}
