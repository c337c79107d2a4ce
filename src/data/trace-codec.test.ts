import fc from 'fast-check';
import { deflateRawSync } from 'node:zlib';
import { makeTrace } from '@/core/traces/trace';
import { decodeChunk, encodeChunk } from './trace-codec';

describe('trace chunks', () => {
  it('give back every sample, missing ones too', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.double(), { minLength: 0, maxLength: 60 }), async (values) => {
        const time = Float64Array.from(values, (_, i) => i / 200);
        const chunk = makeTrace(time, { input_pressure: Float64Array.from(values), stop_switch: time.map(() => 1) });
        const back = await decodeChunk(await encodeChunk(chunk));
        expect(back.time).toEqual(chunk.time);
        for (const [i, value] of values.entries())
          expect(Object.is(back.columns.input_pressure[i], value) || back.columns.input_pressure[i] === value).toBe(
            true,
          );
      }),
    );
  });

  it('are read as they were written before frames', async () => {
    const head = Buffer.from(JSON.stringify({ channels: ['output_pressure'], samples: 2 }));
    const body = Buffer.from(Float64Array.of(0.1, 0.2, 5e5, Number.NaN).buffer);
    const { time, columns } = await decodeChunk(deflateRawSync(Buffer.concat([head, Buffer.of(0), body])));
    expect([...time]).toEqual([0.1, 0.2]);
    expect([...columns.output_pressure]).toEqual([5e5, Number.NaN]);
  });

  it('refuses bytes that are no chunk', async () => {
    await expect(decodeChunk(Buffer.from('nonsense'))).rejects.toThrow();
    await expect(decodeChunk(deflateRawSync(Buffer.from('nonsense')))).rejects.toThrow();
  });
});
