import * as z from 'zod';
import { kindOfSheet } from '@/core/families';
import { shopTime, typedTime } from '@/core/wording/shop-time';
import type { Act } from '@/data/acts';
import type { Booked, Job } from '@/data/jobs';
import { findSheet } from '@/data/unit-sheets';
import { RequestRefused } from '../http/refused';
import { changeJob } from './change-job';
import { bookedFields, promiseConfirmed, promiseOf, refusedField, refuseStrangeSymptoms } from './booked-fields';
import { refuseWhileOpen } from './open-step';

/** What is left out stays as it is: a correction says no more than what it corrects. */
export const correctSchema = z
  .object(bookedFields)
  .partial()
  .extend({
    promiseConfirmed,
    /** A sheet of the library in place of the job's own copy; nothing to leave that. */
    sheetId: z.string().max(120).default(''),
    person: z.string().trim().min(1, 'Say who corrects it').max(80),
  });

export type Correction = z.input<typeof correctSchema>;

const beforeSchema = z.object({
  serial: z.string(),
  vehicle: z.string(),
  complaint: z.string(),
  symptoms: z.array(z.string()),
  promisedAt: z.string().nullable(),
  sheet: z.object({ family: z.string(), name: z.string(), spec: z.unknown() }),
});

/** What stood before a correction. */
export function bookedBefore({ before }: Act): Partial<Booked> {
  return beforeSchema.partial().parse(JSON.parse(before ?? '{}'));
}

type Field = keyof Booked;
const fields: readonly Field[] = ['serial', 'vehicle', 'complaint', 'symptoms', 'promisedAt', 'sheet'];
const same = (p: unknown, q: unknown) => JSON.stringify(p) === JSON.stringify(q);

/** Those of `to` that are otherwise than what the job holds. */
function differing(job: Job, to: Booked): Partial<Booked> {
  return Object.fromEntries(fields.filter((field) => !same(job[field], to[field])).map((field) => [field, to[field]]));
}

const quoted = (text: string) => (text === '' ? 'nothing' : `“${text}”`);

/** A correction in words: what it is now, and what it was. */
function inWords(job: Job, to: Partial<Booked>, shop: { readonly zone: string; readonly today: string }): string {
  const symptomsOf = (ids: readonly string[], sheet: Job['sheet']) => {
    const titles = (kindOfSheet(sheet)?.symptoms ?? []).filter(({ id }) => ids.includes(id));
    return quoted(titles.map(({ title }) => title.toLowerCase()).join(', '));
  };
  const promise = (at: string | null) => (at === null ? 'nothing' : shopTime(at, 'weekday-moment', shop));
  const said: Readonly<Record<Field, (value: Booked) => string>> = {
    serial: ({ serial }) => quoted(serial),
    vehicle: ({ vehicle }) => quoted(vehicle),
    complaint: ({ complaint }) => quoted(complaint),
    symptoms: ({ symptoms, sheet }) => symptomsOf(symptoms, sheet),
    promisedAt: ({ promisedAt }) => promise(promisedAt),
    sheet: ({ sheet }) => quoted(sheet.name),
  };
  const titles: Readonly<Record<Field, string>> = {
    serial: 'serial',
    vehicle: 'came off',
    complaint: 'complaint',
    symptoms: 'noticed',
    promisedAt: 'promised for',
    sheet: 'sheet',
  };
  const now = { ...job, ...to };
  return fields
    .filter((field) => field in to)
    .map((field) => `${titles[field]} ${said[field](now)}, was ${said[field](job)}`)
    .join('; ');
}

/** What is printed on a release: where it is corrected, the paper names another unit and is withdrawn. */
const printed: readonly Field[] = ['serial', 'vehicle', 'sheet'];

export function withdrawsFor(job: Job, to: Partial<Booked>): { readonly withdraws?: string } {
  const changed = printed.filter((field) => field in to && !same(job[field], to[field]));
  const called = { serial: 'its serial', vehicle: 'what it came off', sheet: 'its sheet' } as const;
  const names = changed.map((field) => called[field as keyof typeof called]);
  return names.length === 0 ? {} : { withdraws: `The paper says otherwise: ${names.join(' and ')} was corrected` };
}

/** The promise that a correction comes to; one that was left as it is may be past by now. */
function promiseIn(job: Job, { promisedAt, promiseConfirmed }: z.output<typeof correctSchema>, zone: string) {
  const own = job.promisedAt === null ? '' : typedTime(job.promisedAt, zone);
  return promisedAt === undefined || promisedAt === own
    ? job.promisedAt
    : promiseOf({ promisedAt, promiseConfirmed }, zone);
}

/** The sheet that a job is to be held against: one of the same kind of unit, so that what was measured still answers its steps. */
async function otherSheet(job: Job, sheetId: string): Promise<Job['sheet']> {
  if (sheetId === '') return job.sheet;
  const sheet = await findSheet(sheetId);
  if (!sheet) throw refusedField('sheetId', 'This sheet is not in the library');
  if (kindOfSheet(sheet) !== kindOfSheet(job.sheet))
    throw refusedField('sheetId', 'A unit of another kind: take the job out of the book, and book it in anew');
  return { family: sheet.family, name: sheet.name, spec: sheet.spec };
}

/**
 * Corrects what was booked, with what stood before on record; within a day it can be taken back. Another sheet judges what was measured
 * anew; a release that names another unit by it is withdrawn.
 */
export async function correctBooking(jobId: string, given: Correction): Promise<{ version: number }> {
  const form = correctSchema.parse(given);
  return changeJob(jobId, {
    person: form.person,
    async decide({ record, shop }) {
      const { job } = record;
      if (job.takenOutAt !== null)
        throw new RequestRefused(409, 'This job was taken out of the book. Bring it back first.');
      const { serial = job.serial, vehicle = job.vehicle } = form;
      const { complaint = job.complaint, symptoms = job.symptoms } = form;
      const sheet = await otherSheet(job, form.sheetId);
      refuseStrangeSymptoms(symptoms, sheet);
      const to = differing(job, {
        serial,
        vehicle,
        complaint,
        symptoms,
        promisedAt: promiseIn(job, form, shop.zone),
        sheet,
      });
      if (Object.keys(to).length === 0) return { edits: [], result: {} };
      if (to.sheet) refuseWhileOpen(record);
      const before = JSON.stringify(Object.fromEntries(Object.keys(to).map((field) => [field, job[field as Field]])));
      const detail = inWords(job, to, shop);
      return {
        ...withdrawsFor(job, to),
        edits: [
          { kind: 'corrected', to },
          { kind: 'act', act: { jobId, subject: null, act: 'corrected', person: form.person, detail, before } },
        ],
        result: {},
      };
    },
  });
}
