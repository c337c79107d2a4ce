import { servoCurve } from '../../toolboxes/servo/servo-curve';
import { servoBand } from '../../toolboxes/servo/pressure-servo';
import type { Family } from '../../contract/family';
import { hydraulicBoostFaults } from './faults';
import { prepareHydraulicBoost, type HydraulicBoostUnit } from './geometry';
import { hydraulicBoostFields, hydraulicBoostSchema, type HydraulicBoostSpec } from './sheet';
import { hydraulicServo } from './step-parts';
import { hydraulicBoostSteps } from './steps';
import { hydraulicBoostVehicle } from './vehicle-stand';

/** Booster fed by the steering pump, with a small reserve accumulator. */
export const hydraulicBoost: Family<HydraulicBoostSpec, HydraulicBoostUnit> = {
  id: 'hydraulic-boost',
  title: 'Steering-pump booster',
  description: 'A booster in the line between steering pump and steering gear, with a reserve accumulator',
  schema: hydraulicBoostSchema,
  fields: hydraulicBoostFields,
  example: {
    name: 'Ullerby HB70',
    spec: hydraulicBoostSchema.parse({
      reliefKpa: 9000,
      pumpFlowLPerMin: 7,
      hoseRatingKpa: 14_000,
      boostPistonAreaMm2: 620,
      servoRatio: 6,
      cutInForceN: 100,
      jumpInForceN: 300,
      masterBoreMm: 31.75,
      pedalRatio: 4,
      reserveVolumeCm3: 75,
      reservePrechargeKpa: 3500,
      reserveChargedKpa: 7500,
      fluidPerApplicationCm3: 15,
    }),
  },
  prepare: prepareHydraulicBoost,
  plans: [
    {
      id: 'vehicle',
      title: 'On the vehicle',
      steps: hydraulicBoostSteps.map((step) => step.id),
      stand: hydraulicBoostVehicle,
      decisiveStep: 'assist-curve',
      conclusions: [],
    },
  ],
  steps: hydraulicBoostSteps,
  faults: hydraulicBoostFaults,
  curve: { input: 'pedal_force', output: 'output_pressure' },
  fedBy: 'pressure',
  expectedCurve: (unit, supply, { workshopLimits }) => servoCurve(hydraulicServo, unit, supply, workshopLimits),
  expectedBand: (unit, lever, pressure, { workshopLimits }) =>
    servoBand(hydraulicServo, unit, { lever, pressure }, workshopLimits),
};
