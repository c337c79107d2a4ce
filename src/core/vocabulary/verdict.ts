import type { UncertaintySource } from '../instruments/uncertainty';
import type { AnalysisProblem } from './analysis-problem';

/** What would turn an undecided check into a decided one. */
export type Remedy =
  | { readonly kind: 'repeats'; readonly count: number }
  | { readonly kind: 'better-gauge'; readonly factor: number }
  /** The part of the doubt that outweighs all others, where it is not the gauge. */
  | { readonly kind: 'know-better'; readonly part: UncertaintySource | 'limit' }
  /** It lies so near the limit that no gauge at hand would tell. */
  | { readonly kind: 'at-the-limit' }
  | { readonly kind: 'measure-again'; readonly because: AnalysisProblem };

export type CheckVerdict =
  /** `marginal`: inside the limit, outside the stricter school's. */
  | { readonly kind: 'pass'; readonly marginal?: true }
  | { readonly kind: 'fail'; readonly side: 'low' | 'high' }
  | { readonly kind: 'undecided'; readonly remedies: readonly Remedy[] };

export type StepVerdict = 'pass' | 'fail' | 'undecided' | 'recorded' | 'not-run';
export type UnitVerdict = 'pass' | 'fail' | 'undecided' | 'incomplete';

/** `guarded` decides by reading ± U; `simple` by the reading alone. */
export type DecisionPolicy = 'guarded' | 'simple';
