import dayjs from 'dayjs';
import { airText } from '@/server/jobs/air-text';
import { floorView } from '@/server/jobs/job-view';
import { Floor } from '@/ui/floor/floor';

export default async function FloorPage() {
  const [views, air] = await Promise.all([floorView(), airText()]);
  return <Floor views={views} air={air} today={dayjs().format('dddd')} />;
}
