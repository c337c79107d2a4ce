import type { Person } from '@/data/settings';
import { RequestRefused } from '../http/refused';

/** Refuses a name that is none of the shop's people; a shop that has entered nobody yet takes any. */
export function refuseStranger(people: readonly Person[], person: string): void {
  if (people.length === 0 || people.some((each) => each.name === person)) return;
  throw new RequestRefused(
    422,
    `“${person}” is not one of this workshop’s people. Choose who you are at the head of the page.`,
    {
      person: 'Choose who you are',
    },
  );
}
