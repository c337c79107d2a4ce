import { evidenceOf } from '@/core/diagnosis/evidence';
import { hypothesisId } from '@/core/diagnosis/hypothesis';
import { rank } from '@/core/diagnosis/rank';
import type { FoundationUnit } from '@/core/families/foundation/geometry';
import { evaluateStep, type StepEvaluation } from '@/core/judging/evaluate-unit';
import type { Trace } from '@/core/traces/trace';
import { standInUnit } from './stand-in-unit';
import { tableOf } from './tables';

/** What sits behind the unit of the example vehicle. */
export const minibus = standInUnit<FoundationUnit>('foundation', 'vehicle');
export const { context } = minibus;
/** A measured step of it by its name. */
export const measuredStep = (id: string) => {
  const step = minibus.kind.steps.find((each) => each.id === id);
  if (step?.kind !== 'measured') throw new Error(`${id} is not measured`);
  return step;
};

/** What a step comes to on a log, and how it is judged. */
export function judgedAs(id: string, log: Trace) {
  const step = measuredStep(id);
  const analysis = step.analyse(log, context);
  const given = [{ analysed: () => analysis }];
  const evaluation = evaluateStep(minibus.kind, step, given, { context, policy: 'guarded' });
  return { ...analysis, verdict: evaluation.verdict, evaluation };
}

/** What is likeliest the matter by one step alone. */
export function firstOf(step: StepEvaluation): string {
  const { kind } = minibus;
  const table = tableOf(kind, context.plan);
  return hypothesisId(rank(kind, table, evidenceOf(kind, table, [step], context, [])).ranked[0].hypothesis);
}
