import { verificationOf, type DueStep, type PartWork } from '@/core/judging/verification';
import type { UnitEvaluation } from '@/core/judging/evaluate-unit';
import type { Job } from '@/data/jobs';
import type { Repair } from '@/data/repairs';
import type { Run } from '@/data/runs';
import { isOfStep } from './answered-steps';
import { sheetOf } from './job-context';

/** A time of testing that came before the last repair: what it found, and what was due in it. */
export interface PastRound {
  readonly evaluation: UnitEvaluation;
  readonly due: readonly DueStep[];
  /** Run of each step that was counted last. */
  readonly runs: Readonly<Record<string, string>>;
}

/** What a round is judged on. */
export interface RoundRuns {
  readonly due: readonly DueStep[];
  readonly runs: readonly Run[];
}

/** Number of the round in which a run was begun, from 1: every repair begins another. */
export function roundOf(run: Pick<Run, 'sequence'>, repairs: readonly Repair[]): number {
  return 1 + repairs.filter((repair) => run.sequence > repair.afterRun).length;
}

/** Whether a run may speak for the unit as it is now: of a step that the last repair makes due, only one that was made since. */
export function speaksNow(
  run: Pick<Run, 'sequence' | 'step'>,
  { repairs, due }: { readonly repairs: readonly Repair[]; readonly due: readonly DueStep[] },
): boolean {
  return !due.some((each) => each.step === run.step) || roundOf(run, repairs) > repairs.length;
}

/** All that was done to a unit up to a round. */
export function workUpTo(repairs: readonly Repair[], round: number): readonly PartWork[] {
  return repairs.slice(0, round - 1).flatMap((repair) => repair.work);
}

/**
 * The runs that a round is judged on. A step that is due counts only what was done in this round; any other keeps what the last round
 * that did it found.
 */
export function runsOfRound(
  job: Job,
  runs: readonly Run[],
  repairs: readonly Repair[],
  round: number,
  before: PastRound | null,
): RoundRuns {
  const upTo = runs.filter((run) => roundOf(run, repairs) <= round);
  if (round === 1 || !before) return { due: [], runs: upTo };
  const due = verificationOf(sheetOf(job).kind, job.plan, before.evaluation.steps, repairs[round - 2].work, before.due);
  const steps = new Set(due.map((each) => each.step));
  const lastOf = (step: string) =>
    Math.max(
      ...upTo
        .filter((run) => isOfStep(job, run, step) && run.struckOut === null && run.state === 'kept')
        .map((run) => roundOf(run, repairs)),
    );
  return {
    due,
    runs: upTo.filter((run) => roundOf(run, repairs) === (steps.has(run.step) ? round : lastOf(run.step))),
  };
}
