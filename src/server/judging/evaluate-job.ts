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
import type { Ledger } from '@/core/diagnosis/ledger';
import { runsOf, type JobRecord } from '@/data/job-record';
import type { Job } from '@/data/jobs';
import { findEvaluation, storeEvaluation, type KeptEvaluation } from '@/data/kept-results';
import type { Repair } from '@/data/repairs';
import type { Run } from '@/data/runs';
import { isOfStep, stepsOfRun } from '../context/answered-steps';
import { contextOf, judgedStepOf, sheetOf } from '../context/job-context';
import { runsOfRound, type PastRound } from '../context/rounds';
import type { Shop } from '../shop/shop-now';
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
  /** The ledger that was kept with it, and what that was made from; null where none is. */
  readonly ledger: { readonly inputs: string; readonly ledger: Ledger } | null;
  /** Analyses of its runs that were read or made on the way. */
  readonly analyses: RunAnalyses | null;
}

/**
 * How a job is judged. `kept`: what fits is read back, what is made is kept. `aside`: of a record as it will be, so that nothing is kept.
 * `traces`: nothing that was kept is believed, not even analyses.
 */
export type Judging = 'kept' | 'aside' | 'traces';

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
function inputsOf(record: JobRecord, { settings }: Shop): string {
  const { job, repairs } = record;
  const runs = runsOf(record);
  const ids = runs.filter(counted).map((run) => run.id);
  const made = [
    settings.policy,
    job.plan,
    job.sheet,
    ids,
    runs.at(-1)?.id ?? null,
    ...repairs.map((repair) => repair.id),
  ];
  return createHash('sha256').update(JSON.stringify(made)).digest('hex');
}

/** What is kept of the rounds beside the last one's evaluation. */
type Rounds = Pick<JobEvaluation, 'past' | 'due'>;

const noRounds: Rounds = { past: [], due: [] };

const readBack = (record: JobRecord, { inputs, evaluation, rounds, face, ledger }: KeptEvaluation): JobEvaluation => ({
  inputs,
  evaluation,
  face,
  ledger: ledger as JobEvaluation['ledger'],
  ...((rounds as Rounds | null) ?? noRounds),
  runs: runsOf(record),
  repairs: record.repairs,
  analyses: null,
});

/**
 * What is on record of a job at once. A `former` evaluation was made by another method: good enough to be looked at while today's is at
 * work, and for nothing else. Null where nothing fits what the job holds now.
 */
export async function evaluationOnRecord(
  record: JobRecord,
  shop: Shop,
): Promise<(JobEvaluation & { readonly former: boolean }) | null> {
  const known = await findEvaluation(record.job.id);
  return known?.inputs === inputsOf(record, shop) ? { ...readBack(record, known), former: known.former } : null;
}

/** Evaluates a job from its kept runs, or reads back what it came to. */
export async function evaluateJob(record: JobRecord, shop: Shop, how: Judging = 'kept'): Promise<JobEvaluation> {
  const { job, repairs } = record;
  const inputs = inputsOf(record, shop);
  const found = how === 'traces' ? undefined : await findEvaluation(job.id);
  const known = found?.inputs === inputs ? found : undefined;
  if (known && !known.former) return readBack(record, known);
  const runs = runsOf(record);
  const analyses = await RunAnalyses.of(job, runs, how);
  const { evaluation, ...rounds } = await evaluateRounds(record, shop, analyses);
  if (how === 'kept') await storeEvaluation(job.id, { inputs, evaluation, rounds });
  if (how === 'kept' && known)
    await sayRejudged(job, known.evaluation, evaluation).catch((error: unknown) => console.error(error));
  return { evaluation, ...rounds, runs, repairs, inputs, face: null, ledger: null, analyses };
}

/** Evaluates round after round: what one found decides what is due in the next. */
async function evaluateRounds(
  record: JobRecord,
  { settings: { policy } }: Shop,
  analyses: RunAnalyses,
): Promise<Rounds & Pick<JobEvaluation, 'evaluation'>> {
  const { job, repairs } = record;
  const runs = runsOf(record);
  const { kind } = sheetOf(job);
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

/** Evaluates one run by itself, kept or not, under today's policy; `evaluated` is what its job comes to. */
export async function evaluateRun(
  job: Job,
  run: Run,
  {
    shop,
    evaluated,
    signal,
  }: { readonly shop: Shop; readonly evaluated: JobEvaluation; readonly signal?: AbortSignal },
): Promise<StepEvaluation> {
  const { kind } = sheetOf(job);
  const step = judgedStepOf(kind, run.step);
  const corrections = correctionsBefore(evaluated.evaluation.steps, run.step);
  const context = { ...contextOf(job, run.context.site, run.startedAt), corrections };
  const analyses = evaluated.analyses ?? (await RunAnalyses.of(job, [run], 'kept'));
  return analyses.whileReading(
    () => evaluateStep(kind, step, [analyses.given(step, run)], { context, policy: shop.settings.policy }),
    signal,
  );
}
