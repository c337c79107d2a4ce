import type { DutyLimit, GuidePhase } from '@/core/procedure/guide-phase';
import { type BenchControls, restControls } from '@/core/physics/bench-controls';
import { advanceGuide, controlsIn, guideDone, unseen, leverByItself, type GuideState } from '@/core/procedure/guide';
import { afterCut } from '@/core/rig/run-by-itself';
import type { RigSnapshot } from '@/core/rig/stand-in-rig';
import { thinned } from '@/core/traces/decimate';
import { concatTraces, meanOf, type Trace } from '@/core/traces/trace';
import { brokenText } from '../http/broken-text';
import type { LiveInstrument } from './live-instrument';
import { ShownSoFar } from './shown-so-far';

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
  /** Time that nobody sampled, because the process stood still; nothing of it where an edition kept no count. */
  readonly lost?: LostTime;
}

/** Gaps of a trace: how many, and how long they are together, s of the device’s time. */
export interface LostTime {
  readonly gaps: number;
  readonly seconds: number;
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
  /** Whether the rig stands still until what it has recorded is written. */
  readonly standsStill: boolean;
  /** How much faster than real time it has run of late: the stand-in may be slower than it is asked to be. */
  readonly pace: number;
  readonly lost: LostTime;
  /** How late the recorder has been at its worst, ms. */
  readonly latest: number;
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

const nothing = concatTraces([]);
const slowDisk = 'The disk does not keep up: the rig stands still until what it has recorded is written.';

/** The guide looks at the readings this often in the device's time, s. */
const guideInterval = 0.05;
/** Samples are written at least this often, ms. */
const writeEvery = 800;
const tickEvery = 33;
/** A stalled process catches up by no more than this, s; what it missed beyond that is a gap, and still counts against a duty limit. */
const longestTick = 0.5;
/** Where nothing is counted against a limit it catches up by more: a busy machine is no reason for a gap, s. */
const longestCatchUp = 2;
/** The stand-in gets no more of a tick than this, ms: where it cannot keep its pace it runs slower, and the recorder is not late. */
const rigsShare = 26;
/** Its share is looked at after so many steps of the guide. */
const stepsAtOnce = 16;
/** What is not written for so long stops the rig, ms: nothing may pile up in memory without a word. */
const longestUnwritten = 2_000;
/** So many samples are handed to a new screen, about: as they are while they are no more, then thinned where they are oldest. */
const mostWhole = 120_000;
/** A rig that runs faster than this has what goes to screens thinned: they draw no more of it in its time. */
const fast = 60;
const mostInFrame = 400;
const frameThinnedTo = 20;
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
  private readonly shown = new ShownSoFar(mostWhole);
  private pending: Trace[] = [];
  private sequence: number;
  private storageProblem: string | null = null;
  private storageError: Error | null = null;
  private writing: Promise<void> | null = null;
  private readonly listeners = new Set<(frame: RunFrame) => void>();
  private timer: ReturnType<typeof setInterval> | null = null;
  private lastTick = 0;
  private lastWrite = 0;
  /** Since when something has waited to be written; null where nothing does. */
  private unwrittenSince: number | null = null;
  private standsStill = false;
  private pace = 1;
  private lost: LostTime;
  private latest = 0;
  private finished = false;

  constructor(private readonly options: RecorderOptions) {
    this.guide = options.start.guide;
    this.lever = options.start.lever;
    this.byItself = options.start.byItself;
    this.shown.add(options.recorded);
    this.sequence = options.nextSequence;
    this.lost = options.start.lost ?? { gaps: 0, seconds: 0 };
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
      storageProblem: this.storageProblem ?? (this.standsStill ? slowDisk : null),
      standsStill: this.standsStill,
      pace: this.pace,
      lost: this.lost,
      latest: Math.round(this.latest),
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
    listener({ kind: 'whole', samples: this.shown.whole(), status: this.status() });
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
   * Stops recording and writes what is left. Returns what screens were shown of it. Where it cannot be written the recorder goes on as before: nothing
   * is lost, and stopping can be tried again.
   */
  async stop(): Promise<Trace> {
    const wasRunning = this.timer !== null;
    this.rest();
    await this.writing;
    await this.write();
    if (this.pending.length === 0) return this.shown.whole();
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
    this.latest = Math.max(this.latest, passed * 1000 - tickEvery);
    // While this process stood still the disk was not slow.
    if (this.unwrittenSince !== null && passed > longestTick) this.unwrittenSince += passed * 1000;
    this.standsStill = this.unwrittenSince !== null && now - this.unwrittenSince > longestUnwritten;
    if (this.standsStill) this.send({ kind: 'more', samples: nothing, status: this.status() });
    else this.record(passed, now);
    if (now - this.lastWrite >= writeEvery && !this.writing) {
      this.lastWrite = now;
      this.writing = this.write().finally(() => (this.writing = null));
    }
    if (guideDone(this.options.phases, this.guide) && !this.finished) this.finish();
  }

  private record(passed: number, now: number): void {
    const longest = this.options.phases[this.guide.phase]?.duty ? longestTick : longestCatchUp;
    if (passed > longest) this.miss((passed - longest) * this.speed);
    const until = this.speed > 1 ? now + rigsShare : Infinity;
    const from = this.guide.elapsed;
    const wanted = Math.min(longest, passed) * this.speed;
    const { fresh, advanced } = this.guide.cut
      ? { fresh: this.switchOff(), advanced: from }
      : this.advance(wanted, until);
    if (passed > 0) this.pace += 0.1 * (advanced / Math.min(longest, passed) - this.pace);
    if (fresh.time.length > 0 || this.storageProblem)
      this.send({ kind: 'more', samples: fresh, status: this.status() });
  }

  /** Time that passed while nobody looked: the device went on, and its trace has a gap. */
  private miss(seconds: number): void {
    this.guide = unseen(this.options.phases, this.guide, seconds);
    if (this.guide.cut) return;
    const leverTo = this.lever;
    this.options.instrument.read(seconds, controlsIn(this.options.phases, this.guide, leverTo), leverTo);
    this.lost = { gaps: this.lost.gaps + 1, seconds: this.lost.seconds + seconds };
  }

  /** Reads the instrument in steps that the guide can follow, and for no longer than `until`, ms. */
  private advance(elapsed: number, until: number): { readonly fresh: Trace; readonly advanced: number } {
    const { instrument, phases } = this.options;
    const parts: Trace[] = [];
    let advanced = 0;
    let steps = 0;
    for (let left = elapsed; left > 1e-9 && !guideDone(phases, this.guide); left -= guideInterval) {
      if (++steps % stepsAtOnce === 0 && performance.now() >= until) break;
      const dt = Math.min(left, guideInterval);
      advanced += dt;
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
    return { fresh: this.keep(concatTraces(parts)), advanced };
  }

  /** Off at once, whatever the hand does; the trace shows it. */
  private readAtRest(): Trace {
    this.lever = 0;
    return this.options.instrument.read(afterCut, restControls, 0);
  }

  private switchOff(): Trace {
    return this.keep(this.readAtRest());
  }

  /** Keeps samples to be written; returns what screens get of them. */
  private keep(fresh: Trace): Trace {
    if (fresh.time.length > 0) {
      const shown = this.shownOf(fresh);
      this.shown.add(shown);
      this.pending.push(fresh);
      this.unwrittenSince ??= performance.now();
      return shown;
    }
    return fresh;
  }

  /** What screens get of new samples: all, or of a rig that runs fast the lowest and highest. What is written is always all. */
  private shownOf(fresh: Trace): Trace {
    return this.speed > fast && fresh.time.length > mostInFrame ? thinned(fresh, frameThinnedTo) : fresh;
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
      lost: this.lost,
    };
    const asOf = performance.now();
    try {
      await this.options.store.append(this.sequence, chunk, progress);
      this.sequence++;
      this.pending = this.pending.slice(count);
      this.unwrittenSince = this.pending.length > 0 ? asOf : null;
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
