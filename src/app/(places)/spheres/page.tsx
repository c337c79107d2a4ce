import { shopOfPage } from '@/server/shop/shop-of-page';
import { sheetsWithSpheres } from '@/server/shop/library';
import { sphereLives } from '@/server/shop/spheres';
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
        today={Math.floor(Date.parse((await shopOfPage()).today) / 86_400_000)}
      />
    </>
  );
}
