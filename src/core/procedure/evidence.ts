import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import type { StepAnalysis } from './step-analysis';

declare const shown: unique symbol;

/**
 * What a trace shows for a step. Only `evidence` makes one, so that what a step comes to cannot be asked before it has been
 * asked whether the trace shows what the step needs.
 */
export type Evidence<Found> = Found & { readonly [shown]: true };

/** What was seen in a trace that is no evidence: worth drawing, nothing to be judged. */
export type SeenAnyhow = Partial<Pick<StepAnalysis, 'events' | 'strokes' | 'vacuum' | 'restVacuum'>>;

/** A trace does not show what a step needs, for this reason. */
export interface NoEvidence {
  readonly kind: 'none';
  readonly problem: AnalysisProblem;
  readonly seen: SeenAnyhow;
}

/** Whether a trace is evidence for a step: what was found, with what has to be said of it, or what is missing. */
export type Judged<Found> =
  | {
      readonly kind: 'evidence';
      readonly found: Evidence<Found>;
      readonly notes: readonly AnalysisProblem[];
      /** What it is not good enough for: it may show a fault, not that there is none. */
      readonly doubts: readonly AnalysisProblem[];
    }
  | NoEvidence;

/** The trace shows what the step needs. */
export function evidence<Found extends object>(
  found: Found,
  notes: readonly AnalysisProblem[] = [],
  doubts: readonly AnalysisProblem[] = [],
): Judged<Found> {
  return { kind: 'evidence', found: found as Evidence<Found>, notes, doubts };
}

/** It does not, for this reason. */
export function noEvidence(problem: AnalysisProblem, seen: SeenAnyhow = {}): NoEvidence {
  return { kind: 'none', problem, seen };
}
