import { expandedUncertainty, randomUncertainty, type Estimate } from '../instruments/uncertainty';
import type { CheckVerdict, DecisionPolicy, Remedy } from '../vocabulary/verdict';

export interface Interval {
  readonly low: number | null;
  readonly high: number | null;
  /** Standard uncertainty of the limits themselves. */
  readonly standard: number;
  /** Low limit of the stricter school. */
  readonly stricterLow?: number;
}

/** Expanded uncertainty of a decision: of the reading and of the limit together. */
export function decisionUncertainty(estimate: Estimate, interval: Interval): number {
  return Math.hypot(expandedUncertainty(estimate), 2 * interval.standard);
}

/**
 * Guarded decision about a reading y ± U against low and high limits (SI): pass only if y ± U lies inside, fail only
 * if it lies wholly outside, else undecided. A pass short of a stricter school's limit is marginal. `simple` looks at y alone.
 * Source: ISO 14253-1:2017 clause 5; JCGM 106:2012, 8.3.
 */
export function decide(estimate: Estimate, interval: Interval, policy: DecisionPolicy): CheckVerdict {
  const { low, high } = interval;
  const { value } = estimate;
  const guard = policy === 'simple' ? 0 : decisionUncertainty(estimate, interval);
  if (low !== null && value + guard < low) return { kind: 'fail', side: 'low' };
  if (high !== null && value - guard > high) return { kind: 'fail', side: 'high' };
  const aboveLow = low === null || value - guard >= low;
  const belowHigh = high === null || value + guard <= high;
  if (aboveLow && belowHigh) {
    const short = interval.stricterLow !== undefined && value - guard < interval.stricterLow;
    return short ? { kind: 'pass', marginal: true } : { kind: 'pass' };
  }
  return { kind: 'undecided', remedies: remediesFor(estimate, interval, guard) };
}

/** More repeats help when the random part is what straddles the limit; otherwise only a better gauge does. */
function remediesFor(estimate: Estimate, interval: Interval, guard: number): Remedy[] {
  const distances = [interval.low, interval.high]
    .filter((limit) => limit !== null)
    .map((limit) => Math.abs(limit - estimate.value));
  const needed = Math.min(...distances);
  if (!(needed > 0)) return [];
  const randomPart = randomUncertainty(estimate);
  const systematicPart = Math.sqrt(Math.max(0, guard ** 2 - randomPart ** 2));
  const remedies: Remedy[] = [];
  if (systematicPart < needed) {
    const count = Math.ceil(randomPart ** 2 / (needed ** 2 - systematicPart ** 2));
    if (count >= 2 && count <= 20) remedies.push({ kind: 'repeats', count });
  }
  if (remedies.length === 0) remedies.push({ kind: 'better-gauge', factor: Math.ceil((guard / needed) * 10) / 10 });
  return remedies;
}
