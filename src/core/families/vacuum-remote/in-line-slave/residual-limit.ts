import { limitFrom } from '../../../procedure/limit';
import type { StepContext } from '../../../procedure/step-context';
import type { InLineUnit } from './geometry';

/** Output (Pa gauge) that may stay after release, with where the figure comes from. */
export function residualLimit({ unit: { spec }, workshopLimits: shop }: StepContext<InLineUnit>) {
  return limitFrom(
    { field: 'residualMaxKpa', value: spec.residualMaxKpa === undefined ? undefined : spec.residualMaxKpa * 1e3 },
    { key: 'residual', value: shop.residual },
  );
}
