import { contextAt } from '@/core/formats/site-file';
import { checkKind } from '@/core/formats/unit-sheet';
import { expandedUncertainty } from '@/core/instruments/uncertainty';
import type { Instrument } from '@/core/instruments/instrument';
import { evaluateStep } from '@/core/judging/evaluate-unit';
import { labelledSeed, randomSource, type RandomSource } from '@/core/physics/random';
import type { StepContext } from '@/core/procedure/step-context';
import type { StepAnalysis } from '@/core/procedure/step-analysis';
import type { Trace } from '@/core/traces/trace';
import { findStep, kindNamed } from '@/core/families';
import { preparePlunger, type PlungerUnit } from '@/core/families/brake-by-wire/geometry';
import { plungerSchema } from '@/core/families/brake-by-wire/sheet';

/*
 * Logs of somebody else's bench: written here sample by sample, with their own rates, noise and habits. None of it comes from the stand-in.
 */

export const kind = kindNamed('brake-by-wire', 'plunger');
const checked = checkKind(kind, 'unit', kind.sheet.example.spec, 'unit');
if (!checked.ok) throw new Error('the example is not valid');
export const context = contextAt(
  checked.value,
  { altitudeM: 1420, airTemperatureC: 11 },
  '2026-11-27',
  'bench',
) as StepContext<PlungerUnit>;
export const spec = plungerSchema.parse(kind.sheet.example.spec);
export const unit = preparePlunger(spec);

/** The workshop's own gauges at the wheels: named, so that no line is suspected between. */
const named = (channel: string): Instrument => ({
  channel,
  name: 'Wheel gauge',
  range: 25e6,
  resolution: 0,
  classFraction: 0.004,
  classOf: 'reading',
  calibratedOn: '2026-06-01',
  dueOn: '2027-06-01',
});
export const withGauges: StepContext<PlungerUnit> = {
  ...context,
  instruments: new Map([
    ...context.instruments,
    ...['fl', 'fr', 'rl', 'rr'].map((wheel) => [`wheel_pressure_${wheel}`, named(`wheel_pressure_${wheel}`)] as const),
  ]),
};

export const stepNamed = (id: string) => {
  const step = findStep(kind, id);
  if (!step || step.kind !== 'measured') throw new Error(`${id} is not measured`);
  return step;
};
export const analyse = (id: string, trace: Trace, here: StepContext<PlungerUnit> = context) =>
  stepNamed(id).analyse(trace, here);
export const judge = (id: string, trace: Trace) =>
  evaluateStep(kind, stepNamed(id), [{ trace }], { context, policy: 'guarded' });
export const found = (analysis: StepAnalysis, id: string) => analysis.characteristics.find((each) => each.id === id)!;
export const estimate = (analysis: StepAnalysis, id: string) => {
  const characteristic = found(analysis, id);
  if (characteristic.kind !== 'measured') throw new Error(`${id}: ${JSON.stringify(characteristic)}`);
  return { value: characteristic.estimate.value, expanded: expandedUncertainty(characteristic.estimate) };
};
export const problemOf = (analysis: StepAnalysis, id: string) => {
  const characteristic = found(analysis, id);
  return characteristic.kind === 'measured' ? null : characteristic.problem.code;
};

export const noise = (seed: number, label: string): RandomSource => randomSource(labelledSeed(seed, label));
export const clock = (seconds: number, rate: number) =>
  Float64Array.from({ length: Math.round(seconds * rate) }, (_, i) => i / rate);
export const between = (t: number, from: number, to: number) => Math.max(0, Math.min(1, (t - from) / (to - from)));
