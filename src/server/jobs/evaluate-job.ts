import { mergeCorrections } from '@/core/procedure/corrections';
import { createHash } from 'node:crypto';
import type { Corrections } from '@/core/procedure/step-analysis';
import { planOf } from '@/core/contract/family';
import { suspectLog } from '@/core/diagnosis/suspect-log';
import type { StepDefinition } from '@/core/procedure/step-definition';
import { noCorrections } from '@/core/procedure/step-analysis';
import {
  analysisOf,
  evaluateMeasured,
  evaluateUnit,
  methodVersion,
  type Given,
  type RunSetting,
  type StepEvaluation,
  type StepEvidence,
  type UnitEvaluation,
} from '@/core/judging/evaluate-unit';
import type { Trace } from '@/core/traces/trace';
import type { Job } from '@/data/jobs';
import { listRuns, readTrace, type Run } from '@/data/runs';
import { readShopSettings } from '@/data/settings';
import { contextOf, judgedStepOf, sheetOf } from './job-context';

/** A job's evaluation with the runs it was made from. */
export interface JobEvaluation {
  readonly evaluation: UnitEvaluation;
  readonly runs: readonly Run[];
}

interface Remembered {
  readonly signature: string;
  readonly evaluation: UnitEvaluation;
}

// Evaluations of unchanged jobs are not made again; a few hundred bytes a job.
const shared = globalThis as { hardPedalEvaluations?: Map<string, Remembered> };
const remembered = (shared.hardPedalEvaluations ??= new Map());

function counted(run: Run): boolean {
  return run.state === 'kept' && run.struckOut === null;
}

/** What a run was recorded with. */
function settingOf(job: Job, run: Run): RunSetting {
  const context = contextOf(job, run.context.site, run.startedAt);
  const { ambient, airTemperature, shell, benchVolume, instruments, date } = context;
  return { ambient, airTemperature, shell, benchVolume, instruments, date };
}

/** The trace of a run; of one that came as a file, with what makes it look as if it were another's. */
async function recordedTrace(job: Job, step: StepDefinition<unknown>, run: Run) {
  const { trace } = await readTrace(run.id);
  if (run.context.source !== 'log file' || step.kind !== 'measured') return { trace };
  const context = contextOf(job, run.context.site, run.startedAt);
  return { trace, said: suspectLog(sheetOf(job).family, step, trace, context) };
}

async function evidenceOf(job: Job, runs: readonly Run[]): Promise<StepEvidence[]> {
  const evidence: StepEvidence[] = [];
  for (const step of sheetOf(job).family.steps) {
    const own = runs.filter((run) => run.step === step.id && counted(run));
    const last = own.at(-1);
    if (!last) continue;
    if (step.kind === 'look') {
      // A second look replaces the first.
      evidence.push({ kind: 'findings', step: step.id, findings: last.findings ?? {} });
      continue;
    }
    // What was typed and what was recorded are repeats of one step alike; each is analysed in its own way.
    const given = await Promise.all(
      own.map(async (run): Promise<Given> => ({
        // A repeat on another day, or at another bench volume, is read by what held then.
        setting: settingOf(job, run),
        ...(run.readings
          ? { readings: run.readings, standIn: run.context.standIn }
          : await recordedTrace(job, step, run)),
      })),
    );
    evidence.push({
      kind: 'mixed',
      step: step.id,
      given,
      setting: settingOf(job, last),
    });
  }
  return evidence;
}

/** Evaluates a job from its kept runs. */
export async function evaluateJob(job: Job): Promise<JobEvaluation> {
  const runs = await listRuns(job.id);
  const { policy } = await readShopSettings();
  const signature = createHash('sha256')
    .update(JSON.stringify([methodVersion, policy, job.sheet, runs.filter(counted).map((run) => run.id)]))
    .digest('hex');
  const known = remembered.get(job.id);
  if (known?.signature === signature) return { evaluation: known.evaluation, runs };
  const { family } = sheetOf(job);
  const latest = runs.at(-1);
  const context = contextOf(job, latest?.context.site ?? {}, latest?.startedAt ?? job.bookedAt);
  const evaluation = evaluateUnit(family, planOf(family, job.plan).steps, await evidenceOf(job, runs), {
    context,
    policy,
  });
  remembered.set(job.id, { signature, evaluation });
  return { evaluation, runs };
}

/** What the kept steps before `stepId` found out about the bench. */
export async function correctionsBefore(job: Job, stepId: string): Promise<Corrections> {
  const { evaluation } = await evaluateJob(job);
  let corrections = noCorrections;
  for (const step of evaluation.steps) {
    if (step.step === stepId) break;
    for (const analysis of step.analyses) corrections = mergeCorrections(corrections, analysis.corrections ?? {});
  }
  return corrections;
}

/** Evaluates one run by itself, before it is kept. */
export async function evaluateRun(job: Job, run: Run, trace: Trace): Promise<StepEvaluation> {
  const { policy } = await readShopSettings();
  const step = judgedStepOf(sheetOf(job).family, run.step);
  const corrections = await correctionsBefore(job, run.step);
  const context = { ...contextOf(job, run.context.site, run.startedAt), corrections };
  const given = run.readings ? { readings: run.readings, standIn: run.context.standIn } : { trace };
  return evaluateMeasured(step, [analysisOf(step, given, context)], context, policy);
}
