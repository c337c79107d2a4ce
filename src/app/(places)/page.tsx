import { shopWeekday } from '@/core/wording/shop-time';
import { airText } from '@/server/shop/air-text';
import { shopOfPage } from '@/server/shop/shop-of-page';
import { floorView } from '@/server/views/floor-view';
import { Floor } from '@/ui/floor/floor';
import { PageTitle } from '@/ui/shell/page-title';

export default async function FloorPage() {
  const shop = await shopOfPage();
  const floor = await floorView(shop);
  return (
    <>
      <PageTitle of="Floor" />
      <Floor floor={floor} air={airText(shop)} today={shopWeekday(shop.today, shop.zone)} />
    </>
  );
}
