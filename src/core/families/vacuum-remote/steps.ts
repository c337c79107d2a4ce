import type { StepDefinition } from '../step-definition';
import { boostCurve } from './boost-curve-step';
import type { VacuumRemoteUnit } from './geometry';
import { gaugeAgreement, lowPressureHold, pressureHold, release, stopLampSwitch } from './hydraulic-steps';
import { leakLook, lookOver } from './look-steps';
import { vacuumDraw, vacuumHoldApplied, vacuumHoldRest } from './vacuum-steps';

/** Bench order, and it is that order: nothing boosted before the gauges are known and the seals have held. */
export const vacuumRemoteSteps: readonly StepDefinition<VacuumRemoteUnit>[] = [
  lookOver,
  stopLampSwitch,
  gaugeAgreement,
  lowPressureHold,
  vacuumDraw,
  vacuumHoldRest,
  boostCurve,
  vacuumHoldApplied,
  pressureHold,
  leakLook,
  release,
];
