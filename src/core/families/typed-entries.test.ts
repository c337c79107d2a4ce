import { readStandIn } from '../rig/run-step';
import { families } from '.';
import { contextAt } from '../formats/site-file';
import { checkKind } from '../formats/unit-sheet';
import { expandedUncertainty } from '../instruments/uncertainty';
import { evaluateUnit, type StepEvidence } from '../judging/evaluate-unit';
import { characteristicRow } from '../quantities/characteristics';
import { shownUnit, displayUnitSets } from '../wording/display';
import { entryOf, notReadByHand } from '../dials/characteristic-entry';
import type { StepDefinition, TypedStep } from '../procedure/step-definition';
import type { TypedField, TypedValues } from '../procedure/typed-entry';

const everyPlan = families
  .flatMap((family) => family.kinds)
  .flatMap((kind) =>
    kind.plans.map((plan) => [`${kind.family} (${kind.curve.outputs[0]}), ${plan.id}`, kind, plan] as const),
  );

/** A figure that nobody would question: the middle of what a sound unit gives, else of what is plausible. */
function soundFigure({ expected, plausible, choices, row }: TypedField): number {
  if (choices) return 0;
  // What a table begins with rises row by row.
  if (row && !expected) return plausible[1] * 0.25 * (row.at / 13) ** 2;
  const [low, high] = [
    Math.max(expected?.low ?? -Infinity, plausible[0]),
    Math.min(expected?.high ?? Infinity, plausible[1]),
  ];
  return (low + high) / 2;
}

/** Steps whose figures are recorded and held against nothing, off a trace as off a dial. */
const withoutLimits = ['vacuum-draw', 'demand'];

const given = (step: string, readings: TypedValues, standIn = false): StepEvidence => ({
  kind: 'mixed',
  step,
  given: [{ readings, standIn }],
});

/** Plans of which a person reads anything. */
const plansRead = everyPlan.filter(([, kind, plan]) =>
  kind.steps.some((step) => step.kind !== 'look' && plan.steps.includes(step.id) && !notReadByHand(step)),
);

describe.each(plansRead)('dial readings of %s', (_title, kind, plan) => {
  const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const site = { altitudeM: 1420, benchVolumeCm3: 600, airTemperatureC: 11 };
  const context = contextAt(checked.value, site, '2026-11-23', plan.id);
  // What is worked out of a sheet is not typed.
  const steps = kind.steps
    .filter((step) => step.kind !== 'look' && plan.steps.includes(step.id))
    .filter((step) => step.kind !== 'typed' || !step.workedOut)
    .filter((step) => step.kind === 'look' || !notReadByHand(step));
  const cases = steps.map((step) => [step.id, step] as const);
  const judged = (step: StepDefinition<unknown>) => {
    if (step.kind === 'look') throw new Error(`${step.id} is looked at`);
    return step;
  };

  it.each(cases)('%s asks for figures that can be read, in every set of measurement units', (_id, step) => {
    const fields = entryOf(judged(step)).fields(context, {});
    expect(fields.length).toBeGreaterThan(0);
    expect(new Set(fields.map((field) => field.id)).size).toBe(fields.length);
    for (const field of fields) {
      expect(field.title).not.toBe('');
      expect(field.plausible[0]).toBeLessThan(field.plausible[1]);
      if (field.choices) expect(field.choices.length).toBeGreaterThan(field.optional ? 0 : 1);
      else for (const units of displayUnitSets) expect(shownUnit(field.as, units).symbol).toBeDefined();
      if (field.expected) {
        expect([field.id, field.expected.low <= field.expected.high]).toEqual([field.id, true]);
        // What a sound unit gives must itself be plausible, or every sound reading would be questioned.
        expect([
          field.id,
          soundFigure(field) >= field.plausible[0] && soundFigure(field) <= field.plausible[1],
        ]).toEqual([field.id, true]);
      }
    }
  });

  it.each(cases)('%s: nothing typed gives no number, and says so', (_id, step) => {
    const { characteristics } = entryOf(judged(step)).analyse({}, context);
    expect(characteristics.map((each) => each.id).sort()).toEqual([...step.characteristics].sort());
    for (const found of characteristics) expect([found.id, found.kind]).toEqual([found.id, 'absent']);
    const evaluation = evaluateUnit(kind, plan.steps, [given(step.id, {})], {
      context,
      policy: 'guarded',
    });
    expect(evaluation.steps.find((each) => each.step === step.id)?.verdict).not.toBe('pass');
  });

  it.each(cases)('%s: sound figures give numbers with an uncertainty, one after the other', (_id, step) => {
    const entry = entryOf(judged(step));
    let values: TypedValues = {};
    // Fields may follow from what was typed before them.
    for (let round = 0; round < 40; round++) {
      const next = entry.fields(context, values).find((field) => values[field.id] === undefined);
      if (!next) break;
      values = { ...values, [next.id]: soundFigure(next) };
      for (const found of entry.analyse(values, context).characteristics) {
        const estimate = found.kind === 'measured' ? found.estimate : found.kind === 'beyond' ? found.bound : null;
        if (estimate === null) continue;
        expect([found.id, Number.isFinite(estimate.value)]).toEqual([found.id, true]);
        expect([found.id, Number.isFinite(expandedUncertainty(estimate))]).toEqual([found.id, true]);
      }
    }
    const { verdict } = evaluateUnit(kind, plan.steps, [given(step.id, values)], {
      context,
      policy: 'guarded',
    }).steps.find((each) => each.step === step.id)!;
    // Only what no trace is held against either may end without a verdict.
    if (!withoutLimits.includes(step.id)) expect([step.id, verdict]).not.toEqual([step.id, 'recorded']);
    const found = entry.analyse(values, context).characteristics;
    expect(found.some((each) => each.kind !== 'absent')).toBe(true);
    for (const each of found) expect(characteristicRow(each.id).unit).toBeDefined();
  });

  const typed = steps.filter((step): step is TypedStep<unknown> => step.kind === 'typed');
  if (typed.length === 0) return;
  it.each(typed.map((step) => [step.id, step] as const))('%s: a sound unit on the stand-in passes', (_id, step) => {
    for (let seed = 1; seed <= 8; seed++) {
      const values = readStandIn(kind, step, context, { faults: [], seed });
      const evaluation = evaluateUnit(kind, plan.steps, [given(step.id, values, true)], {
        context,
        policy: 'guarded',
      });
      const verdict = evaluation.steps.find((each) => each.step === step.id)?.verdict;
      expect([step.id, seed, verdict === 'pass' || verdict === 'recorded']).toEqual([step.id, seed, true]);
    }
  });
});
