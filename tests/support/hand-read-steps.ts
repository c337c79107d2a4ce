import { families } from '@/core/families';
import { contextAt } from '@/core/formats/site-file';
import { checkKind } from '@/core/formats/unit-sheet';
import { expandedUncertainty } from '@/core/instruments/uncertainty';
import type { Characteristic, StepAnalysis } from '@/core/procedure/step-analysis';
import type { MeasuredStep } from '@/core/procedure/step-definition';

const kinds = families.flatMap((family) => family.kinds);

type Kind = (typeof kinds)[number];

/** A bench of the example sheet of a kind, high up on a cold day. */
export function handContext(kind: Kind, plan: Kind['plans'][number]['id']) {
  const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  return contextAt(checked.value, { altitudeM: 1420, benchVolumeCm3: 600, airTemperatureC: 11 }, '2026-11-23', plan);
}

/** Steps that a person reads in rows, by moments or by feel, and the simulated person knows how. */
const read = [
  'assist-curve',
  'unassisted-curve',
  'metering-curve',
  'modulation-curve',
  'simulator-curve',
  'proportioning',
  'sensor-tracks',
  'release',
  'residual',
  'vacuum-draw',
  'vacuum-gauge-agreement',
  'supply-check',
  'base-pair',
  'same-force-pair',
  'combination-valve',
  'pump-down',
  'isolation-hold',
  'tracking',
  'neutral-leak',
  'pump-relief',
  'steering-share',
  'step-response',
  'panic',
];

/** Every such step of every plan. */
export const handReadSteps = kinds.flatMap((kind) =>
  kind.plans.flatMap((plan) =>
    kind.steps
      .filter((step): step is MeasuredStep<unknown> => step.kind === 'measured' && step.feeds.live !== undefined)
      .filter((step) => plan.steps.includes(step.id) && read.includes(step.id))
      .map((step) => [`${kind.family} (${kind.curve.outputs[0]}) ${plan.id} ${step.id}`, kind, plan, step] as const),
  ),
);

const valueOf = (found: Characteristic) =>
  found.kind === 'measured' ? { value: found.estimate.value, expanded: expandedUncertainty(found.estimate) } : null;

/** Figures by hand and by log that lie further apart than both allow, times what they allow. */
export function apart(typed: StepAnalysis, logged: StepAnalysis) {
  return typed.characteristics.flatMap((each) => {
    const other = logged.characteristics.find((one) => one.id === each.id);
    const [hand, log] = [valueOf(each), other ? valueOf(other) : null];
    // What a supply sags by is of the run: a person presses more slowly.
    if (!hand || !log || each.id === 'supply-sag') return [];
    return [
      { id: each.id, hand, log, times: Math.abs(hand.value - log.value) / Math.hypot(hand.expanded, log.expanded) },
    ];
  });
}
