import type { Conclusion } from '@/core/contract/plan';
import { planOf } from '@/core/contract/kind';
import { concludeInquiry } from '@/core/judging/conclude-inquiry';
import { behindJobs, findJob, type Job } from '@/data/jobs';
import { evaluateJob } from './evaluate-job';
import { sheetOf } from './job-context';

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

async function stateOf(id: string): Promise<BehindState> {
  const job = await findJob(id);
  if (!job) return { kind: 'unreadable' };
  const { evaluation } = await evaluateJob(job);
  const state = concludeInquiry(planOf(sheetOf(job).kind, job.plan), evaluation);
  if (state.kind === 'open') return state;
  const { title, advice, clears } = state.conclusion;
  return { kind: 'concluded', title, advice, clears };
}

/** What looks behind a job's unit, the last one where there are several; null where nothing does. What cannot be read of it is said. */
export async function behindOf(job: Job): Promise<BehindIt | null> {
  const found = (await behindJobs(job.id)).at(-1);
  if (!found) return null;
  const state = await stateOf(found.id).catch((error: unknown): BehindState => {
    console.error(`job ${found.number}`, error);
    return { kind: 'unreadable' };
  });
  return { ...found, state };
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
