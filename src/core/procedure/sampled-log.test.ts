import fc from 'fast-check';
import { dice, goodGauge, writeLog } from '../../../tests/support/second-writer/logger';
import { writtenAs, type Rows } from '../../../tests/support/second-writer/other-rows';
import { makeTrace, type Trace } from '../traces/trace';
import { sampledLog } from './sampled-log';

const seconds = 30;

/** Two pressures and a switch, noisy, by a tool that writes a row a sample. */
function someLog(seed: number, rate = 10, every = 1): Trace {
  const luck = dice(seed);
  const gauging = { ...goodGauge, white: 2e3, division: 10, every };
  const level = (t: number) => 2e6 * (1 - Math.exp(-t / 8));
  return writeLog(
    {
      input_pressure: { at: level, gauging },
      output_pressure: { at: (t) => 3 * level(t), gauging },
      pump_on: { at: (t) => (t % 9 > 4 ? 1 : 0), gauging: goodGauge },
    },
    { seconds, rate, jitter: 0.1 },
    luck,
  );
}

const numbersIn = (column: Float64Array) => column.filter((value) => !Number.isNaN(value));

const between = fc.constantFrom<Rows>('over-and-over', 'in-turn', 'straight-between');

describe('a log as its sensors gave it', () => {
  it('is the very log where it was written so', () => {
    const log = someLog(1);
    expect(sampledLog(log)).toEqual({ trace: log, said: [] });
    expect(sampledLog(log).trace).toBe(log);
  });

  it('has each sample once, whatever rows a tool writes, and says what it took the rows for', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 999 }), between, (seed, rows) => {
        const log = someLog(seed);
        const { trace, said } = sampledLog(writtenAs(rows, log));
        expect(said.length).toBeGreaterThan(0);
        for (const channel of ['input_pressure', 'output_pressure']) {
          const found = numbersIn(trace.columns[channel]);
          // A sample or two at the ends may be of a line that goes nowhere; where the switch changes there may be one more.
          expect(Math.abs(found.length - log.time.length)).toBeLessThanOrEqual(0.05 * log.time.length);
          const given = new Set(log.columns[channel]);
          const kept = found.filter((value) => given.has(value)).length;
          if (rows !== 'in-turn') expect(kept / found.length).toBeGreaterThan(0.9);
        }
      }),
      { numRuns: 30 },
    );
  });

  it('has what belongs to a moment in one row, each sample carried by less than the rows are apart', () => {
    // Each channel has its own turn in three rows, and is sampled there.
    const log = someLog(7, 60, 3);
    const { trace, said } = sampledLog(log);
    expect(said).toEqual([{ code: 'written-in-turn', carried: expect.any(Number) as number }]);
    const [{ carried }] = said as unknown as readonly { carried: number }[];
    expect(carried).toBeLessThan(1 / 20);
    const ratio = trace.columns.output_pressure.map((value, i) => value - 3 * trace.columns.input_pressure[i]);
    const off = numbersIn(ratio);
    expect(off.length).toBeGreaterThan(0.3 * log.time.length);
    // Noise of both, and none of what they rise by in the time between the rows.
    const mean = off.reduce((sum, value) => sum + value, 0) / off.length;
    expect(Math.abs(mean)).toBeLessThan((4 * 2e3 * Math.sqrt(10)) / Math.sqrt(off.length));
  });

  it('holds a switch until it is written again, and no longer than is bridged', () => {
    const time = Float64Array.from({ length: 400 }, (_, i) => i / 100);
    const every = (step: number, of: (t: number) => number, until = Infinity) =>
      time.map((t, i) => (i % step === 0 && t <= until ? of(t) : Number.NaN));
    const log = makeTrace(time, {
      accumulator_pressure: time.map((t) => 1e6 + 1e3 * Math.sin(37 * t * t)),
      pump_on: every(20, (t) => (t >= 1 ? 1 : 0), 2),
    });
    const { pump_on: on } = sampledLog(log).trace.columns;
    expect(on[99]).toBe(0);
    expect(on[119]).toBe(1);
    expect(on[299]).toBe(1);
    expect(on[399]).toBeNaN();
  });

  it('does not take corners that a clock drives, or a channel that is coarse, for samples', () => {
    const time = Float64Array.from({ length: 6000 }, (_, i) => i / 100);
    const strokes = (t: number) => 200 * Math.max(0, Math.min(1, (t % 8) - 1, 5 - (t % 8)));
    const log = makeTrace(time, {
      pedal_force: time.map(strokes),
      supply_vacuum: time.map((t) => 100 * Math.round((58e3 - 13 * t) / 100)),
      output_pressure: time.map((t) => 1e4 * Math.round((5e3 * strokes(t)) / 1e4)),
    });
    expect(sampledLog(log).trace).toBe(log);
  });

  it('does not take a saw that goes up and down alike for samples with lines between', () => {
    const time = Float64Array.from({ length: 3000 }, (_, i) => i / 100);
    const saw = (t: number) => 5e6 + 1e5 * Math.abs(((t / 0.4) % 2) - 1);
    const log = makeTrace(time, { pump_pressure: time.map(saw), output_pressure: time.map((t) => 2 * saw(t)) });
    expect(sampledLog(log).trace).toBe(log);
  });

  it('has no samples where a tool drew a line over a gap', () => {
    const luck = dice(5);
    const gauging = { ...goodGauge, white: 2e3, division: 10 };
    const log = writeLog(
      { input_pressure: { at: (t) => 1e5 * t, gauging } },
      { seconds, rate: 10, lost: [12, 16] },
      luck,
    );
    const { trace } = sampledLog(writtenAs('straight-between', log));
    const times = trace.time.filter((_, i) => !Number.isNaN(trace.columns.input_pressure[i]));
    expect(times.filter((t) => t > 12.2 && t < 15.8)).toHaveLength(0);
  });
});
