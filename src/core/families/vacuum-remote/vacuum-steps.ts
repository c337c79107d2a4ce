import { vacuumUnitSteps } from '../common/vacuum-unit-steps';
import type { VacuumRemoteUnit } from './geometry';
import { appliedInput, pullAndShut, supplyOn, vacuumNow } from './step-parts';

const steps = vacuumUnitSteps<VacuumRemoteUnit>({
  supplyVacuum: vacuumNow,
  leverChannel: 'input_pressure',
  appliedLevel: appliedInput,
  apply: (level) => pullAndShut(level, 4, supplyOn),
  withControlPort: true,
  holdWhy: {
    rest: 'With the source shut the whole shell must keep its vacuum: finds the atmosphere valve and the shell.',
    applied: 'With the atmosphere valve open and the vacuum valve shut: finds the diaphragm and the vacuum valve.',
  },
  appliedCautions: ['fluid-jet'],
});

export const vacuumDraw = steps.draw;
export const vacuumHoldRest = steps.holdAtRest;
export const vacuumHoldApplied = steps.holdApplied;
