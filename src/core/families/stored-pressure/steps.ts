import type { StepDefinition } from '../../procedure/step-definition';
import type { StoredPressureCondition } from './faults';
import type { StoredPressureUnit } from './geometry';
import { store } from './step-parts';
import { walkRound } from './look-steps';
import { rideHeight } from './ride-height-step';
import { spherePrecharge } from './sphere-precharge-step';
import { bump, meteringCurve } from './brake-steps';
import { soakSeconds, soakIsolated } from './soak-steps';

export const storedPressureSteps: readonly StepDefinition<StoredPressureUnit, StoredPressureCondition>[] = [
  store.makeDeadBefore,
  walkRound,
  rideHeight,
  store.charge,
  store.pumpSwitch,
  store.restCycle,
  store.applications,
  store.soak('soak', soakSeconds),
  soakIsolated,
  spherePrecharge,
  bump,
  meteringCurve,
  store.makeDeadAfter,
];
