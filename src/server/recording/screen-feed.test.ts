import { FrameReader } from '@/core/traces/frame';
import { concatTraces, makeTrace, type Trace } from '@/core/traces/trace';
import type { RecorderHost } from './recorder-host';
import type { RunFrame, RunStatus } from './run-recorder';
import { ScreenFeed } from './screen-feed';
import type { WireWord } from './wire-frame';

const status = (speed: number) => ({ speed }) as RunStatus;

const piece = (from: number, count: number): Trace => {
  const time = Float64Array.from({ length: count }, (_, i) => (from + i) / 200);
  return makeTrace(time, { supply_vacuum: time.map((at) => Math.sin(at) * 1e4) });
};

/** A run that is recorded, and a screen that takes what it is told to. */
function screen(speed = 1) {
  let heard: (frame: RunFrame) => void = () => undefined;
  const host = {
    listen: (_: string, listener: (frame: RunFrame) => void) => {
      heard = listener;
      listener({ kind: 'whole', samples: piece(0, 10), status: status(speed) });
      return () => (heard = () => undefined);
    },
    statusOf: () => status(speed),
  } as unknown as RecorderHost;
  const sent: Uint8Array<ArrayBuffer>[] = [];
  let closed = false;
  const feed = new ScreenFeed(host, 'r1', { send: (bytes) => sent.push(bytes), close: () => (closed = true) });
  const frames = () => sent.flatMap((bytes) => new FrameReader().push(bytes) ?? []);
  return {
    feed,
    frames,
    samples: () => concatTraces(frames().map((frame) => frame.samples)),
    words: () => frames().map((frame) => frame.said as WireWord),
    record: (from: number, count: number) =>
      heard({ kind: 'more', samples: piece(from, count), status: status(speed) }),
    bytes: () => sent.reduce((sum, { byteLength }) => sum + byteLength, 0),
    closed: () => closed,
  };
}

describe('a screen’s own stream of a run', () => {
  it('has every sample at the pace of a hand, and ends with the run', () => {
    const { feed, record, samples, words, closed } = screen();
    for (let at = 10; at < 5_010; at += 500) record(at, 500);
    expect(samples()).toEqual(piece(0, 5_010));
    feed.finish('complete');
    expect([words()[0].kind, words().at(-1)?.state, closed()]).toEqual(['whole', 'complete', true]);
  });

  it('one that takes nothing holds up nobody and fills no memory; what it missed comes thinned once it listens again', () => {
    const { feed, record, bytes, samples, words } = screen();
    let at = 10;
    for (; at < 400_010; at += 2_000) record(at, 2_000);
    const stuck = bytes();
    expect(stuck).toBeLessThan(3_000_000);
    const before = words().length;
    feed.took(stuck);
    expect(words().length).toBe(before + 1);
    expect(samples().time.at(-1)).toBeCloseTo((at - 1) / 200, 1);
    expect(bytes()).toBeLessThan(5_000_000);
    feed.close();
  });
});
