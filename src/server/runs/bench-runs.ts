import { writtenKey } from '@/core/procedure/look-step';
import { liveFeed } from '@/core/procedure/step-definition';
import { planOf } from '@/core/contract/kind';
import { readFrame } from '@/core/traces/frame';
import { concatTraces, type Trace } from '@/core/traces/trace';
import { guideStart } from '@/core/procedure/guide';
import { rigForStep } from '@/core/rig/run-step';
import type { StandInRig } from '@/core/rig/stand-in-rig';
import { moveJob, type Job } from '@/data/jobs';
import {
  appendChunk,
  countChunks,
  findRun,
  insertRun,
  listRuns,
  setRunState,
  strikeOutRun,
  type Run,
} from '@/data/runs';
import { standInNow } from '../jobs/stand-in-now';
import { contextOf, jobNamed, runnableStepOf, sheetOf, siteNow, stillOpen } from '../jobs/job-context';
import { recordAct } from '@/data/acts';
import { RequestRefused } from '../http/refused';
import { refuseStranger } from '../people';
import { heavy } from '../threads/pool';
import { reviewRelease } from '../release/review-release';
import { refuseShut } from './interlocks';
import { standInInstrument } from './live-instrument';
import { RunRecorder, type RunProgress } from './run-recorder';

// One table of recorders for the whole process, also across the bundler's copies of this module.
const shared = globalThis as { hardPedalRecorders?: Map<string, RunRecorder> };
const recorders = (shared.hardPedalRecorders ??= new Map());

export async function runNamed(id: string): Promise<Run> {
  const run = await findRun(id);
  if (!run) throw new RequestRefused(404, 'This run is not recorded here.');
  return run;
}

/** The recorder of a run that is being recorded in this process. */
export function recorderOf(id: string): RunRecorder | undefined {
  return recorders.get(id);
}

function liveRecorder(id: string): RunRecorder {
  const recorder = recorders.get(id);
  if (!recorder) throw new RequestRefused(409, 'This run is not being recorded now. Resume it or run the step again.');
  return recorder;
}

async function rigFor(job: Job, run: Pick<Run, 'step' | 'context' | 'startedAt'>, repeat: number): Promise<StandInRig> {
  const context = contextOf(job, run.context.site, run.startedAt);
  const { kind } = sheetOf(job);
  const { faults, seed, pairError } = await standInNow(job);
  return rigForStep(kind, runnableStepOf(kind, run.step), context, {
    faults,
    benchSeed: seed,
    runSeed: seed + 7919 * repeat,
    pairError,
  });
}

/** What a run has recorded already, and the number of its next chunk. */
interface RecordedSoFar {
  readonly trace: Trace;
  readonly nextSequence: number;
}

function record(run: Run, job: Job, rig: StandInRig, from: RecordedSoFar, start: RunProgress): void {
  const context = contextOf(job, run.context.site, run.startedAt);
  const { kind, unit } = sheetOf(job);
  const recorder = new RunRecorder({
    instrument: standInInstrument(rig),
    phases: liveFeed(runnableStepOf(kind, run.step)).guide(context),
    store: {
      append: (sequence, chunk, progress) => appendChunk(run.id, sequence, chunk, progress),
      finish: async () => {
        await setRunState(run.id, 'complete', new Date().toISOString());
        recorders.delete(run.id);
      },
    },
    start,
    recorded: from.trace,
    nextSequence: from.nextSequence,
    leverMaximum: planOf(kind, job.plan).lever?.maximum(unit) ?? 0,
  });
  recorders.set(run.id, recorder);
  recorder.start();
}

/**
 * Starts a live run of a step. One run at a time a job: the bench has one set of gauges. A finished run of the same step that nobody has
 * kept yet is set aside where `again` says so, until this one is kept or thrown away.
 */
export async function startRun(jobId: string, stepId: string, person: string, again = false): Promise<{ id: string }> {
  const job = await jobNamed(jobId);
  runnableStepOf(sheetOf(job).kind, stepId);
  await refuseStranger(person);
  await refuseShut(job, stepId);
  const runs = await listRuns(jobId);
  const open = runs.find((run) => run.state === 'recording' || run.state === 'complete');
  if (open && open.step === stepId && open.state === 'recording') return { id: open.id };
  const former = again && open?.step === stepId && open.state === 'complete' ? open : null;
  if (open && !former) throw stillOpen(job, open.step);
  const startedAt = new Date().toISOString();
  const context = { site: await siteNow(), source: 'stand-in rig' } as const;
  const id = await insertRun({ jobId, step: stepId, state: 'recording', startedAt, person, context });
  // Only once the new one is there: a former run that nothing replaces must not be out of sight.
  if (former) await setRunState(former.id, 'aside');
  if (job.place === 'waiting' || job.place === 'waiting-parts') await moveJob(jobId, 'on-bench');
  const run = await runNamed(id);
  const rig = await rigFor(job, run, runs.filter((each) => each.step === stepId).length);
  const start = { guide: guideStart, lever: 0, byItself: false, rig: rig.snapshot() };
  record(run, job, rig, { trace: concatTraces([]), nextSequence: 0 }, start);
  return { id };
}

/** A log that broke off on its way here is no run of the rig: half a log is neither gone on with nor judged. */
function refuseBrokenImport(run: Run): void {
  if (run.context.source === 'log file')
    throw new RequestRefused(409, 'This log broke off on its way here. Run the step again, or bring the log again.');
}

/** What an interrupted run had recorded, read where no other recorder waits for it, and the number of its next chunk. */
async function recordedSoFar(id: string): Promise<RecordedSoFar> {
  const read = readFrame(await heavy('recorded', { runId: id }));
  if (read.kind !== 'frame') throw new Error(`run ${id} came back from its thread as no frame`);
  return { trace: read.frame.samples, nextSequence: (await countChunks(id)).next };
}

/** Goes on with a run that a crash interrupted, from its last written second. */
export async function resumeRun(id: string): Promise<{ id: string }> {
  const run = await runNamed(id);
  if (run.state !== 'recording') throw new RequestRefused(409, 'This run has ended.');
  refuseBrokenImport(run);
  if (recorders.has(id)) return { id };
  const job = await jobNamed(run.jobId);
  await refuseShut(job, run.step, id);
  const from = await recordedSoFar(id);
  const before = (await listRuns(run.jobId)).filter((each) => each.step === run.step && each.startedAt < run.startedAt);
  const rig = await rigFor(job, run, before.length);
  const saved = run.progress as RunProgress | null;
  if (saved?.rig) rig.restore(saved.rig);
  // Another screen may have been quicker.
  if (recorders.has(id)) return { id };
  record(run, job, rig, from, { ...(saved ?? { guide: guideStart, lever: 0, rig: null }), byItself: false });
  return { id };
}

export type RunCommand =
  | { readonly kind: 'lever'; readonly level: number }
  | { readonly kind: 'by-itself'; readonly on: boolean }
  | { readonly kind: 'speed'; readonly speed: number };

/** Moves the lever, lets the rig pull, or sets the stand-in's speed. */
export async function commandRun(id: string, command: RunCommand): Promise<void> {
  await runNamed(id);
  const recorder = liveRecorder(id);
  switch (command.kind) {
    case 'lever':
      return recorder.pull(command.level);
    case 'by-itself':
      return recorder.pullByItself(command.on);
    case 'speed':
      return recorder.setSpeed(command.speed);
  }
}

/** Ends a run early: what was recorded stays and can be judged. */
export async function stopRun(id: string): Promise<void> {
  const run = await runNamed(id);
  if (run.state !== 'recording') return;
  refuseBrokenImport(run);
  await endRecording(id);
  await setRunState(id, 'complete', new Date().toISOString());
}

async function endRecording(id: string): Promise<void> {
  await recorders.get(id)?.stop();
  recorders.delete(id);
}

/** Keeps a complete run: it counts from now on. */
export async function keepRun(id: string, person: string): Promise<void> {
  const run = await runNamed(id);
  if (run.state === 'recording') throw new RequestRefused(409, 'This run is still recording.');
  if (run.state === 'discarded') throw new RequestRefused(409, 'This run was discarded.');
  if (run.state === 'kept') return;
  await refuseStranger(person);
  await refuseShut(await jobNamed(run.jobId), run.step, id);
  await setRunState(id, 'kept');
  await recordAct({ jobId: run.jobId, subject: id, act: 'kept', person, detail: null });
  for (const former of await asideOf(run)) await throwAway(former, person);
  await reviewRelease(run.jobId, { person });
}

/** Finished runs of the same step that were set aside while it was run again. */
async function asideOf({ jobId, step }: Run): Promise<Run[]> {
  return (await listRuns(jobId)).filter((each) => each.state === 'aside' && each.step === step);
}

/** Throws a run away on record, so that it can be brought back for a day. */
async function throwAway(run: Run, person: string): Promise<void> {
  await setRunState(run.id, 'discarded');
  // Half a log, or a run of which nothing was written, is nothing to bring back.
  const whole = run.context.source !== 'log file' && (await countChunks(run.id)).count > 0;
  await recordAct({
    jobId: run.jobId,
    subject: run.id,
    act: 'discarded',
    person,
    detail: null,
    ...(whole ? { before: run.state } : {}),
  });
}

/** Throws a run away; the step can be run again. A kept run is struck out with a reason instead. */
export async function discardRun(id: string, person: string): Promise<void> {
  const run = await runNamed(id);
  if (run.state === 'kept')
    throw new RequestRefused(409, 'A kept run is not thrown away; strike it out with a reason.');
  await refuseStranger(person);
  await recorders.get(id)?.abandon();
  recorders.delete(id);
  if (run.state === 'discarded') return;
  await throwAway(run, person);
  // The one before it comes back, and waits to be kept as it did.
  const former = (await asideOf(run)).at(-1);
  if (former) await setRunState(former.id, 'complete');
}

/** Leaves a kept run out of the judged value, with the reason on record. */
export async function strikeOut(id: string, reason: string, person: string): Promise<void> {
  const run = await runNamed(id);
  if (run.state !== 'kept') throw new RequestRefused(409, 'Only a kept run can be struck out.');
  if (run.struckOut !== null) throw new RequestRefused(409, 'This run has been struck out already.');
  await refuseStranger(person);
  await strikeOutRun(id, reason);
  await recordAct({ jobId: run.jobId, subject: id, act: 'struck-out', person, detail: reason });
  const { kind } = sheetOf(await jobNamed(run.jobId));
  const title = kind.steps.find((step) => step.id === run.step)?.title ?? run.step;
  await reviewRelease(run.jobId, { person, struckOut: { title, reason } });
}

/** Records findings of a look step as a kept run. */
export async function recordLook(
  jobId: string,
  stepId: string,
  findings: Readonly<Record<string, string>>,
  person: string,
): Promise<{ id: string }> {
  const job = await jobNamed(jobId);
  const step = sheetOf(job).kind.steps.find((each) => each.id === stepId);
  if (step?.kind !== 'look') throw new RequestRefused(404, `This unit has no look step "${stepId}".`);
  const missing = step.feeds.look.points.filter(
    (point) => !step.feeds.look.options.some((option) => option.id === findings[point.id]),
  );
  if (missing.length > 0)
    throw new RequestRefused(
      422,
      `Say how these look: ${missing.map((point) => point.title.toLowerCase()).join(', ')}.`,
      Object.fromEntries(missing.map((point) => [point.id, 'not said yet'])),
    );
  const known = new Set(step.feeds.look.points.flatMap(({ id, writes }) => (writes ? [id, writtenKey(id)] : [id])));
  const unknown = Object.keys(findings).find((key) => !known.has(key));
  if (unknown !== undefined)
    throw new RequestRefused(422, `Nothing is looked at here that is called "${unknown}".`, { [unknown]: 'not known' });
  await refuseStranger(person);
  await refuseShut(job, stepId);
  const context = { site: await siteNow(), source: 'looked at' } as const;
  const startedAt = new Date().toISOString();
  const id = await insertRun({ jobId, step: stepId, state: 'kept', startedAt, person, context, findings });
  await recordAct({ jobId, subject: id, act: 'kept', person, detail: null });
  await reviewRelease(jobId, { person });
  return { id };
}
