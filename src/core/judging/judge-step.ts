import type { Limit } from '../procedure/limit';
import type { LookStep } from '../procedure/look-step';
import type { Characteristic } from '../procedure/step-analysis';
import type { CharacteristicId } from '../quantities/characteristics';
import { expandedUncertainty } from '../instruments/uncertainty';
import { decide, decisionUncertainty } from './decide';
import type { CheckVerdict, DecisionPolicy, StepVerdict, UnitVerdict } from '../vocabulary/verdict';

/** One characteristic against its limit, with the arithmetic that decided. SI. */
export interface Check {
  readonly characteristic: CharacteristicId;
  readonly limit: Limit;
  readonly verdict: CheckVerdict;
  /** U of reading and limit together; null where no number could be read. */
  readonly guard: number | null;
}

/** Judges every limited characteristic of a step. */
export function judgeStep(
  characteristics: readonly Characteristic[],
  limits: readonly Limit[],
  policy: DecisionPolicy,
): Check[] {
  return limits.map((limit) => {
    const found = characteristics.find((each) => each.id === limit.characteristic);
    if (!found) throw new Error(`limit on ${limit.characteristic}, which the step does not report`);
    return { characteristic: limit.characteristic, limit, ...judgeOne(found, limit, policy) };
  });
}

function judgeOne(
  found: Characteristic,
  limit: Limit,
  policy: DecisionPolicy,
): { verdict: CheckVerdict; guard: number | null } {
  // What was not measured is said first: no limit would help it.
  if (limit.withheld && found.kind !== 'absent')
    return {
      verdict: { kind: 'undecided', remedies: [{ kind: 'measure-again', because: limit.withheld }] },
      guard: null,
    };
  switch (found.kind) {
    case 'measured':
      return {
        verdict: decide(found.estimate, limit, policy),
        guard: policy === 'simple' ? 0 : decisionUncertainty(found.estimate, limit),
      };
    case 'beyond': {
      const guard = policy === 'simple' ? 0 : expandedUncertainty(found.bound);
      const { side, bound } = found;
      if (side === 'above' && limit.high !== null && bound.value - guard > limit.high)
        return { verdict: { kind: 'fail', side: 'high' }, guard };
      if (side === 'below' && limit.low !== null && bound.value + guard < limit.low)
        return { verdict: { kind: 'fail', side: 'low' }, guard };
      // A bound that already lies inside a one-sided limit decides as well as a number would.
      const held =
        side === 'above'
          ? limit.high === null && limit.low !== null && bound.value - guard >= limit.low
          : limit.low === null && limit.high !== null && bound.value + guard <= limit.high;
      if (held) return { verdict: { kind: 'pass' }, guard };
      return { verdict: { kind: 'undecided', remedies: [{ kind: 'measure-again', because: found.problem }] }, guard };
    }
    case 'absent':
      return {
        verdict: { kind: 'undecided', remedies: [{ kind: 'measure-again', because: found.problem }] },
        guard: null,
      };
  }
}

/** Any check fails → fail; else any undecided → undecided; else pass; without limits `recorded`. */
export function stepVerdict(checks: readonly Check[]): StepVerdict {
  if (checks.some((check) => check.verdict.kind === 'fail')) return 'fail';
  if (checks.some((check) => check.verdict.kind === 'undecided')) return 'undecided';
  return checks.length > 0 ? 'pass' : 'recorded';
}

/** What was found at each point of a look step: point id → option id. */
export type LookFindings = Readonly<Record<string, string>>;

/** A look counts once every point has a finding; an unfit point fails it. */
export function lookVerdict(step: LookStep, findings: LookFindings): StepVerdict {
  const effects = step.feeds.look.points.map(
    (point) => step.feeds.look.options.find((option) => option.id === findings[point.id])?.effect,
  );
  if (effects.includes('fail')) return 'fail';
  if (effects.some((effect) => effect === undefined)) return 'not-run';
  return 'recorded';
}

/** Verdict of a unit on a plan: any fail → fail; else a required step missing → incomplete; else any undecided. */
export function unitVerdict(
  steps: readonly { readonly verdict: StepVerdict; readonly optional: boolean }[],
): UnitVerdict {
  if (steps.some((step) => step.verdict === 'fail')) return 'fail';
  if (steps.some((step) => step.verdict === 'not-run' && !step.optional)) return 'incomplete';
  if (steps.some((step) => step.verdict === 'undecided')) return 'undecided';
  return 'pass';
}
