import { conclusionAdvice } from '@/core/wording/conclusion-text';
import type { Conclusion } from '@/core/contract/plan';
import { planOf } from '@/core/contract/kind';
import { concludeInquiry } from '@/core/judging/conclude-inquiry';
import { loadJobRecord, type JobRecord } from '@/data/job-record';
import { findJob, type Job } from '@/data/jobs';
import { sheetOf } from '../context/job-context';
import type { Shop } from '../shop/shop-now';
import { evaluateJob, type Judging } from './evaluate-job';

/** What a look behind a unit has come to. */
export type BehindState =
  | { readonly kind: 'open' }
  /** Its record or one of its runs is damaged. */
  | { readonly kind: 'unreadable' }
  | ({ readonly kind: 'concluded' } & Pick<Conclusion, 'title' | 'advice' | 'clears'>);

/** The job that looks behind a unit, and what it has come to. */
export interface BehindIt {
  readonly id: string;
  readonly number: number;
  readonly state: BehindState;
}

async function stateOf(record: JobRecord | undefined, shop: Shop, judging: Judging): Promise<BehindState> {
  if (!record || record.broken.some(({ of }) => of === 'run' || of === 'repair')) return { kind: 'unreadable' };
  const { job } = record;
  const { evaluation } = await evaluateJob(record, shop, judging);
  const { kind } = sheetOf(job);
  const state = concludeInquiry(planOf(kind, job.plan), evaluation);
  if (state.kind === 'open') return state;
  const { title, clears } = state.conclusion;
  return { kind: 'concluded', title, advice: conclusionAdvice(state.conclusion, state.felt, kind.steps), clears };
}

/**
 * What looks behind a job's unit, the last one where there are several; null where nothing does. What cannot be read of it is said.
 * `instead` is a job behind it as it will be, where that is decided on just now; `judging` is how the others are judged.
 */
export async function behindOf(
  { behind }: Pick<JobRecord, 'behind'>,
  shop: Shop,
  { instead = null, judging = 'kept' }: { readonly instead?: JobRecord | null; readonly judging?: Judging } = {},
): Promise<BehindIt | null> {
  const known = behind.filter(({ id }) => id !== instead?.job.id || instead.job.takenOutAt === null);
  const found = known.at(-1);
  if (!found) return null;
  const isInstead = instead !== null && instead.job.id === found.id;
  try {
    const record = isInstead ? instead : await loadJobRecord(found.id);
    return { ...found, state: await stateOf(record, shop, isInstead ? 'aside' : judging) };
  } catch (error) {
    console.error(`job ${found.number}`, error);
    return { ...found, state: { kind: 'unreadable' } };
  }
}

/** The job whose unit this one looks behind; null where it is a job of its own, or that one cannot be read. */
export async function inFrontOf({ behindOf: id }: Job): Promise<Pick<Job, 'id' | 'number' | 'serial'> | null> {
  if (id === null) return null;
  const front = await findJob(id).catch((error: unknown) => {
    console.error(`job ${id}`, error);
    return undefined;
  });
  return front ? { id: front.id, number: front.number, serial: front.serial } : null;
}
