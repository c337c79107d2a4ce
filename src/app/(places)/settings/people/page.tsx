import { versionOfKey } from '@/server/shop/change-shop';
import { shopOfPage } from '@/server/shop/shop-of-page';
import { PeoplePage } from '@/ui/settings/people-page';
import { ShownVersion } from '@/ui/shell/shown-version';
import { PageTitle } from '@/ui/shell/page-title';

export default async function PeopleOfTheShopPage() {
  const [{ people }, version] = await Promise.all([shopOfPage(), versionOfKey('people')]);
  return (
    <>
      <PageTitle of="People" />
      <ShownVersion version={version} />
      <PeoplePage people={people} version={version} />
    </>
  );
}
