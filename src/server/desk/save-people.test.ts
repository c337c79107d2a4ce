import { emptyShopFolder } from '../../../tests/support/shop';

emptyShopFolder();

import * as peopleRoute from '../api/people';
import { listPeople } from '@/data/settings';
import { loadShop } from '../shop/shop-now';
import { jobView } from '../views/job-view';
import { savePeople } from './save-people';
import { ask, book, openWorkshop, person } from '../../../tests/support/workshop';

beforeAll(openWorkshop);

const put = (people: readonly object[]) => ask(peopleRoute.PUT, '', { people });

describe('who works here', () => {
  it('is entered, changed and taken off; what they did stays on record', async () => {
    expect(
      (
        await put([
          { name: person, role: 'technician' },
          { name: ' Ilse  Varga ', role: 'lead' },
        ])
      ).status,
    ).toBe(200);
    const [ilse, noor] = await listPeople();
    expect([ilse.name, noor.name]).toEqual(['Ilse  Varga', person]);
    const job = await book('TK-P-1');

    expect((await put([{ ...ilse, name: 'Ilse Varga-Rehn' }])).status).toBe(200);
    expect((await listPeople()).map(({ id, name }) => [id, name])).toEqual([[ilse.id, 'Ilse Varga-Rehn']]);
    expect((await jobView(job.id)).job.bookedBy).toBe(person);
    await expect(book('TK-P-2')).rejects.toMatchObject({ status: 422 });
    expect((await put([])).status).toBe(200);
    await expect(book('TK-P-3')).resolves.toBeTruthy();
  });

  it('two rows of one number are two people', async () => {
    const rows = ['Ilse Varga', 'Noor Halabi'].map((name) => ({ id: 'one', name, role: 'lead' }));
    expect((await put(rows)).status).toBe(200);
    expect(new Set((await listPeople()).map(({ id }) => id)).size).toBe(2);
    expect((await put([])).status).toBe(200);
  });

  it('is refused at the row that is wrong, and nothing of it is kept', async () => {
    const wrong = async (people: readonly object[]) => {
      const { status, body } = await put(people);
      return [status, Object.keys((body as unknown as { fields: object }).fields)];
    };
    expect(
      await wrong([
        { name: 'Noor Halabi', role: 'technician' },
        { name: 'noor  halabi', role: 'lead' },
      ]),
    ).toEqual([422, ['people.1.name']]);
    expect(await wrong([{ name: '', role: 'lead' }])).toEqual([422, ['people.0.name']]);
    expect(await wrong([{ name: 'Piet Oduya', role: '' }])).toEqual([422, ['people.0.role']]);
    expect((await loadShop()).people).toEqual([]);
  });

  it('two lists at once: one is kept whole', async () => {
    const list = (role: string) => ({ people: ['Tomas Rehn', 'Piet Oduya'].map((name) => ({ id: '', name, role })) });
    const ended = await Promise.allSettled([savePeople(list('lead')), savePeople(list('apprentice'))]);
    expect(ended.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    expect(new Set((await listPeople()).map(({ role }) => role)).size).toBe(1);
  });
});
