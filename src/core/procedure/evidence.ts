import type { AnalysisProblem } from '../vocabulary/analysis-problem';

declare const shown: unique symbol;

/**
 * What a trace shows for a step. Only `evidence` makes one, so that what a step comes to cannot be asked before it has been
 * asked whether the trace shows what the step needs.
 */
export type Evidence<Found> = Found & { readonly [shown]: true };

/** Whether a trace is evidence for a step: what was found, with what has to be said of it, or what is missing. */
export type Judged<Found> =
  | {
      readonly kind: 'evidence';
      readonly found: Evidence<Found>;
      readonly notes: readonly AnalysisProblem[];
      /** What it is not good enough for: it may show a fault, not that there is none. */
      readonly doubts: readonly AnalysisProblem[];
    }
  | { readonly kind: 'none'; readonly problem: AnalysisProblem };

/** The trace shows what the step needs. */
export function evidence<Found extends object>(
  found: Found,
  notes: readonly AnalysisProblem[] = [],
  doubts: readonly AnalysisProblem[] = [],
): Judged<Found> {
  return { kind: 'evidence', found: found as Evidence<Found>, notes, doubts };
}

/** It does not, for this reason. */
export function noEvidence(problem: AnalysisProblem): { readonly kind: 'none'; readonly problem: AnalysisProblem } {
  return { kind: 'none', problem };
}
