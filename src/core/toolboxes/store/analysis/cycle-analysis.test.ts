import { makeTrace, type Trace } from '../../../traces/trace';
import type { StepAnalysis } from '../../../procedure/step-analysis';
import { chargingCircuit, soundCircuit, type CircuitCondition } from '../model/charging-circuit';
import { circuitFaults } from '../model/circuit-faults';
import { analyseCycles, analyseRestCycles } from './cycle-analysis';
import { analyseStoreSwitch } from './store-switch-analysis';
import { cycleMap, predictCycle, readCycle } from '../model/cycle-map';
import {
  onlyCircuit,
  plainStore as store,
  shopAir,
  shopAmbient as ambient,
  storeContext,
} from '../../../../../tests/support/store-bench';
import { expandedUncertainty } from '../../../instruments/uncertainty';

const surroundings = { ambient, environment: shopAir };
const rate = 20;

/** What the gauges would show, without noise, of a charged store left alone for some seconds. */
function leftAlone(
  seconds: number,
  condition: CircuitCondition = soundCircuit(),
  change: Partial<typeof store> = {},
): Trace {
  const circuit = chargingCircuit({ ...store, ...change }, condition, surroundings, true);
  const count = Math.round(seconds * rate);
  const pressure = new Float64Array(count);
  const pump = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    pressure[i] = circuit.pressure();
    pump[i] = circuit.running() ? 1 : 0;
    circuit.advance(1 / rate, { live: true, bleed: 0, taken: 0, elsewhere: 0 });
  }
  return makeTrace(
    Float64Array.from({ length: count }, (_, i) => i / rate),
    { accumulator_pressure: pressure, pump_on: pump },
  );
}

const leaky = { internalLeak: 0.4e-6 };
const context = storeContext(leaky);

function valueOf(analysis: Pick<StepAnalysis, 'characteristics'>, id: string): number {
  const found = analysis.characteristics.find((each) => each.id === id);
  if (found?.kind !== 'measured') throw new Error(`${id} was not measured: ${JSON.stringify(found)}`);
  return found.estimate.value;
}

describe('run and rest of a pump left alone', () => {
  const sound = predictCycle(context.unit, soundCircuit(), surroundings)!;
  const trace = leftAlone(6 * (sound.run + sound.rest), soundCircuit(), leaky);
  const analysis = analyseCycles(trace, onlyCircuit, context);

  it('are those of the settled cycle, to a sample', () => {
    expect(Math.abs(valueOf(analysis, 'run-time') - sound.run)).toBeLessThan(0.15);
    expect(valueOf(analysis, 'rest-time') / sound.rest).toBeCloseTo(1, 1);
  });

  it('state the pressure that the leak was read at: between cut-in and cut-out', () => {
    const [note] = analysis.notes;
    if (note.code !== 'leak-read-at') throw new Error('no pressure stated');
    expect(note.pressure).toBeGreaterThan(context.unit.cutIn);
    expect(note.pressure).toBeLessThan(context.unit.cutOut);
  });

  it('give the oil that leaks inside: in proportion to pressure, at the mean of the rest', () => {
    const mean = (leaky.internalLeak * (store.cutIn + store.cutOut)) / 2 / store.cutOut;
    const found = analysis.characteristics.find((each) => each.id === 'internal-leak-flow');
    if (found?.kind !== 'measured') throw new Error('no leak');
    expect(found.estimate.value / mean).toBeCloseTo(1, 1);
    expect(Math.abs(found.estimate.value - mean)).toBeLessThan(expandedUncertainty(found.estimate));
  });

  it('a measured precharge makes the leak surer', () => {
    const known = storeContext(leaky, { precharge: { '': { value: store.precharge, standard: 40e3 } } });
    const doubt = (which: typeof context) => {
      const found = analyseCycles(trace, onlyCircuit, which).characteristics.find(
        (each) => each.id === 'internal-leak-flow',
      );
      return found?.kind === 'measured' ? expandedUncertainty(found.estimate) : Infinity;
    };
    expect(doubt(known)).toBeLessThan(doubt(context));
  });

  it('a sound unit’s cycles speak for nothing', () => {
    expect(analysis.notes.map((note) => note.code)).toEqual(['leak-read-at']);
  });

  it.each(circuitFaults.map((fault) => [fault.id] as const))('cycles of %s speak for it', (id) => {
    const condition = soundCircuit();
    circuitFaults.find((fault) => fault.id === id)?.apply(condition, 0.5, context.unit);
    const point = predictCycle(context.unit, condition, surroundings)!;
    const seen = analyseCycles(leftAlone(5 * (point.run + point.rest) + 20, condition, leaky), onlyCircuit, context);
    expect(seen.notes.filter((note) => note.code !== 'leak-read-at')).toMatchObject([
      { code: 'cycles-speak-for', fault: id },
    ]);
  });

  it('one rest is no settled rest; a long open one is at least as long as it was watched', () => {
    const early = analyseCycles(leftAlone(1.4 * sound.rest, soundCircuit(), leaky), onlyCircuit, context);
    expect(early.characteristics.find((each) => each.id === 'rest-time')).toMatchObject({
      kind: 'absent',
      problem: { code: 'cycles-not-settled' },
    });
    const tight = analyseCycles(leftAlone(1200, soundCircuit(), { internalLeak: 1e-12 }), onlyCircuit, context);
    expect(tight.characteristics.find((each) => each.id === 'rest-time')).toMatchObject({
      kind: 'beyond',
      side: 'above',
      problem: { code: 'rest-outlasts' },
    });
  });

  it('a pump that never stops, that never starts, and one without a signal are told apart', () => {
    const code = (which: Trace, id: string) => {
      const found = analyseCycles(which, onlyCircuit, context).characteristics.find((each) => each.id === id);
      return found?.kind === 'measured' ? 'measured' : found?.problem.code;
    };
    const stuck = leftAlone(60, { ...soundCircuit(), stuck: true }, leaky);
    const always = makeTrace(stuck.time, { ...stuck.columns, pump_on: stuck.time.map(() => 1) });
    expect(code(always, 'run-time')).toBe('pump-never-stopped-charging');
    const never = makeTrace(stuck.time, { ...stuck.columns, pump_on: stuck.time.map(() => 0) });
    expect(code(never, 'run-time')).toBe('pump-never-started');
    const { accumulator_pressure: pressure } = stuck.columns;
    expect(code(makeTrace(stuck.time, { accumulator_pressure: pressure }), 'run-time')).toBe('no-pump-signal');
    expect(code(makeTrace(stuck.time, { pump_on: stuck.columns.pump_on }), 'rest-time')).toBe('channel-missing');
  });

  it('starts and stops are read at the switching, and a run that goes on has a stop above what was seen', () => {
    const levels = analyseStoreSwitch(trace, onlyCircuit, context);
    expect(valueOf(levels, 'store-cut-in') / store.cutIn).toBeCloseTo(1, 2);
    expect(valueOf(levels, 'store-cut-out') / store.cutOut).toBeCloseTo(1, 2);
    const stop = trace.columns.pump_on.findIndex((on, i) => on > 0.5 && i > 0 && trace.columns.pump_on[i - 1] < 0.5);
    const cut = makeTrace(trace.time.slice(0, stop + 10), {
      accumulator_pressure: trace.columns.accumulator_pressure.slice(0, stop + 10),
      pump_on: trace.columns.pump_on.slice(0, stop + 10),
    });
    expect(
      analyseStoreSwitch(cut, onlyCircuit, context).characteristics.find((each) => each.id === 'store-cut-out'),
    ).toMatchObject({ kind: 'beyond', side: 'above' });
  });

  it('two circuits are read each by its own, and the second is missed where it was not recorded', () => {
    const second = {
      ...onlyCircuit,
      suffix: '-2',
      place: '@2',
      pressure: 'accumulator_pressure_2',
      pump: 'pump_on_2',
      lamp: 'lamp_amber',
    } as const;
    const joined = analyseRestCycles(trace, [onlyCircuit, second], context);
    expect(valueOf(joined, 'run-time')).toBeCloseTo(valueOf(analysis, 'run-time'), 9);
    expect(joined.characteristics.find((each) => each.id === 'run-time@2')).toMatchObject({
      kind: 'absent',
      problem: { code: 'channel-missing', channel: 'accumulator_pressure_2' },
    });
    expect(joined.cycles).toHaveLength(1);
  });
});

describe('the map that cycles are read on', () => {
  const map = cycleMap(context.unit, surroundings, { circuit: '', title: 'Store' })!;
  const asMeasured = (point: { run: number; rest: number; cutIn: number; cutOut: number }) => ({
    ...point,
    circuit: '',
    runStandard: 0.1,
    restStandard: 1,
    restOpen: false,
  });

  it('reads its own middle as sound and every point of a curve as that fault', () => {
    expect(readCycle(asMeasured(map.sound), map)).toEqual({ kind: 'sound' });
    for (const fault of map.faults) {
      const worst = fault.points.at(-1)!;
      const reading = readCycle(asMeasured(worst), map);
      expect({ fault: fault.id, reading }).toMatchObject({ reading: { kind: 'fault', fault: fault.id } });
      if (reading.kind === 'fault') expect(reading.apart).toBeGreaterThan(0);
    }
  });

  it('a rest that outlasted the watch speaks against what would have been over, and for nothing', () => {
    const open = { ...asMeasured(map.sound), rest: map.sound.rest * 0.6, restOpen: true };
    expect(readCycle(open, map)).toEqual({ kind: 'sound' });
    expect(readCycle({ ...open, restOpen: false }, map).kind).toBe('fault');
  });

  it('there is none where even a sound one would never cycle', () => {
    const never = { ...context.unit, internalLeak: 0 };
    expect(cycleMap(never, surroundings, { circuit: '', title: 'Store' })).toBeNull();
  });
});
