import { servoSteps } from '../../toolboxes/servo/servo-steps';
import type { StepDefinition } from '../../procedure/step-definition';
import type { HydraulicBoostUnit } from './geometry';
import { hydraulicServo } from './step-parts';
import { fluidLook, hoseLook, leakLook, bleed } from './look-steps';
import { pumpRelief, returnPressure, steeringShare } from './pump-steps';
import { offDrop, reserve, reserveSoak } from './reserve-steps';

const { assistCurve } = servoSteps(hydraulicServo);

export const hydraulicBoostSteps: readonly StepDefinition<HydraulicBoostUnit>[] = [
  fluidLook,
  hoseLook,
  offDrop,
  pumpRelief,
  assistCurve,
  reserve,
  reserveSoak,
  returnPressure,
  steeringShare,
  leakLook,
  bleed,
];
