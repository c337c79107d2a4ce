import { atMost, limitFrom } from '../../procedure/limit';
import type { MeasuredStep } from '../../procedure/step-definition';
import type { StoredPressureUnit } from './geometry';
import { store } from './step-parts';

type Measured = MeasuredStep<StoredPressureUnit>;

/** Time that the stand-in watches a soak, s. */
export const soakSeconds = 2 * 3600;

/** The levelling shut off, a sound circuit 2 loses only its own. */
const levellingLimit = ({ unit, workshopLimits }: Parameters<Measured['limits']>[1]) =>
  atMost(
    'levelling-leak-flow',
    limitFrom(
      {
        field: 'levellingLeakMaxCm3PerMin',
        value:
          unit.spec.levellingLeakMaxCm3PerMin === undefined
            ? undefined
            : (unit.spec.levellingLeakMaxCm3PerMin * 1e-6) / 60,
      },
      { key: 'internalLeakFactor', value: workshopLimits.internalLeakFactor * unit.levellingLeak },
    ),
    { expected: unit.levellingLeak },
  );

const isolated = store.soak('soak-isolated', soakSeconds);

export const soakIsolated: Measured = {
  ...isolated,
  optional: false,
  limits: (analysis, context) => [
    ...isolated.limits(analysis, context),
    ...(analysis.characteristics.some((each) => each.id === 'levelling-leak-flow' && each.kind === 'measured')
      ? [levellingLimit(context)]
      : []),
  ],
};
