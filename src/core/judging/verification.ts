import { planOf, type AnyKind } from '../contract/kind';
import { answeredBy } from '../contract/one-log';
import type { PlanId } from '../procedure/step-context';
import type { StepEvaluation } from './evaluate-unit';

/** What was done to a part. */
export const partActions = ['left', 'replaced', 'cleaned', 'adjusted', 'reused'] as const;
export type PartAction = (typeof partActions)[number];

/** What was done to one part, and with what: a part number, a fluid. */
export interface PartWork {
  readonly part: string;
  readonly action: PartAction;
  readonly with: string;
}

/** Why a step has to be done once more after a repair. */
export type DueBecause = 'failed' | 'affected' | 'closing' | 'still-due' | 'same-log';

export interface DueStep {
  readonly step: string;
  readonly because: DueBecause;
}

/** A part that was out, or set: what it does may be otherwise now, of one that was put back as it was too. */
const touched: readonly PartAction[] = ['replaced', 'cleaned', 'adjusted', 'reused'];

/** What takes a part's fault away. */
const mending: readonly PartAction[] = ['replaced', 'cleaned', 'adjusted'];

/** Faults whose part was mended. */
export function mendedFaults(kind: AnyKind, work: readonly PartWork[]): readonly string[] {
  return kind.parts
    .filter((part) => work.some((each) => each.part === part.id && mending.includes(each.action)))
    .flatMap((part) => part.faults);
}

/**
 * What has to be done again after a repair, in the order of the plan: what failed or could not be decided before it, what the touched
 * parts can change, the closing checks, and what an earlier repair made due (`dueBefore`) and nobody has done since: what it was before
 * that one proves nothing. Steps that were never done stay to be done as well; they are not listed.
 */
export function verificationOf(
  kind: AnyKind,
  planId: PlanId,
  before: readonly Pick<StepEvaluation, 'step' | 'verdict'>[],
  work: readonly PartWork[],
  dueBefore: readonly DueStep[] = [],
): readonly DueStep[] {
  const plan = planOf(kind, planId);
  const parts = kind.parts.filter((part) =>
    work.some((each) => each.part === part.id && touched.includes(each.action)),
  );
  const because = (step: string): DueBecause | null => {
    const verdict = before.find((each) => each.step === step)?.verdict;
    if (verdict === 'fail' || verdict === 'undecided') return 'failed';
    if (parts.some((part) => part.affects.includes(step))) return 'affected';
    if (plan.closing.includes(step)) return 'closing';
    return verdict === 'not-run' && dueBefore.some((each) => each.step === step) ? 'still-due' : null;
  };
  const due = new Map(
    plan.steps.flatMap((step) => {
      const why = because(step);
      return why === null ? [] : [[step, why] as const];
    }),
  );
  // The log that proves one of them is new for all that it answers.
  const answered = new Set([...due.keys()].flatMap((step) => answeredBy(kind, planId, step)));
  return plan.steps.flatMap((step): DueStep[] => {
    const why = due.get(step) ?? (answered.has(step) ? 'same-log' : null);
    return why === null ? [] : [{ step, because: why }];
  });
}

/** How far the proof of a repair has come. */
export type VerificationState =
  | { readonly kind: 'nothing-repaired' }
  /** What is left to do, with the minutes it takes. */
  | { readonly kind: 'to-do'; readonly left: readonly DueStep[]; readonly minutes: number }
  | { readonly kind: 'not-verified'; readonly failed: readonly string[] }
  /** Nothing failed, but some of it cannot be told from its limit. */
  | { readonly kind: 'undecided'; readonly steps: readonly string[] }
  /** Everything passed, but some of it was measured with something worse than before. */
  | { readonly kind: 'worse-instruments'; readonly steps: readonly string[] }
  | { readonly kind: 'verified' };
