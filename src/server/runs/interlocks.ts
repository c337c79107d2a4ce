import { lockOf, touchesHazard, type Lock, type RecordedStep } from '@/core/procedure/interlock';
import { planOf } from '@/core/contract/kind';
import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import { lookVerdict } from '@/core/judging/judge-step';
import { lockText } from '@/core/wording/lock-text';
import { listCautions, type Job } from '@/data/jobs';
import { listEveryRun, type Run } from '@/data/runs';
import { RequestRefused } from '../http/refused';
import { evaluateRun } from '../jobs/evaluate-job';
import { sheetOf } from '../jobs/job-context';

/** What a kept run comes to under today's policy; never a verdict remembered from another. */
async function verdictOf(job: Job, run: Run): Promise<StepEvaluation['verdict']> {
  const step = sheetOf(job).kind.steps.find((each) => each.id === run.step);
  if (!step) return 'not-run';
  if (step.kind === 'look') return lookVerdict(step, run.findings ?? {});
  // A step that brings a hazard back shuts what it must be gone for whatever it came to: only proofs are judged.
  if (!step.proves) return 'not-run';
  return (await evaluateRun(job, run)).verdict;
}

/**
 * The job's runs in the order of time, as its interlocks see them. A run that is recording, or waits to be kept, has
 * already brought it back; it proves nothing until it is kept. What was struck out or thrown away still did.
 */
async function recordedSteps(job: Job, except: string | null): Promise<RecordedStep[]> {
  // A file that was let go has put in nothing; a live run that was thrown away has.
  const letGo = (run: Run) => run.state === 'discarded' && run.context.source !== 'stand-in rig';
  const runs = (await listEveryRun(job.id)).filter((run) => run.id !== except && !letGo(run));
  const { steps } = sheetOf(job).kind;
  const counts = (run: Run) =>
    steps.some((step) => step.id === run.step && (touchesHazard(step) || step.kind === 'look'));
  return Promise.all(
    runs.filter(counts).map(async (run): Promise<RecordedStep> => {
      const kept = run.state === 'kept' && run.struckOut === null;
      return { step: run.step, verdict: kept ? await verdictOf(job, run) : 'not-run' };
    }),
  );
}

/** What keeps each step of the job's plan shut, as if the run `except` were not there; open steps are left out. */
export async function locksOf(job: Job, except: string | null = null): Promise<ReadonlyMap<string, Lock>> {
  const { kind } = sheetOf(job);
  const plan = planOf(kind, job.plan).steps;
  if (!kind.steps.some((step) => step.interlock && plan.includes(step.id))) return new Map();
  const recorded = await recordedSteps(job, except);
  return new Map(
    plan.flatMap((id) => {
      const lock = lockOf(kind.steps, plan, id, recorded);
      return lock ? [[id, lock] as const] : [];
    }),
  );
}

/**
 * Refuses a step that an interlock keeps shut, or whose cautions nobody has acknowledged: here, whoever asks and by
 * whatever way, and not only on the screen. A run that goes on or is kept (`except`) is not locked out by itself.
 */
export async function refuseShut(job: Job, stepId: string, except: string | null = null): Promise<void> {
  if (job.takenOutAt !== null)
    throw new RequestRefused(409, 'This job was taken out of the book. Bring it back first.');
  const { kind } = sheetOf(job);
  const step = kind.steps.find((each) => each.id === stepId);
  if (!step) return;
  const lock = (await locksOf(job, except)).get(stepId);
  if (lock)
    throw new RequestRefused(
      409,
      lockText(lock, (id) => kind.steps.find((each) => each.id === id)?.title ?? id),
    );
  const read = await listCautions(job.id);
  if (step.cautions.some((caution) => !read.some((each) => each.caution === caution)))
    throw new RequestRefused(409, 'Read the cautions of this step first: they are acknowledged by name.');
}
