import type { AnyKind } from '@/core/contract/kind';
import { evaluateUnit, type StepEvaluation, type StepEvidence } from '@/core/judging/evaluate-unit';
import type { LookStep } from '@/core/procedure/look-step';
import type { StepContext } from '@/core/procedure/step-context';
import type { CharacteristicId } from '@/core/quantities/characteristics';
import { dice, type Dice } from '../logger';
import { inlineBooster } from './inline-booster';
import { motorBooster } from './motor-booster';
import { pedalValve } from './pedal-valve';
import { pumpBooster } from './pump-booster';
import { steeringBooster } from './steering-booster';
import { vacuumSource } from './vacuum-source';
import type { Given, OwnFault, WholeUnit } from './whole-unit';

/** Units of other physics, whose logs no rig and no model of a family made. */
export const wholeUnits: readonly WholeUnit[] = [
  inlineBooster,
  vacuumSource,
  pedalValve,
  steeringBooster,
  motorBooster,
  pumpBooster,
];

/** A technician of another shop finds what there is to be seen this often. */
const finds = 0.8;

/** Writes every step of its plan for a unit with a fault or without, and judges them. Deterministic by seed. */
export function testWholeUnit(
  whole: WholeUnit,
  kind: AnyKind,
  context: StepContext<unknown>,
  { fault, seed }: { readonly fault: OwnFault | null; readonly seed: number },
): readonly StepEvaluation[] {
  const luck = dice(seed);
  const write = whole.draw(fault, luck);
  const { steps } = kind.plans.find((each) => each.id === whole.plan)!;
  const evidence = steps.flatMap((id): StepEvidence[] => {
    const step = kind.steps.find((each) => each.id === id)!;
    const given = step.kind === 'look' ? lookedAt(whole, step, fault?.fault ?? null, luck) : write(id);
    return given ? [evidenceOf(id, given)] : [];
  });
  return evaluateUnit(kind, steps, evidence, { context, policy: 'guarded' }).steps;
}

function evidenceOf(step: string, given: Given): StepEvidence {
  switch (given.kind) {
    case 'log':
      return { kind: 'traces', step, traces: [given.log] };
    case 'typed':
      return { kind: 'typed', step, values: new Map(Object.entries(given.values) as [CharacteristicId, number][]) };
    case 'looked':
      return { kind: 'findings', step, findings: given.findings };
  }
}

function lookedAt(whole: WholeUnit, step: LookStep, fault: string | null, luck: Dice): Given {
  const { points, options } = step.feeds.look;
  const inOrder = options.find((each) => each.effect === 'pass') ?? options[0];
  const shows = fault === null ? undefined : whole.looks[fault];
  const found = points.map(({ id }) => [id, shows?.[id] && luck.chance(finds) ? shows[id] : inOrder.id]);
  return { kind: 'looked', findings: Object.fromEntries(found) as Record<string, string> };
}
