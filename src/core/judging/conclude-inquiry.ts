import type { Conclusion, InquiryStep, Plan } from '../contract/plan';
import type { UnitEvaluation } from './evaluate-unit';

/** Where an inquiry stands: ended at a conclusion, or still open. */
export type InquiryState = { readonly kind: 'concluded'; readonly conclusion: Conclusion } | { readonly kind: 'open' };

/** The first of the plan's conclusions that the steps so far bear out. */
export function concludeInquiry(plan: Pick<Plan<unknown>, 'conclusions'>, evaluation: UnitEvaluation): InquiryState {
  const steps = new Map(
    evaluation.steps.map((step): [string, InquiryStep] => [
      step.step,
      {
        verdict: step.verdict,
        failed: step.checks.filter((check) => check.verdict.kind === 'fail').map((check) => check.characteristic),
        findings: step.findings ?? {},
      },
    ]),
  );
  const conclusion = plan.conclusions.find((each) => each.holds(steps));
  return conclusion ? { kind: 'concluded', conclusion } : { kind: 'open' };
}
