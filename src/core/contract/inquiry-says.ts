import type { CharacteristicId } from '../quantities/characteristics';
import type { InquiryStep } from './plan';

/** What an inquiry knows of its steps, by their names. */
export type InquirySteps = ReadonlyMap<string, InquiryStep>;

const feltOf = (steps: InquirySteps, id: string) => steps.get(id)?.felt?.says;

/** A step failed, or was felt to. */
export const failed = (steps: InquirySteps, id: string): boolean =>
  steps.get(id)?.verdict === 'fail' || feltOf(steps, id) === 'short' || feltOf(steps, id) === 'fault';

/** A figure of a step fell short of its limit, or was felt to. */
export const fellShort = (steps: InquirySteps, id: string, characteristic: CharacteristicId): boolean =>
  (steps.get(id)?.short.includes(characteristic) ?? false) || feltOf(steps, id) === 'short';

/** A step passed, has no limit and was recorded, or was felt to be as it should. */
export function good(steps: InquirySteps, id: string): boolean {
  const verdict = steps.get(id)?.verdict;
  return verdict === 'pass' || verdict === 'recorded' || feltOf(steps, id) === 'sound';
}

/** A point of a look was found so. */
export const found = (steps: InquirySteps, step: string, point: string, option: string): boolean =>
  steps.get(step)?.findings[point] === option;
