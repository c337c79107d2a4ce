import { everyKind } from '../families';
import type { MeasuredStep } from '../procedure/step-definition';
import { contextAt } from '../formats/site-file';
import { checkKind } from '../formats/unit-sheet';
import { concatTraces } from '../traces/trace';
import { restControls } from '../physics/bench-controls';
import { randomSource } from '../physics/random';
import { recordingOf } from './recording';
import { rigForStep, simulateStep } from './run-step';
import { drawGaugeErrors, readGauge } from './stand-in-gauge';

const [kind] = everyKind;
const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const context = contextAt(checked.value, { altitudeM: 1420, benchVolumeCm3: 600 }, '2026-11-23');
const step = kind.steps.find((each) => each.id === 'stop-lamp-switch') as MeasuredStep<unknown>;
const setting = { faults: [], benchSeed: 2, runSeed: 3 };

describe('random source', () => {
  it('draws normal deviates', () => {
    const source = randomSource(5);
    const values = Array.from({ length: 20_000 }, () => source.normal());
    const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
    const variance = values.reduce((sum, value) => sum + value * value, 0) / values.length;
    expect(Math.abs(mean)).toBeLessThan(0.03);
    expect(variance).toBeCloseTo(1, 1);
  });
});

describe('stand-in gauge', () => {
  const gauge = {
    channel: 'input_pressure',
    name: '',
    range: 16e6,
    resolution: 1000,
    classFraction: 0.01,
    classOf: 'full-scale' as const,
    calibratedOn: null,
    dueOn: null,
  };

  it('quantises, clips at its range, and errs as its class says', () => {
    const silent = { zero: 0, gain: 0, bow: 0, noise: 0, lag: 0 };
    expect(readGauge(1_234_567, gauge, silent, randomSource(1))).toBe(1_235_000);
    expect(readGauge(20e6, gauge, silent, randomSource(1))).toBe(16e6);
    const zeros = Array.from({ length: 2000 }, (_, seed) => drawGaugeErrors(gauge, seed + 1, 0).zero);
    const rms = Math.sqrt(zeros.reduce((sum, value) => sum + value * value, 0) / zeros.length);
    expect(rms / ((0.01 * 16e6) / 3)).toBeCloseTo(1, 1);
  });
});

describe('stand-in rig', () => {
  it('does the same again from the same seed, and something else from another', () => {
    const first = simulateStep(kind, step, context, setting);
    expect(simulateStep(kind, step, context, setting)).toEqual(first);
    expect(simulateStep(kind, step, context, { ...setting, runSeed: 4 }).columns.input_pressure).not.toEqual(
      first.columns.input_pressure,
    );
  });

  it('goes on from a snapshot exactly as it would have', () => {
    const controls = { ...restControls, lever: 300_000 };
    const rig = rigForStep(kind, step, context, setting);
    const whole = concatTraces([rig.advance(150, controls), rig.advance(250, controls)]);
    const before = rigForStep(kind, step, context, setting);
    const head = before.advance(150, controls);
    const after = rigForStep(kind, step, context, setting);
    after.restore(JSON.parse(JSON.stringify(before.snapshot())));
    expect(concatTraces([head, after.advance(250, controls)])).toEqual(whole);
  });

  it('records what it would give piece by piece, however often the recording has to grow', () => {
    const controls = { ...restControls, lever: 300_000 };
    const whole = rigForStep(kind, step, context, setting).advance(150, controls);
    const rig = rigForStep(kind, step, context, setting);
    const into = recordingOf(rig.channels, 4);
    expect(into.last(rig.channels[0])).toBeUndefined();
    for (const samples of [1, 2, 30, 117]) rig.record(into, samples, controls);
    expect(into.trace()).toEqual(whole);
    expect(into.last(rig.channels[0])).toBe(whole.columns[rig.channels[0]][149]);
    expect(into.last('nowhere')).toBeUndefined();
  });

  it('samples at its rate without a gap', () => {
    const { time } = simulateStep(kind, step, context, setting);
    for (let i = 1; i < time.length; i++) expect(time[i] - time[i - 1]).toBeCloseTo(0.005, 9);
  });
});
