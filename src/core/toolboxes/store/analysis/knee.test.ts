import fc from 'fast-check';
import { advanceAccumulator, settledAccumulator, type GasAccumulatorSpec } from '../../../physics/gas-accumulator';
import { findKnee, type KneeTrace } from './knee';
import { restatePrecharge } from '../../../physics/gas-law';
import { dice } from '../../../../../tests/support/second-writer/logger';
import { gasPressures } from '../../../../../tests/support/second-writer/store-gas';
import { shopAir, shopAmbient as ambient } from '../../../../../tests/support/store-bench';

const rate = 100;

interface Drawn {
  readonly precharge: number;
  readonly volume: number;
  readonly flow: number;
  readonly timeConstant: number;
  readonly environment: number;
}

const plain: Drawn = { precharge: 8e6, volume: 250e-6, flow: 8e-6, timeConstant: 30, environment: shopAir };

function specOf({ precharge, volume, timeConstant }: Drawn): GasAccumulatorSpec {
  return { precharge: precharge + ambient, volume, timeConstant, lineCompliance: 0.12e-12 };
}

/** A charge from empty at an even flow up to a gauge pressure. */
function charge(drawn: Drawn, to = 17.5e6): KneeTrace {
  const surroundings = { ambient, environment: drawn.environment };
  const state = settledAccumulator(specOf(drawn), ambient, surroundings);
  const pressure = [state.pressure];
  while (state.pressure - ambient < to && pressure.length < 60_000) {
    advanceAccumulator(specOf(drawn), state, 1 / rate, drawn.flow / rate, surroundings);
    pressure.push(state.pressure);
  }
  return traceOf(drawn, pressure, 'charge');
}

/** A bleed through an opening from settled at a gauge pressure down to nothing: an orifice, or one that goes with another power. */
function bleed(drawn: Drawn, from = 17.5e6, power = 0.5): KneeTrace {
  const surroundings = { ambient, environment: drawn.environment };
  const state = settledAccumulator(specOf(drawn), from + ambient, surroundings);
  const pressure = [state.pressure];
  while (state.pressure - ambient > 2e3 && pressure.length < 60_000) {
    const out = 2.4e-6 * ((state.pressure - ambient) / 10e6) ** power;
    advanceAccumulator(specOf(drawn), state, 1 / rate, -out / rate, surroundings);
    pressure.push(state.pressure);
  }
  return traceOf(drawn, pressure, 'bleed');
}

function traceOf(drawn: Drawn, pressure: readonly number[], direction: KneeTrace['direction']): KneeTrace {
  return {
    time: Float64Array.from(pressure, (_, i) => i / rate),
    pressure: Float64Array.from(pressure),
    direction,
    ambient,
    environment: drawn.environment,
    timeConstant: drawn.timeConstant,
    volume: drawn.volume,
    flow: drawn.flow,
  };
}

/** Precharge at 20 °C, Pa gauge, as the knee gives it. */
function foundIn(trace: KneeTrace): number {
  const knee = findKnee(trace);
  if ('code' in knee) throw new Error(`no knee: ${knee.code}`);
  return restatePrecharge(knee.pressure - ambient, knee.temperature, 293.15, ambient);
}

describe('the knee of a charge', () => {
  it('is the precharge within half a percent, at any volume, flow, heat and cold', () => {
    fc.assert(
      fc.property(
        fc.record({
          precharge: fc.double({ min: 3e6, max: 9.5e6, noNaN: true }),
          volume: fc.double({ min: 120e-6, max: 700e-6, noNaN: true }),
          flow: fc.double({ min: 3e-6, max: 12e-6, noNaN: true }),
          timeConstant: fc.double({ min: 8, max: 200, noNaN: true }),
          environment: fc.double({ min: 260, max: 312, noNaN: true }),
        }),
        (drawn) => {
          expect(Math.abs(foundIn(charge(drawn)) / drawn.precharge - 1)).toBeLessThan(0.005);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('is as good where the lines fill within four samples', () => {
    const drawn = { precharge: 3e6, volume: 120e-6, flow: 10.23e-6, timeConstant: 16, environment: 260 };
    const trace = charge(drawn);
    expect(trace.pressure[3]).toBeLessThan(2.7e6);
    expect(trace.pressure[4]).toBeGreaterThan(2.7e6);
    expect(Math.abs(foundIn(trace) / drawn.precharge - 1)).toBeLessThan(0.001);
  });

  it('of a bleed is the same precharge, though the gas is cold there', () => {
    for (const timeConstant of [10, 30, 90]) {
      const trace = bleed({ ...plain, timeConstant });
      const knee = findKnee(trace);
      if ('code' in knee) throw new Error(knee.code);
      expect(knee.temperature).toBeLessThan(shopAir - 1);
      expect(Math.abs(foundIn(trace) / plain.precharge - 1)).toBeLessThan(0.02);
    }
  });

  it('is told at the gas’s own time constant, whatever the sheet says of it', () => {
    for (const timeConstant of [6, 8, 15, 30, 60]) {
      const trace = { ...bleed({ ...plain, precharge: 6.9e6, timeConstant }), timeConstant: 30 };
      const knee = findKnee(trace);
      if ('code' in knee) throw new Error(knee.code);
      expect(Math.abs(Math.log(knee.timeConstant / timeConstant))).toBeLessThan(0.3);
      if (timeConstant < 10) expect(knee.otherThanSheet).toBe(true);
      if (timeConstant === 30) expect(knee.otherThanSheet).toBe(false);
      const off = Math.abs(foundIn(trace) / 6.9e6 - 1);
      expect(off).toBeLessThan(2 * knee.gasHeatShare + 0.01);
      expect(off).toBeLessThan(0.03);
    }
  });

  it.each([0.5, 0.75, 1])('is the same through an opening that goes with the power %d: its U covers it', (power) => {
    for (const timeConstant of [7, 20, 50]) {
      const trace = { ...bleed({ ...plain, precharge: 6.9e6, timeConstant }, 17.5e6, power), timeConstant: 30 };
      const knee = findKnee(trace);
      if ('code' in knee) throw new Error(knee.code);
      const off = Math.abs(foundIn(trace) / 6.9e6 - 1);
      expect([power, timeConstant, off < 2 * knee.gasHeatShare + 0.01]).toEqual([power, timeConstant, true]);
    }
  });

  it('is no other for its noise: of many bleeds of a plain gas none is taken for one that takes up heat otherwise', () => {
    for (let seed = 0; seed < 40; seed++) {
      const luck = dice(seed);
      const gas = { precharge: 7.9e6 + ambient, volume: 250e-6, shell: 284.15, tau: luck.between(27, 33) };
      const flow = (t: number, p: number) => (t < 2 ? 0 : -1.6e-6 * Math.sqrt(Math.max(0, p - ambient) / 18e6));
      const all = gasPressures(gas, 18e6 + ambient, flow, { seconds: 150, step: 2e-3, ambient });
      const ends = all.findIndex((p) => p - ambient < 5e4);
      const white = luck.between(2e3, 1e4);
      const pressure = Array.from({ length: Math.floor(ends / 10) }, (_, i) => all[i * 10] + white * luck.normal());
      const time = Float64Array.from(pressure, (_, i) => i * 0.02);
      const trace = { ...traceOf({ ...plain, environment: 284.15 }, pressure, 'bleed'), time };
      const knee = findKnee(trace);
      if ('code' in knee) throw new Error(knee.code);
      const off = restatePrecharge(knee.pressure - ambient, knee.temperature, 293.15, ambient) / 7.9e6 - 1;
      expect([seed, Math.abs(off) < 2 * knee.gasHeatShare + 0.01, knee.otherThanSheet]).toEqual([seed, true, false]);
    }
  });

  it('where the hand moved on the valve the trace does not tell it, and that stands in the doubt', () => {
    const surroundings = { ambient, environment: shopAir };
    const drawn = { ...plain, precharge: 6.9e6, timeConstant: 9 };
    const state = settledAccumulator(specOf(drawn), 17.5e6 + ambient, surroundings);
    const pressure = [state.pressure];
    while (state.pressure - ambient > 2e3 && pressure.length < 60_000) {
      const opening = 2.4e-6 * (1 + 0.6 * Math.sin(pressure.length / 400));
      const out = opening * Math.sqrt((state.pressure - ambient) / 10e6);
      advanceAccumulator(specOf(drawn), state, 1 / rate, -out / rate, surroundings);
      pressure.push(state.pressure);
    }
    const trace = { ...traceOf(drawn, pressure, 'bleed'), timeConstant: 30 };
    const knee = findKnee(trace);
    if ('code' in knee) throw new Error(knee.code);
    expect(Math.abs(foundIn(trace) / 6.9e6 - 1)).toBeLessThan(2 * knee.gasHeatShare + 0.01);
  });

  it('of a charge from settled the time constant is no matter', () => {
    const filled = findKnee(charge(plain));
    expect('code' in filled ? null : filled.gasHeatShare).toBe(0);
  });

  it('says how sure it is: noisier is less sure', () => {
    const noisy = (size: number): KneeTrace => {
      const trace = charge(plain);
      return {
        ...trace,
        pressure: trace.pressure.map((value, i) => value + size * ((((i * 2654435761) >>> 0) / 2 ** 32) * 2 - 1)),
      };
    };
    const doubt = (size: number) => {
      const knee = findKnee(noisy(size));
      return 'code' in knee ? Number.NaN : knee.fitStandard;
    };
    expect(doubt(60e3)).toBeGreaterThan(3 * doubt(6e3));
    expect(Math.abs(foundIn(noisy(60e3)) / plain.precharge - 1)).toBeLessThan(0.02);
  });
});

describe('traces without a knee', () => {
  it('a gas side that has failed fills at once and has none', () => {
    const failed = charge({ ...plain, precharge: 100, volume: 1e-6 });
    expect(findKnee({ ...failed, volume: plain.volume })).toMatchObject({ code: 'no-knee' });
  });

  it('nothing charged is nothing found', () => {
    const flat = Array.from({ length: 500 }, (_, i) => ambient + 900 * Math.sin(i));
    expect(findKnee(traceOf(plain, flat, 'charge'))).toMatchObject({ code: 'nothing-charged' });
  });

  it('a bleed that stopped halfway did not reach it', () => {
    const trace = bleed(plain);
    const half = trace.pressure.findIndex((value) => value < 10e6);
    expect(
      findKnee({ ...trace, time: trace.time.slice(0, half), pressure: trace.pressure.slice(0, half) }),
    ).toMatchObject({ code: 'not-bled-out' });
  });

  it('a charge sampled twice in all its seconds is too coarse, and says so', () => {
    const trace = charge(plain);
    const every = Math.floor(trace.time.length / 6);
    const coarse = {
      ...trace,
      time: trace.time.filter((_, i) => i % every === 0),
      pressure: trace.pressure.filter((_, i) => i % every === 0),
    };
    expect(findKnee(coarse)).toHaveProperty('code');
  });
});
