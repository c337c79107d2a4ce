import type { Conclusion, InquiryStep, Plan } from '../contract/plan';
import type { Felt } from '../vocabulary/felt';
import type { StepEvaluation, UnitEvaluation } from './evaluate-unit';
import type { Check } from './judge-step';

/** Where an inquiry stands: ended at a conclusion, or still open. */
export type InquiryState =
  | {
      readonly kind: 'concluded';
      readonly conclusion: Conclusion;
      /** Steps of which it knows only what was felt or heard. */
      readonly felt: readonly string[];
    }
  | { readonly kind: 'open' };

/** What was felt at a step whose last run measured nothing. */
function feltAt({ verdict, analyses }: StepEvaluation): Felt | null {
  return verdict === 'undecided' ? (analyses.at(-1)?.felt ?? null) : null;
}

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
        felt: feltAt(step),
        hoseTakes: step.analyses.some(({ notes }) => notes.some(({ code }) => code === 'hose-takes')),
      },
    ]),
  );
  const conclusion = plan.conclusions.find((each) => each.holds(steps));
  const felt = evaluation.steps.filter((step) => feltAt(step) !== null).map(({ step }) => step);
  return conclusion ? { kind: 'concluded', conclusion, felt } : { kind: 'open' };
}
