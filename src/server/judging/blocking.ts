import { planOf } from '@/core/contract/kind';
import { concludeInquiry } from '@/core/judging/conclude-inquiry';
import type { UnitEvaluation } from '@/core/judging/evaluate-unit';
import type { StepVerdict } from '@/core/vocabulary/verdict';
import { verdictWords } from '@/core/wording/verdict-words';
import type { JobRecord } from '@/data/job-record';
import type { Job } from '@/data/jobs';
import type { BehindIt } from './behind';
import { sheetOf, stepTitle } from '../context/job-context';

/** What stands in the way of a release, and where it is looked at. */
export interface Blocking {
  /** The job itself, or the one that looks behind its unit. */
  readonly job: string;
  /** Null where it is no one step of that job. */
  readonly step: string | null;
  readonly title: string;
  /** Null where it is no step's verdict but where an inquiry stands. */
  readonly verdict: StepVerdict | null;
}

const doneVerdicts: readonly StepVerdict[] = ['pass', 'recorded'];

/**
 * What stands in the way of a release: what is required and not done, what failed whether required or not, a fault that was found, and
 * what was found behind the unit or is still looked for there.
 */
export function blockingOf(
  { job, broken }: Pick<JobRecord, 'job' | 'broken'>,
  { evaluation, behind }: { readonly evaluation: UnitEvaluation; readonly behind: BehindIt | null },
): Blocking[] {
  const verdicts = evaluation.steps
    .filter(({ optional, verdict }) => verdict === 'fail' || (!optional && !doneVerdicts.includes(verdict)))
    .map(({ step, verdict }) => ({ job: job.id, step, title: stepTitle(job, step), verdict }));
  const damaged = broken
    .filter(({ of }) => of === 'run' || of === 'repair')
    .map(({ of }) => ({ job: job.id, step: null, title: `A ${of} on its record cannot be read`, verdict: null }));
  return [...verdicts, ...damaged, ...foundHere(job, evaluation), ...foundBehind(behind)];
}

function foundHere(job: Job, evaluation: UnitEvaluation): Blocking[] {
  const state = concludeInquiry(planOf(sheetOf(job).kind, job.plan), evaluation);
  if (state.kind === 'open' || state.conclusion.clears) return [];
  const { title, step = evaluation.steps[0]?.step ?? null } = state.conclusion;
  return [{ job: job.id, step, title, verdict: null }];
}

function foundBehind(behind: BehindIt | null): Blocking[] {
  if (!behind) return [];
  const { id, number, state } = behind;
  const blocking = (title: string): Blocking[] => [{ job: id, step: null, title, verdict: null }];
  switch (state.kind) {
    case 'open':
      return blocking(`What is behind it is still looked through (job ${number})`);
    case 'unreadable':
      return blocking(`What was found behind it cannot be read (job ${number})`);
    case 'concluded':
      return state.clears ? [] : blocking(state.title);
  }
}

/** What stands in the way in one line. */
export const blockingText = (blocking: readonly Blocking[]): string =>
  blocking
    .map(({ title, verdict }) => (verdict ? `${title}: ${verdictWords[verdict].toLowerCase()}` : title))
    .join('; ');
