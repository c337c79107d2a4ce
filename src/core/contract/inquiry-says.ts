import type { CharacteristicId } from '../quantities/characteristics';
import type { InquiryStep } from './plan';

/** What an inquiry knows of its steps, by their names. */
export type InquirySteps = ReadonlyMap<string, InquiryStep>;

/** A step failed. */
export const failed = (steps: InquirySteps, id: string): boolean => steps.get(id)?.verdict === 'fail';

/** A figure of a step fell short of its limit. */
export const fellShort = (steps: InquirySteps, id: string, characteristic: CharacteristicId): boolean =>
  steps.get(id)?.short.includes(characteristic) ?? false;

/** A step passed, or has no limit and was recorded. */
export function good(steps: InquirySteps, id: string): boolean {
  const verdict = steps.get(id)?.verdict;
  return verdict === 'pass' || verdict === 'recorded';
}

/** A point of a look was found so. */
export const found = (steps: InquirySteps, step: string, point: string, option: string): boolean =>
  steps.get(step)?.findings[point] === option;
