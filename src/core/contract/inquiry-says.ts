import type { InquiryStep } from './plan';

/** What an inquiry knows of its steps, by their names. */
export type InquirySteps = ReadonlyMap<string, InquiryStep>;

/** A step failed. */
export const failed = (steps: InquirySteps, id: string): boolean => steps.get(id)?.verdict === 'fail';

/** A step passed, or has no limit and was recorded. */
export function good(steps: InquirySteps, id: string): boolean {
  const verdict = steps.get(id)?.verdict;
  return verdict === 'pass' || verdict === 'recorded';
}

/** A point of a look was found so. */
export const found = (steps: InquirySteps, step: string, point: string, option: string): boolean =>
  steps.get(step)?.findings[point] === option;
