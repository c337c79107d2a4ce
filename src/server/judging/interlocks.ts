import { lockOf, touchesHazard, type Lock, type RecordedStep } from '@/core/procedure/interlock';
import { planOf } from '@/core/contract/kind';
import { lookVerdict } from '@/core/judging/judge-step';
import { lockText } from '@/core/wording/lock-text';
import type { JobRecord } from '@/data/job-record';
import type { Run } from '@/data/runs';
import { sheetOf, stepTitle } from '../context/job-context';
import { RequestRefused } from '../http/refused';
import type { Shop } from '../shop/shop-now';
import { evaluateRun, type JobEvaluation } from './evaluate-job';
import { RunAnalyses } from './run-analyses';

/**
 * The job's runs in the order in which they were begun, as its interlocks see them: by their numbers, whatever any clock said. A run that
 * is recording, or waits to be kept, has already brought a hazard back; it proves nothing until it is kept. What was struck out or thrown
 * away still did.
 */
async function recordedSteps(
  { job, runs }: JobRecord,
  judged: { readonly shop: Shop; readonly evaluated: JobEvaluation },
  except: string | null,
): Promise<RecordedStep[]> {
  const { steps } = sheetOf(job).kind;
  const stepOf = (run: Run) => steps.find((step) => step.id === run.step);
  // A file that was let go has put in nothing; a live run that was thrown away has.
  const letGo = (run: Run) => run.state === 'discarded' && run.context.source !== 'stand-in rig';
  const counts = (run: Run) => {
    const step = stepOf(run);
    return run.id !== except && !letGo(run) && step && (touchesHazard(step) || step.kind === 'look');
  };
  const counted = runs.filter(counts);
  const isKept = (run: Run) => run.state === 'kept' && run.struckOut === null;
  // A step that brings a hazard back shuts what it must be gone for whatever it came to: only proofs are judged.
  const proofs = counted.filter((run) => {
    const step = stepOf(run);
    return isKept(run) && step && step.kind !== 'look' && step.proves;
  });
  const { evaluated, shop } = judged;
  const analyses = proofs.length > 0 ? (evaluated.analyses ?? (await RunAnalyses.of(job, proofs, 'kept'))) : null;
  const recorded: RecordedStep[] = [];
  for (const run of counted) {
    const step = stepOf(run)!;
    // What a kept run comes to under today's policy; never a verdict remembered from another.
    const verdict = !isKept(run)
      ? 'not-run'
      : step.kind === 'look'
        ? lookVerdict(step, run.findings ?? {})
        : proofs.includes(run)
          ? (await evaluateRun(job, run, { shop, evaluated: { ...evaluated, analyses } })).verdict
          : 'not-run';
    recorded.push({ step: run.step, verdict });
  }
  return recorded;
}

/** What keeps each step of the job's plan shut, as if the run `except` were not there; open steps are left out. */
export async function locksOf(
  record: JobRecord,
  judged: { readonly shop: Shop; readonly evaluated: JobEvaluation },
  except: string | null = null,
): Promise<ReadonlyMap<string, Lock>> {
  if (!hasInterlocks(record)) return new Map();
  const { job } = record;
  const { kind } = sheetOf(job);
  const plan = planOf(kind, job.plan).steps;
  const recorded = await recordedSteps(record, judged, except);
  return new Map(
    plan.flatMap((id) => {
      const lock = lockOf(kind.steps, plan, id, recorded);
      return lock ? [[id, lock] as const] : [];
    }),
  );
}

/** Whether any step of a job's plan can be shut at all. */
export function hasInterlocks({ job }: JobRecord): boolean {
  const { kind } = sheetOf(job);
  const plan = planOf(kind, job.plan).steps;
  return kind.steps.some((step) => step.interlock && plan.includes(step.id));
}

/** Refuses a step of a job that is not in the book any more, or whose cautions nobody has acknowledged. */
export function refuseUnread({ job, cautions, broken }: JobRecord, stepId: string): void {
  if (job.takenOutAt !== null)
    throw new RequestRefused(409, 'This job was taken out of the book. Bring it back first.');
  // Nobody knows what a run did to the unit that cannot be read.
  const step = sheetOf(job).kind.steps.find((each) => each.id === stepId);
  if (step?.interlock && broken.some((each) => each.of === 'run'))
    throw new RequestRefused(
      409,
      `“${step.title}” does not open: a run of this job cannot be read, so nobody knows what it left in the unit.`,
    );
  if (step?.cautions.some((caution) => !cautions.some((each) => each.caution === caution)))
    throw new RequestRefused(409, 'Read the cautions of this step first: they are acknowledged by name.');
}

/** The refusal of a step that an interlock keeps shut. */
export const shutBy = ({ job }: JobRecord, lock: Lock): RequestRefused =>
  new RequestRefused(
    409,
    lockText(lock, (id) => stepTitle(job, id)),
  );
