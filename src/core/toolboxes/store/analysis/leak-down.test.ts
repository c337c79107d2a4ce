import fc from 'fast-check';
import { expandedUncertainty } from '../../../instruments/uncertainty';
import { makeTrace, type Trace } from '../../../traces/trace';
import { analyseLeakDown } from './leak-down';
import { gasAmount } from '../../../physics/gas-accumulator';
import { accumulatorOf } from '../model/store-unit';
import {
  onlyCircuit,
  plainStore as store,
  shopAir,
  shopAmbient as ambient,
  storeContext,
} from '../../../../../tests/support/store-bench';

const hour = 3600;

/** Gauge pressures at times (s) of an isothermal store that loses `leak` (m3/s) at cut-out, in proportion to pressure. */
function soaked(times: readonly number[], leak: number, air: (time: number) => number = () => shopAir): Trace {
  const gas = gasAmount(accumulatorOf(store, ambient));
  const volumeAt = (pressure: number, kelvin: number) => (gas * kelvin) / pressure;
  let held = store.volume - volumeAt(store.cutOut + ambient, shopAir);
  const dt = 20;
  let time = 0;
  const pressures = times.map((when) => {
    const pressureNow = () => (gas * air(time)) / (store.volume - held);
    for (; time < when; time += dt) held -= (leak * dt * (pressureNow() - ambient)) / store.cutOut;
    return pressureNow() - ambient;
  });
  return makeTrace(Float64Array.from(times), { accumulator_pressure: Float64Array.from(pressures) });
}

const found = (trace: Trace, id: string, context = storeContext()) =>
  analyseLeakDown(trace, onlyCircuit, context).characteristics.find((each) => each.id === id);

function value(trace: Trace, id: string, context = storeContext()): number {
  const one = found(trace, id, context);
  if (one?.kind !== 'measured') throw new Error(`${id} was not measured: ${JSON.stringify(one)}`);
  return one.estimate.value;
}

/** Half-life of gauge pressure by following the leak until half is left, s. */
function halfLifeOf(leak: number): number {
  const times = Array.from({ length: 12_000 }, (_, i) => i * 40);
  const { accumulator_pressure: pressure } = soaked(times, leak).columns;
  const at = pressure.findIndex((each) => each <= store.cutOut / 2);
  if (at < 0) throw new Error('never came to half');
  return times[at];
}

describe('a soak of hours', () => {
  const leak = 0.4e-6 / 60;

  it('two readings at the ends give the half-life of a leak in proportion to pressure', () => {
    const wanted = halfLifeOf(leak);
    expect(value(soaked([0, 4 * hour], leak), 'half-life') / wanted).toBeCloseTo(1, 2);
    expect(value(soaked([0, 1 * hour], leak), 'half-life') / wanted).toBeCloseTo(1, 2);
  });

  it('readings between the ends change nothing of it where the leak is even', () => {
    const ends = value(soaked([0, 6 * hour], leak), 'half-life');
    const more = value(soaked([0, 1.3 * hour, 2 * hour, 4.4 * hour, 6 * hour], leak), 'half-life');
    expect(more / ends).toBeCloseTo(1, 3);
  });

  it('the oil lost is what left, whatever was there', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 1.2, noNaN: true }),
        fc.double({ min: 1, max: 9, noNaN: true }),
        (cubicCentimetresAMinute, hours) => {
          const flow = (cubicCentimetresAMinute * 1e-6) / 60 / 4;
          const trace = soaked([0, hours * hour], flow);
          const [start, end] = trace.columns.accumulator_pressure;
          fc.pre(end > 0.62 * store.cutOut);
          const mean = (flow * (start + end)) / 2 / store.cutOut;
          expect(value(trace, 'internal-leak-flow') / mean).toBeCloseTo(1, 1);
        },
      ),
      { numRuns: 30 },
    );
  });

  it('a log from the moment the pump stopped is read from when the gas has cooled', () => {
    const times = Array.from({ length: 400 }, (_, i) => i * 30);
    const trace = soaked(times, leak);
    // The gas of a quick charge cools: the first minutes fall by a megapascal with no oil lost.
    const hot = trace.columns.accumulator_pressure.map(
      (each, i) => each * (1 + 0.06 * Math.exp(-times[i] / store.timeConstant)),
    );
    const cooling = makeTrace(trace.time, { accumulator_pressure: hot });
    expect(value(cooling, 'half-life') / value(trace, 'half-life')).toBeCloseTo(1, 1);
  });

  it('a cold night is taken out where the air was recorded, and is in the uncertainty where it was not', () => {
    const night = (time: number) => shopAir - (6 * time) / (8 * hour);
    const times = [0, 2 * hour, 4 * hour, 8 * hour];
    const slow = leak / 4;
    const trace = soaked(times, slow, night);
    const withAir = makeTrace(trace.time, {
      ...trace.columns,
      air_temperature: Float64Array.from(times.map(night)),
    });
    const wanted = halfLifeOf(slow);
    const blind = found(trace, 'half-life');
    expect(Math.abs(value(withAir, 'half-life') / wanted - 1)).toBeLessThan(0.03);
    expect(value(trace, 'half-life')).toBeLessThan(0.95 * wanted);
    if (blind?.kind !== 'measured') throw new Error('not measured');
    const seen = found(withAir, 'half-life');
    if (seen?.kind !== 'measured') throw new Error('not measured');
    expect(expandedUncertainty(blind.estimate)).toBeGreaterThan(expandedUncertainty(seen.estimate));
  });

  it('nothing lost is a half-life longer than what the gauge could have missed, never a number', () => {
    const flat = makeTrace(Float64Array.from([0, 5 * hour]), {
      accumulator_pressure: Float64Array.from([17.5e6, 17.5e6]),
    });
    const beyond = found(flat, 'half-life');
    expect(beyond).toMatchObject({ kind: 'beyond', side: 'above', problem: { code: 'nothing-lost' } });
    const longer = makeTrace(Float64Array.from([0, 20 * hour]), {
      accumulator_pressure: Float64Array.from([17.5e6, 17.5e6]),
    });
    const bound = (trace: Trace) => {
      const one = found(trace, 'half-life');
      return one?.kind === 'beyond' ? one.bound.value : 0;
    };
    expect(bound(longer)).toBeGreaterThan(3 * bound(flat));
  });

  it('a rise through warming is no leak and is not called one', () => {
    const risen = makeTrace(Float64Array.from([0, 5 * hour]), {
      accumulator_pressure: Float64Array.from([17.4e6, 17.6e6]),
    });
    expect(found(risen, 'half-life')).toMatchObject({ kind: 'beyond', side: 'above' });
  });

  it('a store that still holds gas pressure but little oil has nothing to show', () => {
    const low = makeTrace(Float64Array.from([0, 4 * hour]), {
      accumulator_pressure: Float64Array.from([5e6, 4.9e6]),
    });
    const none = { kind: 'absent', problem: { code: 'too-little-pressure' } };
    expect(found(low, 'half-life', storeContext({ precharge: 2e6 }))).toMatchObject(none);
  });

  it.each([
    ['minutes', [0, 120], [17e6, 16.9e6], 'soak-too-short'],
    ['one reading', [0], [17e6], 'soak-too-short'],
    ['a store that collapsed at once', [0, 4 * hour], [17e6, 2e6], 'soak-too-short'],
    ['no reading at all', [0, hour], [Number.NaN, Number.NaN], 'channel-missing'],
  ])('%s carry no half-life', (_what, times, pressures, code) => {
    const trace = makeTrace(Float64Array.from(times), { accumulator_pressure: Float64Array.from(pressures) });
    expect(found(trace, 'half-life')).toMatchObject({ kind: 'absent', problem: { code } });
    expect(found(trace, 'internal-leak-flow')).toMatchObject({ kind: 'absent', problem: { code } });
  });

  it('a precharge that was measured takes the place of the sheet’s, and makes the leak surer', () => {
    const trace = soaked([0, 3 * hour], leak);
    const known = storeContext({}, { precharge: { '': { value: 7.2e6, standard: 50e3 } } });
    expect(value(trace, 'internal-leak-flow', known) / value(trace, 'internal-leak-flow')).toBeCloseTo(
      7.285 / 8.085,
      2,
    );
    const spread = (context = storeContext()) => {
      const one = found(trace, 'internal-leak-flow', context);
      return one?.kind === 'measured' ? expandedUncertainty(one.estimate) / one.estimate.value : Infinity;
    };
    expect(spread(known)).toBeLessThan(spread());
  });

  it('says where a store is empty before it could come to half', () => {
    const high = { precharge: 10e6 };
    const trace = soaked([0, 2 * hour], leak);
    expect(analyseLeakDown(trace, onlyCircuit, storeContext(high)).notes).toMatchObject([
      { code: 'leak-read-at' },
      { code: 'empty-before-half' },
    ]);
    const { accumulator_pressure: pressure } = trace.columns;
    expect(analyseLeakDown(trace, onlyCircuit, storeContext()).notes).toEqual([
      { code: 'leak-read-at', channel: 'accumulator_pressure', pressure: (pressure[0] + pressure[1]) / 2 },
    ]);
  });
});
