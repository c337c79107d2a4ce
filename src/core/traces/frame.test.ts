import fc from 'fast-check';
import { FrameReader, packFrame, readFrame, type Frame } from './frame';
import { concatTraces, makeTrace } from './trace';

const traces = fc.integer({ min: 0, max: 40 }).chain((samples) => {
  const column = fc
    .array(fc.double(), { minLength: samples, maxLength: samples })
    .map((values) => Float64Array.from(values));
  return fc
    .tuple(column, fc.dictionary(fc.string({ maxLength: 12 }), column, { maxKeys: 4 }))
    .map(([time, columns]) => makeTrace(time, { ...columns }));
});
const said = fc.oneof(fc.constant(null), fc.string(), fc.record({ kind: fc.string(), at: fc.integer() }));

describe('a frame of samples', () => {
  it('gives back every sample, missing ones too, and what was said with it', () => {
    fc.assert(
      fc.property(traces, said, (samples, words) => {
        const bytes = packFrame(samples, words);
        const read = readFrame(bytes);
        if (read.kind !== 'frame') throw new Error(read.kind);
        expect(read.length).toBe(bytes.length);
        expect(read.frame.said).toEqual(words);
        expect(read.frame.samples.time).toEqual(samples.time);
        expect(read.frame.samples.columns).toEqual(samples.columns);
      }),
    );
  });

  it('is put together out of pieces of any length', () => {
    fc.assert(
      fc.property(fc.array(traces, { maxLength: 4 }), fc.integer({ min: 1, max: 97 }), (all, size) => {
        const bytes: Uint8Array = Buffer.concat(all.map((samples, at) => packFrame(samples, at)));
        const reader = new FrameReader();
        const frames: Frame[] = [];
        for (let from = 0; from < bytes.length; from += size)
          frames.push(...(reader.push(bytes.subarray(from, from + size)) ?? []));
        expect(frames.map((frame) => frame.said)).toEqual(all.map((_, at) => at));
        expect(concatTraces(frames.map((frame) => frame.samples)).time).toEqual(concatTraces(all).time);
      }),
    );
  });

  it('is told from its beginning and from other bytes', () => {
    const bytes = packFrame(makeTrace(Float64Array.of(1, 2), { output_pressure: Float64Array.of(3, 4) }));
    for (let length = 0; length < bytes.length; length++)
      expect(readFrame(bytes.subarray(0, length)).kind).toBe('short');
    expect(readFrame(new TextEncoder().encode('nonsense'))).toEqual({ kind: 'damaged', why: 'not-a-frame' });
    const head = bytes.slice();
    head[9] = 0xff;
    expect(readFrame(head)).toEqual({ kind: 'damaged', why: 'head' });
    expect(new FrameReader().push(head)).toBeNull();
  });

  it('is made of nothing but itself: what shares its memory before and after it is left alone', () => {
    const bytes = packFrame(makeTrace(Float64Array.of(1), { output_pressure: Float64Array.of(7) }));
    const within = Buffer.alloc(bytes.length + 11);
    within.set(bytes, 3);
    const read = readFrame(within.subarray(3));
    if (read.kind !== 'frame') throw new Error(read.kind);
    within.fill(0);
    expect([...read.frame.samples.columns.output_pressure]).toEqual([7]);
  });
});
