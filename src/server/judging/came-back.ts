import { kindOfSheet } from '@/core/families';
import type { UnitVerdict } from '@/core/vocabulary/verdict';
import { loadJobRecord } from '@/data/job-record';
import { jobsOfSerial, type Job } from '@/data/jobs';
import type { Shop } from '../shop/shop-now';
import { evaluateJob } from './evaluate-job';
import { keptFace, type Face } from './unit-face';

/** A job that the same serial was here for before. */
export interface CameBack {
  readonly id: string;
  readonly number: number;
  readonly at: string;
  readonly verdict: UnitVerdict;
  readonly face: Face['measured'];
}

/** What is written for a unit without a plate: many have it, and none of them is another. */
const noSerial = /^(?:none|no|nil|unknown|n\/?a|[-–?.]+)$/i;

export const isNoSerial = (serial: string): boolean => noSerial.test(serial);

/** The last job of the same serial before this one; what cannot be read of it takes nothing from this one. */
export async function cameBackOf(job: Job, shop: Shop): Promise<CameBack | null> {
  if (isNoSerial(job.serial)) return null;
  const before = (await jobsOfSerial(job.serial, job.number))
    // Another build has other axes.
    .filter((each) => kindOfSheet(each.sheet) === kindOfSheet(job.sheet) && each.plan === job.plan)
    .at(-1);
  if (!before) return null;
  try {
    const record = await loadJobRecord(before.id);
    if (!record) return null;
    const evaluated = await evaluateJob(record, shop);
    const { measured } = await keptFace(record, evaluated, shop);
    const { id, number, bookedAt } = before;
    return { id, number, at: bookedAt, verdict: evaluated.evaluation.verdict, face: measured };
  } catch (error) {
    console.error(`job ${before.number}`, error);
    return null;
  }
}
