import { randomUUID } from 'node:crypto';
import * as z from 'zod';
import { writePeople, type Person } from '@/data/settings';
import { RequestRefused } from '../http/refused';
import { changeShop } from '../shop/change-shop';
import { loadShop } from '../shop/shop-now';

export const peopleSchema = z.object({
  people: z
    .array(
      z.object({
        /** Nothing for somebody new. */
        id: z.string().max(80).default(''),
        name: z.string().trim().min(2, 'Give the name').max(80, 'A shorter name, please'),
        role: z.string().trim().min(2, 'Say what they do: technician, lead, apprentice').max(40),
      }),
    )
    .max(200),
});

const called = (name: string) => name.toLowerCase().replace(/\s+/g, ' ');

/** Two people of one name would be one on every record. */
function refuseNamesakes(people: readonly { readonly name: string }[]): void {
  people.forEach(({ name }, at) => {
    if (people.findIndex((each) => called(each.name) === called(name)) === at) return;
    throw new RequestRefused(422, 'Some fields need another look.', {
      [`people.${at}.name`]: 'Somebody of this name is here already: add an initial',
    });
  });
}

/**
 * Keeps who works here, in place of the list before, all of it or nothing. Who is left out has left: what they did stays on record under
 * their name.
 */
export async function savePeople(form: z.infer<typeof peopleSchema>): Promise<{ version: number }> {
  refuseNamesakes(form.people);
  const used = new Set(['']);
  const people = form.people.map((each): Person => {
    const id = used.has(each.id) ? randomUUID() : each.id;
    used.add(id);
    return { ...each, id };
  });
  return changeShop(
    { key: 'people', title: 'The list of people has been' },
    async () => ({ already: sameList((await loadShop()).people, people) }),
    (trx) => writePeople(people, trx),
  );
}

function sameList(now: readonly Person[], then: readonly Person[]): boolean {
  const sorted = (all: readonly Person[]) =>
    JSON.stringify([...all].sort((p, q) => p.id.localeCompare(q.id)).map(({ id, name, role }) => [id, name, role]));
  return sorted(now) === sorted(then);
}
