import * as z from 'zod';
import { findFamily, kindOfSheet } from '@/core/families';
import { checkSpec } from '@/core/formats/unit-sheet';
import type { JobRecord } from '@/data/job-record';
import type { Job } from '@/data/jobs';
import { findSheet, insertSheet } from '@/data/unit-sheets';
import { RequestRefused } from '../http/refused';
import { refuseStranger } from '../shop/people';
import { jobNamed } from '../context/job-context';
import { conclusionOf } from '../judging/conclusion';
import { evaluateJob } from '../judging/evaluate-job';
import { loadShop, type Shop } from '../shop/shop-now';
import {
  bookedFields,
  familyTitle,
  promiseConfirmed,
  promiseOf,
  refusedField,
  refuseStrangeSymptoms,
} from './booked-fields';
import { bookJob } from './change-job';

export const bookInSchema = z.object({
  sheetId: z.string().min(1, 'Choose a unit sheet, or measure the unit and make one').max(120),
  ...bookedFields,
  complaint: bookedFields.complaint.default(''),
  symptoms: bookedFields.symptoms.default([]),
  promisedAt: bookedFields.promisedAt.default(''),
  promiseConfirmed,
  person: z.string().trim().min(1, 'Say who books it in').max(80),
  plan: z.enum(['bench', 'vehicle']).default('bench'),
  standInFault: z.string().max(80).default(''),
  /** Job whose unit this one looks behind; nothing for a job of its own. */
  behindOf: z.string().max(120).default(''),
});

export type BookIn = z.input<typeof bookInSchema>;

/** Faults of a unit that a technician did not choose are mounted at this severity. */
const mountedSeverity = 0.6;

/** Books a unit in: the sheet is copied, so that a later edit never changes this job's verdict. */
export async function bookIn(given: BookIn): Promise<Job> {
  const form = bookInSchema.parse(given);
  const shop = await loadShop();
  refuseStranger(shop.people, form.person);
  const promisedAt = promiseOf(form, shop.zone);
  const sheet = await findSheet(form.sheetId);
  if (!sheet) throw refusedField('sheetId', 'This sheet is not in the library');
  const kind = kindOfSheet(sheet);
  const known = form.standInFault === '' || kind?.model.faults.some((fault) => fault.id === form.standInFault);
  if (!known) throw refusedField('standInFault', 'This unit has no such fault');
  refuseStrangeSymptoms(form.symptoms, sheet);
  const seed = [...form.serial].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) | 0, 7);
  const booked = {
    serial: form.serial,
    vehicle: form.vehicle,
    complaint: form.complaint,
    symptoms: form.symptoms,
    place: 'waiting' as const,
    plan: kind?.plans.some((plan) => plan.id === form.plan) ? form.plan : (kind?.plans[0].id ?? 'bench'),
    bookedAt: new Date().toISOString(),
    bookedBy: form.person,
    promisedAt,
    sheet: { family: sheet.family, name: sheet.name, spec: sheet.spec },
    behindOf: form.behindOf === '' ? null : form.behindOf,
  };
  const faults = form.standInFault === '' ? [] : [{ id: form.standInFault, severity: mountedSeverity }];
  const standIn = { seed, pairError: 0.006, faults };
  const check = (front: JobRecord) => refuseBehind(front, shop, sheet.family);
  return jobNamed(await bookJob(booked, { standIn, person: form.person, shop, check }));
}

/** A job looks behind another only where that one's inquiry hands on to its family. */
async function refuseBehind(record: JobRecord, shop: Shop, family: string): Promise<void> {
  const front = record.job;
  if (front.takenOutAt !== null)
    throw new RequestRefused(422, 'The job that this one looks behind is not in the book.');
  const { evaluation } = await evaluateJob(record, shop);
  const handsTo = conclusionOf(front, evaluation)?.handsTo;
  if (handsTo === undefined)
    throw new RequestRefused(422, `Job ${front.number} has not come to an end that is looked behind.`);
  if (handsTo !== family)
    throw refusedField('sheetId', `Behind job ${front.number} looks a sheet of ${familyTitle(handsTo)}`);
}

export const newSheetSchema = z.object({
  family: z.string().max(80),
  name: z.string().trim().min(1, 'Give the sheet a name').max(120),
  spec: z.record(z.string().max(80), z.unknown()),
});

/** Stores a checked unit sheet; every wrong field is named. */
export async function addSheet(form: z.infer<typeof newSheetSchema>): Promise<{ id: string }> {
  const family = findFamily(form.family);
  if (!family) throw new RequestRefused(422, `No family "${form.family}" is known.`);
  const checked = checkSpec(family, form.name, form.spec, 'sheet');
  if (!checked.ok) {
    const fields = checked.problems.flatMap((problem) =>
      problem.code === 'bad-field' ? [[problem.field.replace(/^spec\./, ''), problem.detail]] : [],
    );
    throw new RequestRefused(
      422,
      'Some fields need another look.',
      Object.fromEntries(fields) as Record<string, string>,
    );
  }
  return { id: await insertSheet({ family: family.id, name: form.name, spec: checked.value.spec }) };
}
