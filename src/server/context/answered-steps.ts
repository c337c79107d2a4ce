import { answeredBy } from '@/core/contract/one-log';
import type { Job } from '@/data/jobs';
import type { Run } from '@/data/runs';
import { sheetOf } from './job-context';

/** Steps that a run is evidence of: what was typed or looked at is of its own step alone. */
export function stepsOfRun(job: Job, run: Pick<Run, 'step' | 'readings' | 'findings'>): readonly string[] {
  return run.readings || run.findings ? [run.step] : answeredBy(sheetOf(job).kind, job.plan, run.step);
}

/** Whether a run is evidence of a step. */
export function isOfStep(job: Job, run: Pick<Run, 'step' | 'readings' | 'findings'>, step: string): boolean {
  return run.step === step || stepsOfRun(job, run).includes(step);
}
