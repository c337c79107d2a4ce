import { everyKind } from './';
import { contextAt, type Site } from '../formats/site-file';
import { checkKind } from '../formats/unit-sheet';
import { expandedUncertainty } from '../instruments/uncertainty';
import { ordinaryNoise } from '../rig/stand-in-rig';
import { simulateStep } from '../rig/run-step';
import { makeTrace, sliceTrace, type Trace } from '../traces/trace';
import type { StepAnalysis } from '../procedure/step-analysis';
import type { MeasuredStep } from '../procedure/step-definition';
import { estimateOf } from '../procedure/analysis-result';

const [kind] = everyKind;
const site: Site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600 };
const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const context = contextAt(checked.value, site, '2026-11-23');
const stepOf = (id: string) => kind.steps.find((step) => step.id === id) as MeasuredStep<unknown>;
const run = (id: string, more: object = {}) =>
  simulateStep(kind, stepOf(id), context, { faults: [], benchSeed: 8, runSeed: 8, ...more });
const analyse = (id: string, trace: Trace, over: object = {}) => stepOf(id).analyse(trace, { ...context, ...over });
const problemOf = (analysis: StepAnalysis, id: string) => {
  const found = analysis.characteristics.find((each) => each.id === id);
  return found && found.kind !== 'measured' ? found.problem.code : undefined;
};

describe('stop-lamp switch', () => {
  it('finds where the contact closes and opens, through its bouncing', () => {
    const trace = run('stop-lamp-switch');
    const state = trace.columns.stop_switch.slice();
    const closes = state.findIndex((value) => value === 1);
    state[closes - 60] = 1;
    state[closes + 1] = 0;
    const analysis = analyse('stop-lamp-switch', makeTrace(trace.time, { ...trace.columns, stop_switch: state }));
    expect(estimateOf(analysis, 'switch-close-pressure')!.value / 410e3).toBeCloseTo(1, 1);
    expect(estimateOf(analysis, 'switch-open-pressure')!.value / 310e3).toBeCloseTo(1, 1);
  });

  it('a switch that never closes is known only to lie beyond the pull', () => {
    const analysis = analyse(
      'stop-lamp-switch',
      run('stop-lamp-switch', { faults: [{ id: 'switch-out-of-range', severity: 1 }] }),
    );
    expect(problemOf(analysis, 'switch-close-pressure')).toBe('switch-never-closed');
  });
});

describe('gauge agreement', () => {
  it('finds a pair error and corrects it, and finds the vacuum pair on the tee', () => {
    const { corrections } = analyse('gauge-agreement', run('gauge-agreement', { pairError: 0.018 }));
    const reference = analyse('gauge-agreement', run('gauge-agreement')).corrections!.pair!;
    expect(corrections!.pair!.gain / reference.gain).toBeCloseTo(1.018, 3);
    expect(corrections!.pair!.applied).toBe(true);
    expect(Math.abs(corrections!.vacuumPair!.difference)).toBeLessThan(1000);
  });

  it('does not correct an error outside the limit', () => {
    expect(analyse('gauge-agreement', run('gauge-agreement', { pairError: 0.06 })).corrections!.pair!.applied).toBe(
      false,
    );
  });

  it('needs three levels', () => {
    const trace = run('gauge-agreement');
    expect(problemOf(analyse('gauge-agreement', sliceTrace(trace, 0, 1500)), 'pair-gain')).toBe('too-few-levels');
  });
});

describe('vacuum draw', () => {
  it('corrects the difference at rest by the vacuum pair', () => {
    const trace = run('vacuum-draw');
    const pair = analyse('gauge-agreement', run('gauge-agreement')).corrections;
    const bare = estimateOf(analyse('vacuum-draw', trace), 'rest-difference')!;
    const corrected = estimateOf(analyse('vacuum-draw', trace, { corrections: pair }), 'rest-difference')!;
    expect(corrected.value).toBeLessThan(50);
    expect(expandedUncertainty(corrected)).toBeLessThan(expandedUncertainty(bare) / 10);
  });

  it('says so when the vacuum had not settled', () => {
    const trace = run('vacuum-draw');
    const moving = trace.columns.supply_vacuum.map((value, i) => value - Math.max(0, 4200 - i) * 3);
    expect(
      problemOf(
        analyse('vacuum-draw', makeTrace(trace.time, { ...trace.columns, supply_vacuum: moving })),
        'rest-difference',
      ),
    ).toBe('not-settled');
  });
});

describe('vacuum hold', () => {
  it('recovers a known leak as loss and as standard flow', () => {
    // 2 kPa in 15 s from 60 kPa vacuum in 4 litres at 284.15 K: 4000·(8 kPa/min)/101.325·293.15/284.15 cm3/min
    const time = Float64Array.from({ length: 3400 }, (_, i) => i / 200);
    const trace = makeTrace(time, { supply_vacuum: time.map((t) => 60e3 - (2000 / 15) * t) });
    const analysis = analyse('vacuum-hold-rest', trace);
    expect(estimateOf(analysis, 'vacuum-loss')!.value).toBeCloseTo(2000, 0);
    expect(estimateOf(analysis, 'leak-flow')!.value * 6e7).toBeCloseTo((4000 * 8 * 293.15) / 101.325 / 284.15, 1);
  });

  it('gives no flow without a bench volume, and no loss from a hold that is too short', () => {
    const trace = run('vacuum-hold-rest');
    expect(problemOf(analyse('vacuum-hold-rest', trace, { benchVolume: null }), 'leak-flow')).toBe('no-volume');
    expect(problemOf(analyse('vacuum-hold-rest', sliceTrace(trace, 0, 900)), 'vacuum-loss')).toBe('hold-too-short');
  });
});

describe('pressure hold and release', () => {
  it('recovers a known decay', () => {
    const clean = run('pressure-hold');
    const rate = 12e3 / 60;
    const held = (t: number) => (t > 8 && t < 66 ? rate * (t - 8) : 0);
    const leaking = makeTrace(clean.time, {
      ...clean.columns,
      output_pressure: clean.columns.output_pressure.map((value, i) => value - held(clean.time[i])),
    });
    const found = estimateOf(analyse('pressure-hold', leaking), 'output-decay-rate')!;
    expect(Math.abs(found.value - rate)).toBeLessThan(expandedUncertainty(found) + 0.03 * rate);
  });

  it('tells a quick release from one that never comes back', () => {
    expect(estimateOf(analyse('release', run('release')), 'release-time')!.value).toBeLessThan(0.5);
    const stuck = analyse('release', run('release', { faults: [{ id: 'return-spring-weak', severity: 1 }] }));
    expect(problemOf(stuck, 'release-time')).toBe('residual-never-reached');
    expect(estimateOf(stuck, 'residual-output')!.value).toBeGreaterThan(100e3);
  });
});

describe('boost curve', () => {
  const whole = run('boost-curve');

  it('a pull that ends before run-out says by how much, and gives no number', () => {
    const analysis = analyse('boost-curve', sliceTrace(whole, 0, 3600));
    expect(problemOf(analysis, 'run-out-input')).toBe('run-out-not-reached');
    const found = analysis.characteristics.find((each) => each.id === 'run-out-input');
    if (found?.kind !== 'beyond' || found.problem.code !== 'run-out-not-reached') throw new Error('expected a bound');
    // The control port's line foretells run-out: bound + missing = p_k.
    expect((found.bound.value + found.problem.by) / 1.7786e6).toBeCloseTo(1, 1);
    expect(problemOf(analysis, 'hysteresis')).toBe('run-out-not-reached');
    expect(estimateOf(analysis, 'cut-in-pressure')!.value / 576.9e3).toBeCloseTo(1, 1);
  });

  it('does without control port and supply, and says what is missing', () => {
    const { time, columns } = whole;
    const analysis = analyse(
      'boost-curve',
      makeTrace(time, { input_pressure: columns.input_pressure, output_pressure: columns.output_pressure }),
    );
    expect(problemOf(analysis, 'control-remainder')).toBe('control-port-missing');
    expect(problemOf(analysis, 'supply-sag')).toBe('supply-missing');
    expect(estimateOf(analysis, 'boost-ratio')!.value).toBeCloseTo(2.19, 1);
  });

  it('survives missing samples and a lever that slips back', () => {
    const { time, columns } = whole;
    const holed = (column: Float64Array) => column.map((value, i) => (i % 7 === 3 ? Number.NaN : value));
    const missing = analyse(
      'boost-curve',
      makeTrace(time, Object.fromEntries(Object.entries(columns).map(([id, column]) => [id, holed(column)]))),
    );
    for (const [id, truth] of [
      ['boost-slope', 2.8045],
      ['run-out-input', 1.7786e6],
      ['cut-in-pressure', 576.9e3],
    ] as const)
      expect(estimateOf(missing, id)!.value / truth).toBeCloseTo(1, 1.5);
  });

  it('does not depend on a clock that starts late', () => {
    const later = makeTrace(
      whole.time.map((t) => t + 5000),
      whole.columns,
    );
    expect(estimateOf(analyse('boost-curve', later), 'boost-slope')!.value).toBeCloseTo(
      estimateOf(analyse('boost-curve', whole), 'boost-slope')!.value,
      9,
    );
  });

  it('notes a pressure that stood in the unit before the pull, and not one that is the pair’s own offset', () => {
    const corrections = analyse('gauge-agreement', run('gauge-agreement')).corrections;
    const trapped = makeTrace(whole.time, {
      ...whole.columns,
      output_pressure: whole.columns.output_pressure.map((value) => value + 90e3),
    });
    const codes = (trace: Trace) => analyse('boost-curve', trace, { corrections }).notes.map((note) => note.code);
    expect(codes(trapped)).toContain('pressure-before-pull');
    expect(codes(whole)).not.toContain('pressure-before-pull');
  });

  it('a quieter bench states a smaller uncertainty', () => {
    const quiet = run('boost-curve', { noise: { hydraulic: ordinaryNoise.hydraulic / 8, vacuum: 10 } });
    const u = (trace: Trace) =>
      estimateOf(analyse('boost-curve', trace), 'boost-slope')!.components.find((part) => part.source === 'fit')!
        .standard;
    expect(u(quiet)).toBeLessThan(u(whole) / 3);
  });
});
