import type { Limit } from '../../procedure/limit';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { CharacteristicId } from '../../quantities/characteristics';
import type { BlendedSpec } from './sheet';

/**
 * A limit that the sheet gives as a share of the largest torque that was requested (N·m, carried by the analysis). Where nobody knows that,
 * nobody knows the limit.
 */
export function shareOfLargest(
  characteristic: CharacteristicId,
  { largestRequest }: StepAnalysis,
  share: number,
  field: keyof BlendedSpec & string,
  bothWays: 'both-ways' | 'at-most' = 'at-most',
): Limit {
  const most = largestRequest === undefined ? null : share * largestRequest;
  return {
    characteristic,
    low: bothWays === 'both-ways' && most !== null ? -most : null,
    high: most,
    expected: 0,
    standard: 0,
    source: { kind: 'sheet', field },
    ...(most === null ? { withheld: { code: 'largest-not-known' } as const } : {}),
  };
}
