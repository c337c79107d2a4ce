import { createHash } from 'node:crypto';
import { planOf } from '@/core/contract/kind';
import type { DueStep } from '@/core/judging/verification';
import {
  correctionsBefore,
  evaluateStep,
  evaluateUnit,
  type StepEvaluation,
  type StepEvidence,
  type UnitEvaluation,
} from '@/core/judging/evaluate-unit';
import type { Job } from '@/data/jobs';
import { findEvaluation, storeEvaluation } from '@/data/kept-results';
import { listRepairs, type Repair } from '@/data/repairs';
import { listRuns, type Run } from '@/data/runs';
import { readShopSettings } from '@/data/settings';
import { isOfStep, stepsOfRun } from './answered-steps';
import { contextOf, judgedStepOf, sheetOf } from './job-context';
import { runsOfRound, type PastRound } from './rounds';
import { RunAnalyses, settingOf } from './run-analyses';
import { sayRejudged } from './say-rejudged';

/** A job's evaluation with the runs it was made from. */
export interface JobEvaluation {
  /** Of the last round. */
  readonly evaluation: UnitEvaluation;
  /** Rounds before the last repair, oldest first; empty while nothing was repaired. */
  readonly past: readonly PastRound[];
  /** What is due since the last repair; empty while nothing was repaired. */
  readonly due: readonly DueStep[];
  readonly repairs: readonly Repair[];
  readonly runs: readonly Run[];
  /** Hash of everything that it was made from. */
  readonly inputs: string;
  /** The small picture that was kept with it; null where none is. */
  readonly face: unknown;
}

function counted(run: Run): boolean {
  return run.state === 'kept' && run.struckOut === null;
}

function evidenceOf(job: Job, runs: readonly Run[], analyses: RunAnalyses): StepEvidence[] {
  return sheetOf(job).kind.steps.flatMap((step): StepEvidence[] => {
    const own = runs.filter((run) => isOfStep(job, run, step.id) && counted(run));
    const last = own.at(-1);
    if (!last) return [];
    // A second look replaces the first.
    if (step.kind === 'look') return [{ kind: 'findings', step: step.id, findings: last.findings ?? {} }];
    // What was typed and what was recorded are repeats of one step alike; each is analysed in its own way.
    const given = own.map((run) => analyses.given(step, run));
    return [{ kind: 'mixed', step: step.id, given, setting: settingOf(job, last) }];
  });
}

/** Everything that a job's evaluation is made from, but the method. */
async function inputsOf(job: Job, runs: readonly Run[], repairs: readonly Repair[]): Promise<string> {
  const { policy } = await readShopSettings();
  const ids = runs.filter(counted).map((run) => run.id);
  const made = [policy, job.plan, job.sheet, ids, runs.at(-1)?.id ?? null, ...repairs.map((repair) => repair.id)];
  return createHash('sha256').update(JSON.stringify(made)).digest('hex');
}

/** A job's runs, what they come to under, and what is on record of that, by whichever method. */
async function recordOf(job: Job) {
  const runs = await listRuns(job.id);
  const repairs = await listRepairs(job.id);
  const inputs = await inputsOf(job, runs, repairs);
  return { runs, repairs, inputs, known: await findEvaluation(job.id, inputs) };
}

/** What is kept of the rounds beside the last one's evaluation. */
type Rounds = Pick<JobEvaluation, 'past' | 'due'>;

const noRounds: Rounds = { past: [], due: [] };

/**
 * What is on record of a job at once. A `former` evaluation was made by another method: good enough to be looked at while today's is at
 * work, and for nothing else. Null where nothing fits what the job holds now.
 */
export async function evaluationOnRecord(job: Job): Promise<(JobEvaluation & { readonly former: boolean }) | null> {
  const { known, ...record } = await recordOf(job);
  return known ? { ...known, ...((known.rounds as Rounds | null) ?? noRounds), ...record } : null;
}

/** Evaluates a job from its kept runs, or reads back what it came to. */
export async function evaluateJob(job: Job): Promise<JobEvaluation> {
  const { known, ...record } = await recordOf(job);
  if (known && !known.former) return { ...known, ...((known.rounds as Rounds | null) ?? noRounds), ...record };
  const { runs, repairs, inputs } = record;
  const { evaluation, ...rounds } = await evaluateRounds(job, runs, repairs);
  await storeEvaluation(job.id, inputs, { evaluation, rounds });
  if (known) await sayRejudged(job, known.evaluation, evaluation).catch((error: unknown) => console.error(error));
  return { evaluation, ...rounds, ...record, face: null };
}

/** Evaluates round after round: what one found decides what is due in the next. */
async function evaluateRounds(
  job: Job,
  runs: readonly Run[],
  repairs: readonly Repair[],
): Promise<Rounds & Pick<JobEvaluation, 'evaluation'>> {
  const { policy } = await readShopSettings();
  const { kind } = sheetOf(job);
  const analyses = await RunAnalyses.of(job, runs);
  const past: PastRound[] = [];
  for (let round = 1; ; round++) {
    const own = runsOfRound(job, runs, repairs, round, past.at(-1) ?? null);
    const latest = own.runs.at(-1);
    const context = contextOf(job, latest?.context.site ?? {}, latest?.startedAt ?? job.bookedAt);
    const evaluation = await analyses.whileReading(() =>
      evaluateUnit(kind, planOf(kind, job.plan).steps, evidenceOf(job, own.runs, analyses), { context, policy }),
    );
    if (round > repairs.length) return { evaluation, past, due: own.due };
    past.push({
      evaluation,
      due: own.due,
      runs: Object.fromEntries(
        own.runs.filter(counted).flatMap((run) => stepsOfRun(job, run).map((step) => [step, run.id])),
      ),
    });
  }
}

/** Evaluates one run by itself, kept or not, under today's policy. */
export async function evaluateRun(job: Job, run: Run, signal?: AbortSignal): Promise<StepEvaluation> {
  const { policy } = await readShopSettings();
  const { kind } = sheetOf(job);
  const step = judgedStepOf(kind, run.step);
  const { evaluation } = await evaluateJob(job);
  const corrections = correctionsBefore(evaluation.steps, run.step);
  const context = { ...contextOf(job, run.context.site, run.startedAt), corrections };
  const analyses = await RunAnalyses.of(job, [run]);
  return analyses.whileReading(
    () => evaluateStep(kind, step, [analyses.given(step, run)], { context, policy }),
    signal,
  );
}
