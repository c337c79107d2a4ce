import fc from 'fast-check';
import { blockMeans } from './block-means';
import { makeTrace } from './trace';

const isMeasured = (channel: string) => channel !== 'stop_switch';
const log = (rate: number, seconds: number, of: (t: number) => number) => {
  const time = Float64Array.from({ length: Math.round(rate * seconds) }, (_, i) => i / rate);
  return makeTrace(time, { output_pressure: time.map(of), stop_switch: time.map((t) => (t > seconds / 2 ? 1 : 0)) });
};

describe('means of neighbouring rows', () => {
  it('a log that is no faster is the very same', () => {
    for (const rate of [10, 200, 700]) {
      const trace = log(rate, 2, (t) => t);
      expect(blockMeans(trace, 400, isMeasured)).toBe(trace);
    }
  });

  it('of what runs straight it is what it was, whatever the rate', () => {
    fc.assert(
      fc.property(fc.integer({ min: 900, max: 20_000 }), fc.double({ min: -9, max: 9, noNaN: true }), (rate, slope) => {
        const { time, columns } = blockMeans(
          log(rate, 1, (t) => 3 + slope * t),
          400,
          isMeasured,
        );
        expect(time.length).toBeLessThanOrEqual(0.5 * rate + 1);
        for (let i = 0; i < time.length; i++) expect(columns.output_pressure[i]).toBeCloseTo(3 + slope * time[i], 6);
      }),
    );
  });

  it('keeps sums: as much area under it as before', () => {
    const trace = log(4000, 3, (t) => Math.sin(t) + 0.1 * Math.sin(900 * t));
    const sum = (column: Float64Array) => column.reduce((all, each) => all + each, 0);
    const means = blockMeans(trace, 400, isMeasured);
    expect(sum(means.columns.output_pressure) * 10).toBeCloseTo(sum(trace.columns.output_pressure), 6);
  });

  it('a switch is a switch, and what is missing stays missing', () => {
    const trace = log(4000, 2, (t) => (t > 0.5 && t < 0.9 ? Number.NaN : 5));
    const { time, columns } = blockMeans(trace, 400, isMeasured);
    for (const state of columns.stop_switch) expect([0, 1]).toContain(state);
    const atAnEdge = (t: number) => Math.min(Math.abs(t - 0.5), Math.abs(t - 0.9)) < 0.003;
    time.forEach((t, i) => {
      if (!atAnEdge(t)) expect(Number.isNaN(columns.output_pressure[i])).toBe(t > 0.5 && t < 0.9);
    });
  });

  it('no block reaches over a gap of the clock', () => {
    const time = Float64Array.from({ length: 4000 }, (_, i) => i / 4000 + (i >= 2005 ? 10 : 0));
    const { time: blocks } = blockMeans(makeTrace(time, { output_pressure: time }), 400, isMeasured);
    for (const t of blocks) expect(t > 0.51 && t < 10.49).toBe(false);
  });
});
