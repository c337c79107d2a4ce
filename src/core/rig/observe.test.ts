import { conditionWith } from '../contract/model';
import { everyKind, kindNamed } from '../families';
import { contextAt } from '../formats/site-file';
import { checkKind } from '../formats/unit-sheet';
import { expandedUncertainty } from '../instruments/uncertainty';
import type { StepAnalysis } from '../procedure/step-analysis';
import type { AnyKind } from '../contract/kind';
import { observe } from './observe';
import { simulateStep } from './run-step';

function benchOf(kind: AnyKind, plan = kind.plans[0].id) {
  const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600 };
  return contextAt(checked.value, site, '2026-11-23', plan);
}

const everyStep = everyKind.flatMap((kind) =>
  kind.plans.flatMap((plan) =>
    plan.steps.map((id) => [`${kind.sheet.example.name}, ${plan.id}: ${id}`, kind, plan.id, id] as const),
  ),
);

/** What true gauges cannot agree with noisy ones about. */
const different: Readonly<Record<string, string>> = {
  'pair-offset': 'it is the gauges’ own error that is measured',
  'pair-gain': 'it is the gauges’ own error that is measured',
  'vacuum-pair-offset': 'it is the gauges’ own error that is measured',
  'master-difference': 'it is the sensors’ own error that is measured',
  'dead-pressure@2': 'what is left depends on the moment at which the bleeding was called done',
  'assisted-applications': 'a count at its edge is one or “more than were made”',
  'assisted-applications@2': 'a count at its edge is one or “more than were made”',
};

const measuredIn = (found: StepAnalysis | null) =>
  new Map(
    (found?.characteristics ?? []).flatMap((each) =>
      each.kind === 'measured' && !(each.id in different) ? [[each.id, each.estimate] as const] : [],
    ),
  );

describe('what a step would find of a unit', () => {
  it.each(everyStep)(
    '%s: is what the noisy rig finds of a sound one, within what both say of themselves',
    (_name, kind, plan, id) => {
      const context = benchOf(kind, plan);
      const step = kind.steps.find((each) => each.id === id)!;
      const { unit } = context;
      const observed = measuredIn(observe(kind, step, context, { unit, condition: kind.model.sound(unit) }));
      if (step.kind !== 'measured') return;
      const trace = simulateStep(kind, step, context, { faults: [], benchSeed: 4, runSeed: 4 });
      const found = measuredIn(step.analyse(trace, context));
      expect([...observed.keys()].sort()).toEqual([...found.keys()].sort());
      for (const [name, estimate] of found) {
        const apart = Math.abs(estimate.value - observed.get(name)!.value);
        const both = Math.hypot(expandedUncertainty(estimate), expandedUncertainty(observed.get(name)!));
        // A soak's loss is told to less than a division of its gauge.
        const division = name === 'soak-loss' ? context.instruments.get('supply_vacuum')!.resolution : 0;
        expect([name, apart <= 1.3 * both + division / 2]).toEqual([name, true]);
      }
    },
  );

  it('moves with the condition and with the unit, and comes out the same twice', () => {
    const kind = kindNamed('vacuum-inline');
    const context = benchOf(kind);
    const step = kind.steps.find((each) => each.id === 'assist-curve')!;
    const { unit } = context;
    const slope = (mounted: { unit: unknown; condition: unknown }) =>
      measuredIn(observe(kind, step, context, mounted)).get('force-slope')!.value;
    const sound = slope({ unit, condition: kind.model.sound(unit) });
    expect(slope({ unit, condition: kind.model.sound(unit) })).toBe(sound);
    const missing = conditionWith(kind.model, unit, [{ id: 'reaction-disc-missing', severity: 0.2 }]);
    expect(slope({ unit, condition: missing })).toBeGreaterThan(1.3 * sound);
    const ratio = kind.model.scatter.find((each) => each.id === 'servoRatio')!;
    expect(slope({ unit: ratio.apply(unit, 2), condition: kind.model.sound(unit) })).toBeGreaterThan(sound);
  });
});
