import { listSheets } from '@/data/unit-sheets';
import { sphereLives } from '@/server/spheres';
import { SpheresPage } from '@/ui/spheres/spheres-page';
import { PageTitle } from '@/ui/shell/page-title';

export default async function Spheres({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  const [{ serial }, spheres, sheets] = await Promise.all([searchParams, sphereLives(), listSheets()]);
  const fitting = sheets.filter((sheet) => (sheet.spec as { spherePurpose?: string }).spherePurpose !== undefined);
  return (
    <>
      <PageTitle of="Spheres" />
      <SpheresPage
        spheres={spheres}
        sheets={fitting.map(({ id, name }) => ({ id, name }))}
        chosen={serial ?? spheres[0]?.serial ?? null}
        today={Math.floor(new Date().getTime() / 86_400_000)}
      />
    </>
  );
}
