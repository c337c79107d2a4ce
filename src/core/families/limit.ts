import type { CharacteristicId } from '../quantities/characteristics';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import type { WorkshopLimits } from './common/default-limits';

/** Where a limit comes from. */
export type LimitSource =
  | { readonly kind: 'sheet'; readonly field: string }
  | { readonly kind: 'workshop'; readonly key: keyof WorkshopLimits };

/** An allowed interval for one characteristic, SI; null is open. */
export interface Limit {
  readonly characteristic: CharacteristicId;
  readonly low: number | null;
  readonly high: number | null;
  /** What a sound unit would read, for the band and the report. */
  readonly expected: number | null;
  /** Standard uncertainty of the limit itself (it may depend on a measured vacuum). */
  readonly standard: number;
  readonly source: LimitSource;
  /** Low limit of the stricter school: a pass short of it is marginal. */
  readonly stricterLow?: number;
  /** The limit as it is written for sea level, where it was restated for today's air. */
  readonly restatedFrom?: number;
  /** Why nobody can say what the limit is; the check stays undecided. */
  readonly withheld?: AnalysisProblem;
}
