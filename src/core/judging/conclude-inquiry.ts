import type { Conclusion, InquiryStep, Plan } from '../contract/plan';
import type { UnitEvaluation } from './evaluate-unit';
import type { Check } from './judge-step';

/** Where an inquiry stands: ended at a conclusion, or still open. */
export type InquiryState = { readonly kind: 'concluded'; readonly conclusion: Conclusion } | { readonly kind: 'open' };

const shortOf = (checks: readonly Check[]) =>
  checks
    .filter(({ verdict }) => verdict.kind === 'fail' && verdict.side === 'low')
    .map(({ characteristic }) => characteristic);

/** The first of the plan's conclusions that the steps so far bear out. */
export function concludeInquiry(plan: Pick<Plan<unknown>, 'conclusions'>, evaluation: UnitEvaluation): InquiryState {
  const steps = new Map(
    evaluation.steps.map((step): [string, InquiryStep] => [
      step.step,
      {
        verdict: step.verdict,
        short: shortOf(step.checks),
        findings: step.findings ?? {},
      },
    ]),
  );
  const conclusion = plan.conclusions.find((each) => each.holds(steps));
  return conclusion ? { kind: 'concluded', conclusion } : { kind: 'open' };
}
