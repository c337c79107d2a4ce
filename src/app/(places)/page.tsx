import dayjs from 'dayjs';
import { airText } from '@/server/jobs/air-text';
import { floorView } from '@/server/jobs/floor-view';
import { Floor } from '@/ui/floor/floor';
import { PageTitle } from '@/ui/shell/page-title';

export default async function FloorPage() {
  const [floor, air] = await Promise.all([floorView(), airText()]);
  return (
    <>
      <PageTitle of="Floor" />
      <Floor floor={floor} air={air} today={dayjs().format('dddd')} />
    </>
  );
}
