import { thinned } from '@/core/traces/decimate';
import { concatTraces, type Trace } from '@/core/traces/trace';
import type { RecorderHost } from './recorder-host';
import type { RunFrame, RunStatus } from './run-recorder';
import { wire, type WireWord } from './wire-frame';

/** Bytes that may be on their way to a screen: one that takes no more gets less of what follows, not all of it later. */
const mostUnderWay = 2_000_000;
/** What waits for a slow screen is held to so many samples. */
const mostWaiting = 40_000;
/** A screen that takes nothing for so long is let go, ms; it may come again. */
const letGoAfter = 20_000;
/** Time between two signs of life, ms. */
const heartbeat = 800;

const nothing = concatTraces([]);

/** Where a screen's frames go: on a message port, or straight to its stream. */
export interface FeedEnd {
  send(bytes: Uint8Array<ArrayBuffer>): void;
  close(): void;
}

/** One screen's own stream of a run: paced by what it takes, thinned where it is slow, let go where it has stopped listening. */
export class ScreenFeed {
  private underWay = 0;
  private waiting: Trace = nothing;
  private waitingKind: RunFrame['kind'] = 'more';
  private status: RunStatus | null = null;
  private tookLast = Date.now();
  private readonly leave: (() => void) | null;
  private readonly heart: ReturnType<typeof setInterval> | null = null;
  private open = true;

  constructor(
    private readonly host: RecorderHost,
    private readonly runId: string,
    private readonly end: FeedEnd,
  ) {
    this.leave = host.listen(runId, (frame) => this.heard(frame));
    if (this.leave) this.heart = setInterval(() => this.beat(), heartbeat);
  }

  /** Whether the run is recorded here at all. */
  get follows(): boolean {
    return this.leave !== null;
  }

  /** The screen has taken so many bytes. */
  took(bytes: number): void {
    this.underWay = Math.max(0, this.underWay - bytes);
    this.tookLast = Date.now();
    if (this.waiting.time.length > 0) this.flush();
  }

  close(): void {
    if (!this.open) return;
    this.open = false;
    if (this.heart) clearInterval(this.heart);
    this.leave?.();
    this.end.close();
  }

  /** The run is not recorded any more: says in which state it is, and ends. */
  finish(state: string): void {
    if (!this.open) return;
    this.say({ kind: this.waitingKind, state, status: this.status }, this.waiting);
    this.close();
  }

  private heard({ kind, samples, status }: RunFrame): void {
    this.status = status;
    this.waiting = kind === 'whole' ? samples : concatTraces([this.waiting, samples]);
    if (kind === 'whole') this.waitingKind = 'whole';
    if (this.waiting.time.length > mostWaiting && this.waitingKind === 'more')
      this.waiting = thinned(this.waiting, mostWaiting / 20);
    this.flush();
  }

  private flush(): void {
    if (!this.open || this.underWay > mostUnderWay || this.status === null) return;
    const [kind, samples] = [this.waitingKind, this.waiting];
    // Before it is sent: a screen on this thread may take it at once.
    this.waiting = nothing;
    this.waitingKind = 'more';
    this.say({ kind, state: 'recording', status: this.status }, samples);
  }

  private say(word: WireWord, samples: Trace): void {
    const bytes = wire(word, samples);
    this.underWay += bytes.byteLength;
    this.end.send(bytes);
  }

  private beat(): void {
    if (this.underWay > 0 && Date.now() - this.tookLast > letGoAfter) return this.close();
    this.status = this.host.statusOf(this.runId) ?? this.status;
    this.flush();
  }
}
