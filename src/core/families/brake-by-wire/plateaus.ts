import { scatterOf, type Samples } from '../../traces/own-samples';
import type { Stretch } from '../../fitting/first-order-tracking';

const { abs, max } = Math;

/** A target counts as held where it stays within this share of its largest for so long, s. */
const standsWithin = 0.01;
const standsFor = 0.7;
/** Between two plateaus a change is a step where it takes no longer than this, s, and is at least this share of the largest target. */
const stepSeconds = 0.5;
const stepShare = 0.1;
/** A step is looked at from a moment before it to so long after it, s. */
const before = 0.1;
const after = 1.5;

/** A stretch in which a target stood, s, at its mean. */
export interface Plateau extends Stretch {
  readonly level: number;
}

/** A change from one plateau to another. */
export interface TargetStep {
  /** s: what is looked at, and when the change begins. */
  readonly window: Stretch;
  readonly begins: number;
  readonly from: Plateau;
  readonly to: Plateau;
}

/** Where a target stood still; it is held between its own samples. */
export function plateausOf(target: Samples): readonly Plateau[] {
  const { time, value } = target;
  const largest = value.reduce((most, each) => max(most, abs(each)), 0);
  const reach = max(standsWithin * largest, 4 * scatterOf(target));
  const found: Plateau[] = [];
  let from = 0;
  let [low, high, sum] = [Infinity, -Infinity, 0];
  const close = (to: number) => {
    const end = to < time.length ? time[to] : time[time.length - 1];
    if (to > from && end - time[from] >= standsFor) found.push({ from: time[from], to: end, level: sum / (to - from) });
  };
  for (let i = 0; i < value.length; i++) {
    const [lower, higher] = [Math.min(low, value[i]), max(high, value[i])];
    if (higher - lower > 2 * reach) {
      close(i);
      from = i;
      [low, high, sum] = [value[i], value[i], value[i]];
      continue;
    }
    [low, high, sum] = [lower, higher, sum + value[i]];
  }
  close(value.length);
  return found;
}

/** Quick changes from plateau to plateau. */
export function stepsBetween(plateaus: readonly Plateau[]): readonly TargetStep[] {
  const largest = plateaus.reduce((most, { level }) => max(most, abs(level)), 0);
  return plateaus.slice(1).flatMap((to, at): TargetStep[] => {
    const from = plateaus[at];
    const quick = to.from - from.to <= stepSeconds;
    if (!quick || abs(to.level - from.level) < stepShare * largest) return [];
    const window = { from: Math.max(from.from, from.to - before), to: Math.min(to.to, to.from + after) };
    return [{ window, begins: from.to, from, to }];
  });
}
