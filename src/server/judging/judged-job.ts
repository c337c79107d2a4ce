import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import { loadJobRecord, type JobRecord } from '@/data/job-record';
import { runNamed } from '../context/job-context';
import { RequestRefused } from '../http/refused';
import { loadShop, type Shop } from '../shop/shop-now';
import { evaluateJob, evaluateRun, type JobEvaluation, type Judging } from './evaluate-job';

/** A job with all that is on record of it, the shop as it is, and what the job comes to. */
export interface JudgedJob {
  readonly record: JobRecord;
  readonly shop: Shop;
  readonly evaluated: JobEvaluation;
}

/** Loads a job with the shop as it is; refused where it is not in the book. */
export async function loadedJob(id: string): Promise<Omit<JudgedJob, 'evaluated'>> {
  const [record, shop] = await Promise.all([loadJobRecord(id), loadShop()]);
  if (!record) throw new RequestRefused(404, 'This job is not in the book.');
  return { record, shop };
}

/** The same, judged. */
export async function judgedJob(id: string, how: Judging = 'kept'): Promise<JudgedJob> {
  const { record, shop } = await loadedJob(id);
  return { record, shop, evaluated: await evaluateJob(record, shop, how) };
}

/** What one run comes to by itself, kept or not, under today's policy. */
export async function judgedRun(runId: string, signal?: AbortSignal): Promise<StepEvaluation> {
  const run = await runNamed(runId);
  const { record, shop, evaluated } = await judgedJob(run.jobId);
  return evaluateRun(record.job, run, { shop, evaluated, signal });
}
