import { planOf } from '@/core/contract/kind';
import { guideStart } from '@/core/procedure/guide';
import { liveFeed } from '@/core/procedure/step-definition';
import { rigForStep } from '@/core/rig/run-step';
import { concatTraces } from '@/core/traces/trace';
import { listRepairs } from '@/data/repairs';
import { appendChunk, endRun, findRun, listRuns, readTrace, type Run } from '@/data/runs';
import { contextOf, jobNamed, runnableStepOf, sheetOf } from '../context/job-context';
import { standInNow } from '../context/stand-in-now';
import { standInInstrument } from './live-instrument';
import { RunRecorder, type RunFrame, type RunningHold, type RunProgress, type RunStatus } from './run-recorder';

/** What can be told to a run that is being recorded. */
export type RunCommand =
  | { readonly kind: 'lever'; readonly level: number }
  | { readonly kind: 'by-itself'; readonly on: boolean }
  | { readonly kind: 'speed'; readonly speed: number };

/** A run that is being recorded, for those who do not follow it sample by sample. */
export interface RecordingNow {
  readonly runId: string;
  /** The hold that is running, and when it was looked at, ms since 1970; null while hands are needed. */
  readonly hold: RunningHold | null;
  readonly at: number;
}

/**
 * All recorders of a process. It lives on a thread of its own, with a connection of its own, so that no page, paper or preview makes a
 * recorder late; in unit tests it lives where they do.
 */
export class RecorderHost {
  private readonly recorders = new Map<string, RunRecorder>();
  private readonly starting = new Map<string, Promise<void>>();

  /** `ended` is called once a run is not recorded here any more; `append` is how chunks are written. */
  constructor(
    private readonly ended: (runId: string) => void,
    private readonly append: typeof appendChunk = appendChunk,
  ) {}

  /** Begins to record a run, or goes on with it from its last written second. Once, however often it is asked for. */
  async start(runId: string): Promise<void> {
    if (this.recorders.has(runId)) return;
    const starting = this.starting.get(runId) ?? this.begin(runId).finally(() => this.starting.delete(runId));
    this.starting.set(runId, starting);
    await starting;
  }

  private async begin(runId: string): Promise<void> {
    const run = await findRun(runId);
    if (!run || run.state !== 'recording') throw new Error(`run ${runId} is not to be recorded`);
    const job = await jobNamed(run.jobId);
    const { kind, unit } = sheetOf(job);
    const step = runnableStepOf(kind, run.step);
    const context = contextOf(job, run.context.site, run.startedAt);
    const rig = await this.rigFor(run);
    const saved = run.progress as RunProgress | null;
    if (saved?.rig) rig.restore(saved.rig);
    const { trace, nextSequence } = saved ? await readTrace(runId) : { trace: concatTraces([]), nextSequence: 0 };
    const recorder = new RunRecorder({
      instrument: standInInstrument(rig),
      phases: liveFeed(step).guide(context),
      store: {
        append: (sequence, chunk, progress) => this.append(runId, sequence, chunk, progress),
        finish: () => this.close(runId),
      },
      start: saved
        ? { ...saved, byItself: false }
        : { guide: guideStart, lever: 0, byItself: false, rig: rig.snapshot() },
      recorded: trace,
      nextSequence,
      leverMaximum: planOf(kind, job.plan).lever?.maximum(unit) ?? 0,
    });
    this.recorders.set(runId, recorder);
    recorder.start();
  }

  private async rigFor(run: Run) {
    const job = await jobNamed(run.jobId);
    const [runs, repairs] = await Promise.all([listRuns(run.jobId), listRepairs(run.jobId)]);
    const repeat = runs.filter((each) => each.step === run.step && each.sequence < run.sequence).length;
    const { faults, seed, pairError } = await standInNow(job, repairs);
    const { kind } = sheetOf(job);
    const context = contextOf(job, run.context.site, run.startedAt);
    const seeds = { benchSeed: seed, runSeed: seed + 7919 * repeat };
    return rigForStep(kind, runnableStepOf(kind, run.step), context, { faults, ...seeds, pairError });
  }

  private async close(runId: string): Promise<void> {
    await endRun(runId, new Date().toISOString());
    this.recorders.delete(runId);
    this.ended(runId);
  }

  /** Whether a command was taken: false where the run is not recorded here. */
  command(runId: string, command: RunCommand): boolean {
    const recorder = this.recorders.get(runId);
    if (!recorder) return false;
    switch (command.kind) {
      case 'lever':
        recorder.pull(command.level);
        return true;
      case 'by-itself':
        recorder.pullByItself(command.on);
        return true;
      case 'speed':
        recorder.setSpeed(command.speed);
        return true;
    }
  }

  /** Ends a run early: what was recorded is written, and the run waits to be kept. */
  async stop(runId: string): Promise<void> {
    const recorder = this.recorders.get(runId);
    if (recorder) await recorder.stop();
    await this.close(runId);
  }

  /** Stops recording a run that was thrown away; nothing more is written. */
  async abandon(runId: string): Promise<void> {
    const recorder = this.recorders.get(runId);
    this.recorders.delete(runId);
    await recorder?.abandon();
    if (recorder) this.ended(runId);
  }

  /** Hands on what is recorded until the returned function is called; null where the run is not recorded here. */
  listen(runId: string, listener: (frame: RunFrame) => void): (() => void) | null {
    return this.recorders.get(runId)?.listen(listener) ?? null;
  }

  statusOf(runId: string): RunStatus | null {
    return this.recorders.get(runId)?.status() ?? null;
  }

  now(): readonly RecordingNow[] {
    return [...this.recorders].map(([runId, recorder]) => ({ runId, hold: recorder.hold(), at: Date.now() }));
  }
}
