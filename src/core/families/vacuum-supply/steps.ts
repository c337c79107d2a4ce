import type { StepDefinition } from '../../procedure/step-definition';
import type { VacuumSupplyUnit } from './geometry';
import { lookOver } from './look-step';
import { pumpDown, pumpSwitch } from './pump-steps';
import { checkValve, restLeak } from './reservoir-steps';
import { demand, sourceVacuum } from './source-steps';

export const vacuumSupplySteps: readonly StepDefinition<VacuumSupplyUnit>[] = [
  lookOver,
  sourceVacuum,
  pumpDown,
  pumpSwitch,
  restLeak,
  demand,
  checkValve,
];
