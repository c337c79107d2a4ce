import type { StepDefinition } from '../../procedure/step-definition';
import type { PedalValveUnit } from './geometry';
import { store } from './step-parts';
import { charging } from './charging-step';
import { modulationCurve } from './modulation-step';
import { stepResponse, residual } from './response-steps';
import { neutralLeak, parkingRelease } from './leak-and-parking-steps';

export const pedalValveSteps: readonly StepDefinition<PedalValveUnit>[] = [
  store.makeDeadBefore,
  charging,
  modulationCurve,
  stepResponse,
  residual,
  neutralLeak,
  store.applications,
  parkingRelease,
  store.makeDeadAfter,
];
