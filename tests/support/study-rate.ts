import { liveFeed, type MeasuredStep } from '@/core/procedure/step-definition';

/** Samples a second that studies of many runs can do with, Hz. */
const ordinary = 100;

/** Rate at which a study records a step: no slower than its analysis needs, no faster than its guide wants. */
export function studyRate(step: MeasuredStep<unknown>): number {
  return Math.min(Math.max(ordinary, step.feeds.log.leastRate ?? 0), liveFeed(step).rate ?? Infinity);
}
