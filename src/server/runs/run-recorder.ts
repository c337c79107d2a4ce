import type { DutyLimit, GuidePhase } from '@/core/procedure/guide-phase';
import { type BenchControls, restControls } from '@/core/physics/bench-controls';
import { advanceGuide, controlsIn, guideDone, unseen, leverByItself, type GuideState } from '@/core/procedure/guide';
import { afterCut } from '@/core/rig/run-by-itself';
import type { RigSnapshot } from '@/core/rig/stand-in-rig';
import { concatTraces, meanOf, type Trace } from '@/core/traces/trace';
import { brokenText } from '../http/answer';
import type { LiveInstrument } from './live-instrument';

/** Where the recorder keeps what it records. */
export interface RunStore {
  append(sequence: number, chunk: Trace, progress: RunProgress): Promise<void>;
  finish(): Promise<void>;
}

/** What is needed to go on after a crash. */
export interface RunProgress {
  readonly guide: GuideState;
  readonly lever: number;
  readonly byItself: boolean;
  readonly rig: RigSnapshot | null;
}

/** What a screen needs to know besides the samples. */
export interface RunStatus {
  readonly phase: number;
  readonly phases: number;
  /** s in this phase. */
  readonly elapsed: number;
  readonly done: boolean;
  readonly lever: number;
  readonly byItself: boolean;
  readonly speed: number;
  readonly controls: BenchControls;
  /** How long what must not go on for long has gone on, s, and its limit; null while nothing is counted. */
  readonly duty: { readonly of: DutyLimit['of']; readonly seconds: number; readonly limit: number } | null;
  /** The duty limit that ended the step; null while none has. */
  readonly cut: DutyLimit | null;
  /** Set while the samples cannot be written and are kept in memory. */
  readonly storageProblem: string | null;
}

/** A hold that counts down while it is recorded. */
export interface RunningHold {
  /** s in the device's time. */
  readonly seconds: number;
  /** s by the wall clock. */
  readonly left: number;
}

export interface RunFrame {
  /** All samples so far, or those since the last frame. */
  readonly kind: 'whole' | 'more';
  readonly samples: Trace;
  readonly status: RunStatus;
}

export interface RecorderOptions {
  readonly instrument: LiveInstrument;
  readonly phases: readonly GuidePhase[];
  readonly store: RunStore;
  readonly start: RunProgress;
  /** What an interrupted run had already recorded. */
  readonly recorded: Trace;
  readonly nextSequence: number;
  readonly leverMaximum: number;
}

/** The guide looks at the readings this often in the device's time, s. */
const guideInterval = 0.05;
/** Samples are written at least this often, ms. */
const writeEvery = 800;
const tickEvery = 33;
/** A stalled process catches up by no more than this, s; what it missed beyond that still counts against a duty limit. */
const longestTick = 0.5;
/** A screen that does not listen for this long is not waited for. */
const fastestSpeed = 400;

/**
 * Records one run on the server: reads the instrument by the wall clock, moves the guide on, writes chunks, and
 * hands frames to any number of screens. Screens come and go without the recorder noticing.
 */
export class RunRecorder {
  private guide: GuideState;
  private lever: number;
  private byItself: boolean;
  private speed = 1;
  private recorded: Trace[];
  private pending: Trace[] = [];
  private sequence: number;
  private storageProblem: string | null = null;
  private storageError: Error | null = null;
  private writing: Promise<void> | null = null;
  private readonly listeners = new Set<(frame: RunFrame) => void>();
  private timer: ReturnType<typeof setInterval> | null = null;
  private lastTick = 0;
  private lastWrite = 0;
  private finished = false;

  constructor(private readonly options: RecorderOptions) {
    this.guide = options.start.guide;
    this.lever = options.start.lever;
    this.byItself = options.start.byItself;
    this.recorded = options.recorded.time.length > 0 ? [options.recorded] : [];
    this.sequence = options.nextSequence;
  }

  /** Begins to record; `now` in ms is only used as a difference. */
  start(): void {
    if (this.timer) return;
    this.lastTick = performance.now();
    this.lastWrite = this.lastTick;
    this.timer = setInterval(() => this.tick(), tickEvery);
  }

  status(): RunStatus {
    return {
      phase: this.guide.phase,
      phases: this.options.phases.length,
      elapsed: this.guide.elapsed,
      done: guideDone(this.options.phases, this.guide),
      lever: this.lever,
      byItself: this.byItself,
      speed: this.speed,
      controls: controlsIn(this.options.phases, this.guide, this.lever),
      duty: this.duty(),
      cut: this.guide.cut,
      storageProblem: this.storageProblem,
    };
  }

  private duty(): RunStatus['duty'] {
    const limit = this.options.phases[this.guide.phase]?.duty;
    return limit ? { of: limit.of, seconds: this.guide.duty, limit: limit.seconds } : null;
  }

  /** The hold that is running: its full time and what is left of it by the wall clock, s; null outside of one. */
  hold(): RunningHold | null {
    const phase = this.options.phases[this.guide.phase];
    if (!phase || phase.end.kind !== 'seconds' || !phase.hold) return null;
    const { seconds } = phase.end;
    return { seconds, left: Math.max(0, seconds - this.guide.elapsed) / this.speed };
  }

  /** All samples so far, then every new one, until the returned function is called. */
  listen(listener: (frame: RunFrame) => void): () => void {
    this.recorded = [concatTraces(this.recorded)];
    listener({ kind: 'whole', samples: this.recorded[0], status: this.status() });
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** Takes the lever into the hand and moves it, Pa. */
  pull(lever: number): void {
    this.byItself = false;
    this.lever = Math.min(this.options.leverMaximum, Math.max(0, lever));
  }

  /** Lets the rig pull by itself from where the lever is, or hands the lever back. */
  pullByItself(on: boolean): void {
    if (on && !this.byItself) this.guide = { ...this.guide, elapsed: 0, held: 0, leverFrom: this.lever };
    this.byItself = on;
  }

  setSpeed(speed: number): void {
    this.speed = Math.min(fastestSpeed, Math.max(1, speed));
  }

  /**
   * Stops recording and writes what is left. Returns the whole trace. Where it cannot be written the recorder goes on as before: nothing
   * is lost, and stopping can be tried again.
   */
  async stop(): Promise<Trace> {
    const wasRunning = this.timer !== null;
    this.rest();
    await this.writing;
    await this.write();
    if (this.pending.length === 0) return concatTraces(this.recorded);
    if (wasRunning) this.start();
    throw this.storageError ?? new Error('the trace could not be written');
  }

  /** Stops recording without writing anything: the run is thrown away. */
  async abandon(): Promise<void> {
    this.rest();
    this.finished = true;
    await this.writing;
    this.pending = [];
  }

  private rest(): void {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
  }

  private tick(): void {
    const now = performance.now();
    const passed = (now - this.lastTick) / 1000;
    this.lastTick = now;
    if (passed > longestTick) this.guide = unseen(this.options.phases, this.guide, (passed - longestTick) * this.speed);
    const fresh = this.guide.cut ? this.switchOff() : this.advance(Math.min(longestTick, passed) * this.speed);
    if (fresh.time.length > 0 || this.storageProblem)
      this.send({ kind: 'more', samples: fresh, status: this.status() });
    if (now - this.lastWrite >= writeEvery && !this.writing) {
      this.lastWrite = now;
      this.writing = this.write().finally(() => (this.writing = null));
    }
    if (guideDone(this.options.phases, this.guide) && !this.finished) this.finish();
  }

  /** Reads the instrument in steps that the guide can follow. */
  private advance(elapsed: number): Trace {
    const { instrument, phases } = this.options;
    const parts: Trace[] = [];
    for (let left = elapsed; left > 1e-9 && !guideDone(phases, this.guide); left -= guideInterval) {
      const dt = Math.min(left, guideInterval);
      const later = { ...this.guide, elapsed: this.guide.elapsed + dt };
      const leverTo = this.byItself ? leverByItself(phases, later) : this.lever;
      const part = instrument.read(dt, controlsIn(phases, this.guide, this.lever), leverTo);
      this.lever = leverTo;
      if (part.time.length === 0) {
        this.guide = later;
        continue;
      }
      parts.push(part);
      const driven = instrument.leverChannel === null ? undefined : part.columns[instrument.leverChannel];
      const input = driven ? meanOf(driven).mean : leverTo;
      const readings = Object.fromEntries(
        Object.entries(part.columns).map(([channel, column]) => [channel, column[column.length - 1]]),
      );
      this.guide = advanceGuide(phases, this.guide, { dt, input, lever: leverTo, readings });
      if (this.guide.cut) parts.push(this.readAtRest());
    }
    return this.keep(concatTraces(parts));
  }

  /** Off at once, whatever the hand does; the trace shows it. */
  private readAtRest(): Trace {
    this.lever = 0;
    return this.options.instrument.read(afterCut, restControls, 0);
  }

  private switchOff(): Trace {
    return this.keep(this.readAtRest());
  }

  private keep(fresh: Trace): Trace {
    if (fresh.time.length > 0) {
      this.recorded.push(fresh);
      this.pending.push(fresh);
    }
    return fresh;
  }

  private finish(): void {
    this.finished = true;
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
    const close = async () => {
      await this.writing;
      await this.write();
      if (this.pending.length > 0) throw this.storageError ?? new Error('the trace could not be written');
      await this.options.store.finish();
      this.send({ kind: 'more', samples: concatTraces([]), status: this.status() });
    };
    const attempt = () =>
      close().catch((error: unknown) => {
        this.storageProblem = brokenText(error);
        this.send({ kind: 'more', samples: concatTraces([]), status: this.status() });
        setTimeout(() => void attempt(), 1000);
      });
    void attempt();
  }

  /** Writes what is pending; on failure it stays pending and is tried again with the next chunk. */
  private async write(): Promise<void> {
    if (this.pending.length === 0) return;
    // What comes in while this is being written belongs to the next chunk.
    const count = this.pending.length;
    const chunk = concatTraces(this.pending);
    const progress: RunProgress = {
      guide: this.guide,
      lever: this.lever,
      byItself: this.byItself,
      rig: this.options.instrument.snapshot(),
    };
    try {
      await this.options.store.append(this.sequence, chunk, progress);
      this.sequence++;
      this.pending = this.pending.slice(count);
      this.storageProblem = null;
      this.storageError = null;
    } catch (error) {
      this.storageProblem = brokenText(error);
      this.storageError = error instanceof Error ? error : new Error(String(error));
    }
  }

  private send(frame: RunFrame): void {
    for (const listener of this.listeners) listener(frame);
  }
}
