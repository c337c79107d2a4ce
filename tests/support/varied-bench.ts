import type { AnyKind } from '@/core/contract/kind';
import { observeUnit } from '@/core/diagnosis/make-signatures';
import { contextAt } from '@/core/formats/site-file';
import { checkKind } from '@/core/formats/unit-sheet';
import type { UnitEvaluation } from '@/core/judging/evaluate-unit';
import { labelledSeed, randomSource } from '@/core/physics/random';
import type { PlanId, StepContext } from '@/core/procedure/step-context';

/** The example of a kind at 1,420 m, on one of its plans. */
export function exampleBench(kind: AnyKind, plan: PlanId): { readonly context: StepContext<unknown> } {
  const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600 };
  return { context: contextAt(checked.value, site, '2026-11-23', plan) };
}

/** Sizes and behaviour of an example sheet, each off by a few per cent; counts stay what they are. */
function variedSpec(kind: AnyKind, random: { normal(): number }, by: number): Record<string, unknown> {
  const spec = { ...(kind.sheet.example.spec as Record<string, unknown>) };
  for (const field of kind.sheet.fields) {
    const value = spec[field.name];
    if (field.group !== 'size' && field.group !== 'behaviour') continue;
    if (typeof value !== 'number' || (Number.isInteger(value) && Math.abs(value) <= 4)) continue;
    const factor = Math.exp(by * Math.max(-2, Math.min(2, random.normal())));
    spec[field.name] = Number((value * factor).toPrecision(3));
  }
  return spec;
}

const failing = (evaluation: UnitEvaluation) =>
  evaluation.steps.filter((step) => step.verdict === 'fail' || step.verdict === 'undecided').length;

/**
 * Another unit of a kind, of other sizes, at another altitude and temperature: a sheet that is valid, and of which a sound
 * unit passes what a sound example passes. Deterministic by seed.
 */
export function variedBench(kind: AnyKind, plan: PlanId, seed: number): { readonly context: StepContext<unknown> } {
  const random = randomSource(labelledSeed(seed, `${kind.family} ${kind.value} ${plan}`));
  const between = (low: number, high: number) => low + (high - low) * random.uniform();
  const example = exampleBench(kind, plan);
  const fewest = failing(soundly(kind, example.context));
  for (let tries = 0; tries < 40; tries++) {
    const by = 0.12 * 0.93 ** tries;
    const checked = checkKind(kind, 'study', variedSpec(kind, random, by), 'study');
    const site = {
      altitudeM: Math.round(between(0, 2200)),
      airTemperatureC: Math.round(between(4, 30)),
      benchVolumeCm3: Math.round(between(450, 800)),
    };
    if (!checked.ok) continue;
    const context = contextAt(checked.value, site, '2026-11-23', plan);
    if (failing(soundly(kind, context)) <= fewest) return { context };
  }
  return example;
}

function soundly(kind: AnyKind, context: StepContext<unknown>): UnitEvaluation {
  return observeUnit(kind, context, { unit: context.unit, condition: kind.model.sound(context.unit) });
}
