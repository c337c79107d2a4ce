import { coverageFactor } from '../instruments/coverage-factor';
import {
  expandedUncertainty,
  randomUncertainty,
  type Estimate,
  type UncertaintySource,
} from '../instruments/uncertainty';
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

/** What is the gauge's own doing, and only a better gauge lessens. */
const ofTheGauge: readonly UncertaintySource[] = [
  'resolution',
  'gauge-zero',
  'gauge-gain',
  'gauge-linearity',
  'pair-gain',
  'pair-offset',
];
/** A gauge so many times as good is not to be had. */
const bestGauge = 10;

/**
 * What would decide: repeats where the random part is what straddles the limit; else what lessens the part that
 * outweighs the others, a better gauge where that is the gauge.
 */
function remediesFor(estimate: Estimate, interval: Interval, guard: number): Remedy[] {
  const distances = [interval.low, interval.high]
    .filter((limit) => limit !== null)
    .map((limit) => Math.abs(limit - estimate.value));
  const needed = Math.min(...distances);
  if (!(needed > 0)) return [];
  const randomPart = randomUncertainty(estimate);
  const systematicPart = Math.sqrt(Math.max(0, guard ** 2 - randomPart ** 2));
  if (systematicPart < needed) {
    const count = Math.ceil(randomPart ** 2 / (needed ** 2 - systematicPart ** 2));
    if (count >= 2 && count <= 20) return [{ kind: 'repeats', count }];
  }
  const squares = new Map<UncertaintySource | 'gauge' | 'limit', number>([['limit', interval.standard ** 2]]);
  for (const { source, standard } of estimate.components) {
    const group = ofTheGauge.includes(source) ? 'gauge' : source;
    squares.set(group, (squares.get(group) ?? 0) + standard ** 2);
  }
  const [[part, largest]] = [...squares].sort((p, q) => q[1] - p[1]);
  if (part !== 'gauge') return [{ kind: 'know-better', part }];
  const others = Math.max(0, guard ** 2 - coverageFactor ** 2 * largest);
  const factor = others < needed ** 2 ? Math.sqrt((guard ** 2 - others) / (needed ** 2 - others)) : Infinity;
  return factor <= bestGauge
    ? [{ kind: 'better-gauge', factor: Math.ceil(factor * 10 - 1e-9) / 10 }]
    : [{ kind: 'at-the-limit' }];
}
