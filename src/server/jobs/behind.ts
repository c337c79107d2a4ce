import type { Conclusion } from '@/core/contract/plan';
import { planOf } from '@/core/contract/kind';
import { concludeInquiry } from '@/core/judging/conclude-inquiry';
import { findBehind, findJob, type Job } from '@/data/jobs';
import { evaluateJob } from './evaluate-job';
import { sheetOf } from './job-context';

/** The job that looks behind a unit, and what it has come to. */
export interface BehindIt {
  readonly id: string;
  readonly number: number;
  /** Null while it is open. */
  readonly conclusion: Pick<Conclusion, 'title' | 'advice' | 'clears'> | null;
}

/** What looks behind a job's unit; null where nothing does. */
export async function behindOf(job: Job): Promise<BehindIt | null> {
  const found = await findBehind(job.id);
  if (!found) return null;
  const { evaluation } = await evaluateJob(found);
  const state = concludeInquiry(planOf(sheetOf(found).kind, found.plan), evaluation);
  const { id, number } = found;
  if (state.kind === 'open') return { id, number, conclusion: null };
  const { title, advice, clears } = state.conclusion;
  return { id, number, conclusion: { title, advice, clears } };
}

/** The job whose unit this one looks behind; null where it is a job of its own. */
export async function inFrontOf({ behindOf: id }: Job): Promise<Pick<Job, 'id' | 'number' | 'serial'> | null> {
  const front = id === null ? undefined : await findJob(id);
  return front ? { id: front.id, number: front.number, serial: front.serial } : null;
}
