import type { VehicleBrakes } from '../../calculators/brake-force';
import { brakesFromSpec } from '../../toolboxes/foundation/brakes-from-spec';
import type { BlendedSpec } from './sheet';

/** A vehicle that brakes with motor and friction together, SI; shares are of the largest torque that was requested. */
export interface BlendedUnit {
  readonly spec: BlendedSpec;
  readonly vehicle: VehicleBrakes;
  /** Whether a charged store feeds the wheels. */
  readonly stored: boolean;
  /** m/s */
  readonly handoverHigh: number;
  readonly handoverLow: number;
  /** Rate of the pedal's travel from which it is a panic, m/s, and the longest that may pass until it is answered, s. */
  readonly panicRate: number;
  readonly panicDelayMost: number;
  /** Of the battery, as a share. */
  readonly regenLimitCharge: number;
  readonly closureBiasMost: number;
  readonly closureRmsMost: number;
  readonly closureWorstMost: number;
  readonly handoverDipMost: number;
  readonly unfilledMost: number;
  readonly frictionGainLeast: number;
  /** Pa */
  readonly storeMarginLeast: number;
  readonly masterDifferenceMost: number;
  /** s */
  readonly switchDifferenceMost: number;
}

const kilometresPerHour = 1 / 3.6;

/** SI form of a validated sheet. */
export function prepareBlended(spec: BlendedSpec): BlendedUnit {
  return {
    spec,
    vehicle: brakesFromSpec(spec),
    stored: spec.pressureSource === 'accumulator',
    handoverHigh: spec.handoverHighKmh * kilometresPerHour,
    handoverLow: spec.handoverLowKmh * kilometresPerHour,
    panicRate: spec.panicStrokeRateMmPerS * 1e-3,
    panicDelayMost: spec.panicDelayMaxS,
    regenLimitCharge: spec.regenLimitChargePercent / 100,
    closureBiasMost: spec.closureBiasMaxPercent / 100,
    closureRmsMost: spec.closureRmsMaxPercent / 100,
    closureWorstMost: spec.closureWorstMaxPercent / 100,
    handoverDipMost: spec.handoverDipMaxPercent / 100,
    unfilledMost: spec.unfilledMaxPercent / 100,
    frictionGainLeast: spec.frictionGainMin,
    storeMarginLeast: spec.storeMarginMinKpa * 1e3,
    masterDifferenceMost: spec.masterDifferenceMaxKpa * 1e3,
    switchDifferenceMost: spec.switchDifferenceMaxS,
  };
}
