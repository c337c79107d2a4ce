import { sheetsWithSpheres } from '@/server/shop';
import { sphereLives } from '@/server/spheres';
import { SpheresPage } from '@/ui/spheres/spheres-page';
import { PageTitle } from '@/ui/shell/page-title';

export default async function Spheres({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  const [{ serial }, spheres, sheets] = await Promise.all([searchParams, sphereLives(), sheetsWithSpheres()]);
  return (
    <>
      <PageTitle of="Spheres" />
      <SpheresPage
        spheres={spheres}
        sheets={sheets}
        chosen={serial ?? spheres[0]?.serial ?? null}
        today={Math.floor(new Date().getTime() / 86_400_000)}
      />
    </>
  );
}
