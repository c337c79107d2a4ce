import * as z from 'zod';
import { findFamily, kindOfSheet } from '@/core/families';
import { instantOf } from '@/core/wording/shop-time';
import { RequestRefused } from '../http/refused';

/** What is said of a unit that is booked in, as it is typed. */
export const bookedFields = {
  serial: z.string().trim().min(2, 'Read the serial off the plate; write "none" if there is none').max(40),
  vehicle: z.string().trim().min(1, 'Say what it came off').max(120),
  complaint: z.string().trim().max(500),
  symptoms: z.array(z.string().max(80)).max(30),
  promisedAt: z.iso.datetime({ local: true, error: 'Give a date and a time' }).or(z.literal('')),
};

/** The promise as it stood when somebody said that it is meant to be past. */
export const promiseConfirmed = z.string().max(40).default('');

/** A field that needs another look, with what is wrong with it. */
export const refusedField = (field: string, why: string): RequestRefused =>
  new RequestRefused(422, 'Some fields need another look.', { [field]: why });

interface TypedPromise {
  readonly promisedAt: string;
  readonly promiseConfirmed: string;
}

/** The moment that was promised; what is typed is the time on the shop's wall, wherever the screen stands. Null where nothing was. */
export function promiseOf({ promisedAt: typed, promiseConfirmed }: TypedPromise, zone: string): string | null {
  const promisedAt = typed === '' ? null : instantOf(typed, zone);
  if (promisedAt !== null && typed !== promiseConfirmed && Date.parse(promisedAt) < Date.now())
    throw refusedField('promisedAt', 'This is past: mend it, or say that it was promised for then');
  return promisedAt;
}

/** Refuses symptoms that a unit of this sheet has none of. */
export function refuseStrangeSymptoms(symptoms: readonly string[], sheet: Parameters<typeof kindOfSheet>[0]): void {
  const kind = kindOfSheet(sheet);
  const strange = symptoms.filter((id) => !kind?.symptoms.some((symptom) => symptom.id === id));
  if (strange.length > 0) throw refusedField('symptoms', `This unit has no symptom called ${strange.join(', ')}`);
}

/** What a family is called. */
export const familyTitle = (family: string): string => findFamily(family)?.title ?? family;
