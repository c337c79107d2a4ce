import fc from 'fast-check';
import { makeTrace, type Trace } from '../../../traces/trace';
import { analyseApplications, predictApplications, storeStaircase, usefulCount } from './applications';
import { fluidHeld, usableVolume } from '../../../physics/gas-law';
import { accumulatorOf } from '../model/store-unit';
import {
  onlyCircuit,
  plainStore as store,
  shopAir,
  shopAmbient as ambient,
  storeContext,
} from '../../../../../tests/support/store-bench';

const from = { pressure: store.cutOut, ambient, environment: shopAir, precharge: store.precharge, spacing: 10 };
const how = { lever: 'pedal_force', lampId: 'lamp-pressure' } as const;

describe('applications that a charge is worth', () => {
  it('isothermal and tight: the count is the closed form of what the gas gives between the two pressures', () => {
    const tight = { ...store, timeConstant: 0, internalLeak: 0 };
    const gives = usableVolume(
      store.precharge + ambient,
      store.volume,
      { high: store.cutOut + ambient, low: store.leastUseful + ambient },
      1,
    );
    const lines = accumulatorOf(store, ambient).lineCompliance * (store.cutOut - store.leastUseful);
    const count = usefulCount(predictApplications(tight, from));
    expect(count).toBe(Math.floor((gives + lines) / store.fluidPerApplication));
  });

  it('a charge gives fewer when the gas is given no time to warm', () => {
    const counts = [0, 30, 3000].map((timeConstant) =>
      usefulCount(predictApplications({ ...store, timeConstant, internalLeak: 0 }, { ...from, spacing: 2 })),
    );
    expect(counts[0]).toBeGreaterThanOrEqual(counts[1]);
    expect(counts[1]).toBeGreaterThanOrEqual(counts[2]);
    expect(counts[0]).toBeGreaterThan(counts[2]);
  });

  it('every stroke ends below where it began, and no stroke counts after one that did not', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 3e6, max: 9e6, noNaN: true }),
        fc.double({ min: 2e-6, max: 30e-6, noNaN: true }),
        (precharge, fluidPerApplication) => {
          const strokes = predictApplications({ ...store, fluidPerApplication }, { ...from, precharge });
          for (const { before, after } of strokes) expect(after).toBeLessThan(before);
          expect(strokes.slice(0, -1).every((stroke) => stroke.useful)).toBe(true);
          expect(strokes.length).toBeGreaterThan(0);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('a store with its gas at the right precharge is worth more than one that lost half of it', () => {
    const low = usefulCount(predictApplications(store, { ...from, precharge: store.precharge / 2 }));
    expect(low).toBeLessThan(usefulCount(predictApplications(store, from)));
  });

  it('starts the staircase at cut-out and ends it on the first stroke that is not worth its fluid', () => {
    const { strokes, threshold, of } = storeStaircase(onlyCircuit, storeContext());
    expect(of).toBe('store');
    expect(threshold).toBe(store.leastUseful);
    expect(strokes[0].vacuum).toBeCloseTo(store.cutOut, -3);
    expect(strokes.at(-1)?.assisted).toBe(false);
    expect(strokes.at(-1)?.output).toBeLessThan(store.leastUseful);
  });
});

describe('applications counted in a trace', () => {
  /** Strokes of a second every five, the store at the given pressures after each. */
  function strokesTrace(after: readonly number[], lampBelow: number | null = store.lamp): Trace {
    const rate = 50;
    const count = (after.length * 5 + 3) * rate;
    const time = Float64Array.from({ length: count }, (_, i) => i / rate);
    const stroke = (t: number) => Math.floor((t - 2) / 5);
    const down = (t: number) => t >= 2 && (t - 2) % 5 < 2 && stroke(t) < after.length;
    const pressure = time.map((t) => {
      const n = stroke(t);
      return t < 2 ? store.cutOut : (after[Math.min(n, after.length - 1)] ?? store.cutOut);
    });
    const jitter = (i: number) => ((i * 7919) % 13) - 6;
    return makeTrace(time, {
      pedal_force: time.map((t, i) => (down(t) ? 400 : 0) + jitter(i) * 0.2),
      accumulator_pressure: pressure.map((value, i) => value + jitter(i) * 300),
      ...(lampBelow === null ? {} : { lamp_red: pressure.map((value) => (value < lampBelow ? 1 : 0)) }),
    });
  }
  const stairs = [16.5e6, 15.2e6, 14e6, 12.9e6, 11.8e6, 10.8e6, 9.8e6, 8.6e6];
  const of = (trace: Trace, id: string) =>
    analyseApplications(trace, onlyCircuit, storeContext(), how).characteristics.find((each) => each.id === id);

  it('the stroke that ends below the least useful pressure does not count', () => {
    expect(of(strokesTrace(stairs), 'assisted-applications')).toMatchObject({
      kind: 'measured',
      estimate: { value: 7 },
    });
  });

  it('a store that was never used up is worth at least what was counted', () => {
    expect(of(strokesTrace(stairs.slice(0, 5)), 'assisted-applications')).toMatchObject({
      kind: 'beyond',
      side: 'above',
      bound: { value: 5 },
    });
  });

  it('a stroke so close to the limit that the gauge cannot tell makes the count doubtful, others do not', () => {
    const doubtful = of(strokesTrace([...stairs.slice(0, 6), 9.02e6, 8e6]), 'assisted-applications');
    const certain = of(strokesTrace(stairs), 'assisted-applications');
    if (doubtful?.kind !== 'measured' || certain?.kind !== 'measured') throw new Error('not measured');
    expect(doubtful.estimate.components).toHaveLength(1);
    expect(certain.estimate.components).toHaveLength(0);
  });

  it('each stroke is given with the pressure it ended at', () => {
    const { strokes = [] } = analyseApplications(strokesTrace(stairs), onlyCircuit, storeContext(), how);
    expect(strokes).toHaveLength(stairs.length);
    strokes.forEach((stroke, i) => expect(stroke.output / stairs[i]).toBeCloseTo(1, 3));
  });

  it('the lamp is read where it came on; one that never came on says so', () => {
    expect(of(strokesTrace(stairs), 'lamp-pressure')?.kind).toBe('measured');
    expect(of(strokesTrace(stairs, 1e6), 'lamp-pressure')).toMatchObject({
      kind: 'absent',
      problem: { code: 'lamp-never-lit' },
    });
    expect(of(strokesTrace(stairs, null), 'lamp-pressure')).toMatchObject({
      problem: { code: 'channel-missing', channel: 'lamp_red' },
    });
  });

  it('no strokes, or no lever, is said and not counted as none', () => {
    const still = strokesTrace(stairs);
    const quiet = makeTrace(still.time, { ...still.columns, pedal_force: still.time.map(() => 0) });
    expect(of(quiet, 'assisted-applications')).toMatchObject({ kind: 'absent', problem: { code: 'no-strokes' } });
    const { accumulator_pressure: pressure } = still.columns;
    expect(of(makeTrace(still.time, { accumulator_pressure: pressure }), 'assisted-applications')).toMatchObject({
      kind: 'absent',
      problem: { code: 'channel-missing', channel: 'pedal_force' },
    });
  });

  it('what a stroke takes is what the gas below it lets go', () => {
    // Settled again at one temperature: fluid held falls by just the stroke's volume.
    const tight = { ...store, timeConstant: 0, internalLeak: 0 };
    const [first] = predictApplications(tight, from);
    const held = (gauge: number) => fluidHeld(store.precharge + ambient, store.volume, gauge + ambient, 1);
    const lines = (first.before - first.after) * accumulatorOf(store, ambient).lineCompliance;
    expect(held(first.before) - held(first.after) + lines).toBeCloseTo(store.fluidPerApplication, 9);
  });
});
