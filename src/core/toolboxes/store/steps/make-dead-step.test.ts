import { kindNamed, kindOfSheet } from '../../../families';
import { contextAt } from '../../../formats/site-file';
import { checkKind } from '../../../formats/unit-sheet';
import { analysisOf, evaluateStep, evaluateUnit } from '../../../judging/evaluate-unit';
import type { CharacteristicId } from '../../../quantities/characteristics';
import type { MeasuredStep } from '../../../procedure/step-definition';
import { makeTrace, type Trace } from '../../../traces/trace';
import { dice, goodGauge, writeLog, type Gauging } from '../../../../../tests/support/second-writer/logger';

const kind = kindNamed('motor-pump-boost');
const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const site = {
  altitudeM: 1420,
  airTemperatureC: 11,
  instruments: [
    {
      channel: 'accumulator_pressure',
      name: 'Store gauge',
      range: 25_000,
      resolution: 2,
      unit: 'kPa',
      classPercent: 0.5,
      classOf: 'full-scale' as const,
      calibratedOn: '2026-03-12',
      dueOn: '2027-03-12',
    },
  ],
};
const context = contextAt(checked.value, site, '2026-11-23');
const step = kindOfSheet({ family: kind.family, spec: kind.sheet.example.spec })!.steps.find(
  (each) => each.id === 'make-dead-before',
) as MeasuredStep<unknown>;

const noisy: Gauging = { ...goodGauge, white: 6e3, division: 2e3 };
/** Pressure let out stroke by stroke, collapsing at the precharge. */
const letOut = (left: number) => (t: number) => (t < 30 ? 16e6 - (8e6 * t) / 30 : left);
const log = (at: (t: number) => number, gauging = noisy, seed = 4): Trace =>
  writeLog({ accumulator_pressure: { at, gauging } }, { seconds: 40, rate: 20 }, dice(seed));

function judge(trace: Trace) {
  const result = evaluateStep(kind, step, [{ analysed: () => step.analyse(trace, context) }], {
    context,
    policy: 'guarded',
  });
  const [found] = result.characteristics;
  return [result.verdict, found.kind === 'measured' ? 'measured' : found.problem.code];
}

describe('a system is dead only on what a working gauge at rest gives', () => {
  it('passes where the log shows the gauge following the pressure down to nothing', () => {
    expect(judge(log(letOut(0)))).toEqual(['pass', 'measured']);
    expect(judge(log(letOut(900e3)))).toEqual(['fail', 'measured']);
  });

  it('a zero that the gauge was never seen to leave proves nothing', () => {
    expect(judge(log(() => 0))).toEqual(['undecided', 'gauge-not-seen-alive']);
    expect(judge(log(() => 0, { ...noisy, white: 0 }))).toEqual(['undecided', 'gauge-not-seen-alive']);
  });

  it('a reading that no vessel can hold proves nothing', () => {
    expect(judge(log(letOut(-14.5e6)))).toEqual(['undecided', 'reads-below-zero']);
    expect(judge(log(letOut(-400e3)))).toEqual(['undecided', 'reads-below-zero']);
  });

  it('a loop that broke, or a gauge that stands at one figure, proves nothing', () => {
    expect(judge(log((t) => (t < 30 ? 16e6 : 0)))).toEqual(['undecided', 'gauge-not-seen-alive']);
    const trace = log(letOut(0));
    const at = trace.time.findIndex((t) => t > 33);
    const stuck = trace.columns.accumulator_pressure.map((value, i) => (i < at ? value : 4e3));
    expect(judge(makeTrace(trace.time, { accumulator_pressure: stuck }))).toEqual(['undecided', 'gauge-frozen']);
  });

  it.each([
    ['seen to fall', { 'dead-pressure': 20e3, 'gauge-seen': 0 }, 'pass'],
    ['tapped up', { 'dead-pressure': 20e3, 'gauge-seen': 1 }, 'pass'],
    ['not seen to move', { 'dead-pressure': 20e3, 'gauge-seen': 2 }, 'undecided'],
    ['nothing said of the gauge', { 'dead-pressure': 20e3 }, 'undecided'],
    ['below zero', { 'dead-pressure': -14.5e6, 'gauge-seen': 0 }, 'undecided'],
  ])('a typed reading: %s', (_title, readings, verdict) => {
    const analysis = analysisOf(step, { readings }, context);
    expect(evaluateStep(kind, step, [{ analysed: () => analysis }], { context, policy: 'guarded' }).verdict).toBe(
      verdict,
    );
    // A workshop's simple acceptance takes away the guard, not the evidence.
    expect(evaluateStep(kind, step, [{ analysed: () => analysis }], { context, policy: 'simple' }).verdict).toBe(
      verdict,
    );
  });

  it('a bare characteristic, as a readings table may name it, proves nothing either', () => {
    const values = new Map<CharacteristicId, number>([['dead-pressure', 20e3]]);
    const evidence = [{ kind: 'typed', step: step.id, values }] as const;
    const [result] = evaluateUnit(kind, [step.id], evidence, { context, policy: 'guarded' }).steps;
    expect(result.verdict).toBe('undecided');
  });
});
