import { planOf, type AnyKind } from './kind';
import type { PlanId } from '../procedure/step-context';

const isMeasured = (kind: AnyKind, step: string) => kind.steps.find((each) => each.id === step)?.kind === 'measured';

/**
 * Steps that a trace is evidence of which was brought for one of them: of a plan that one log answers, every measured one; else that step
 * alone.
 */
export function answeredBy(kind: AnyKind, planId: PlanId, step: string): readonly string[] {
  const { steps, oneLog } = planOf(kind, planId);
  return oneLog && isMeasured(kind, step) ? steps.filter((each) => isMeasured(kind, each)) : [step];
}

/** Bench time of steps with set-up, minutes; where one log answers several of them it is recorded once, and not again where it is there. */
export function minutesOfSteps(
  kind: AnyKind,
  planId: PlanId,
  steps: readonly string[],
  done: ReadonlySet<string> = new Set(),
): number {
  const { oneLog } = planOf(kind, planId);
  const own = steps.reduce((sum, step) => sum + (kind.steps.find((each) => each.id === step)?.minutes ?? 0), 0);
  const wantsLog = steps.some((step) => isMeasured(kind, step)) && ![...done].some((step) => isMeasured(kind, step));
  return own + (oneLog && wantsLog ? oneLog.minutes : 0);
}
