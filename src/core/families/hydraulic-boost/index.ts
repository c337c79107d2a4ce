import { hydraulicParts, hydraulicPrevalence, hydraulicSymptoms } from './parts-and-symptoms';
import { hydraulicBoostRows } from './rows';
import { servoPicture } from '../../toolboxes/servo/servo-curve';
import type { Family } from '../../contract/family';
import type { StepVerdict } from '../../vocabulary/verdict';
import type { Kind } from '../../contract/kind';
import type { HydraulicBoostCondition } from './faults';
import { hydraulicBoostModel } from './model';
import { prepareHydraulicBoost, type HydraulicBoostUnit } from './geometry';
import { hydraulicBoostFields, hydraulicBoostSchema, type HydraulicBoostSpec } from './sheet';
import { hydraulicServo } from './step-parts';
import { hydraulicBoostSteps } from './steps';
import { hydraulicBoostVehicle } from './vehicle-stand';
import { hydraulicDiagram } from './diagram';

/** Steps that clear the booster when all of them are good. */
const boosterSteps = ['pump-relief', 'assist-curve', 'reserve', 'reserve-soak', 'return-pressure'] as const;
const good = (verdict: StepVerdict | undefined) => verdict === 'pass' || verdict === 'recorded';

const kind: Kind<HydraulicBoostSpec, HydraulicBoostUnit, HydraulicBoostCondition> = {
  family: 'hydraulic-boost',
  value: '',
  title: 'Steering-pump booster',
  description: 'A booster in the line between steering pump and steering gear, with a reserve accumulator',
  sheet: {
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
  },
  model: hydraulicBoostModel,
  parts: hydraulicParts,
  diagram: hydraulicDiagram,
  symptoms: hydraulicSymptoms,
  prevalence: hydraulicPrevalence,
  plans: [
    {
      id: 'vehicle',
      title: 'On the vehicle',
      steps: hydraulicBoostSteps.map((step) => step.id),
      ...hydraulicBoostVehicle,
      face: 'assist-curve',
      closing: ['leak-look', 'bleed'],
      conclusions: [
        {
          id: 'not-the-booster',
          clears: true,
          handsTo: 'foundation',
          title: 'It is not the booster',
          advice:
            'Pump, boost, reserve and return are good. Look behind it: combination valve, wheels, hoses, linings.',
          faults: [],
          holds: (steps) => boosterSteps.every((id) => good(steps.get(id)?.verdict)),
        },
      ],
    },
  ],
  steps: hydraulicBoostSteps,
  curve: servoPicture(hydraulicServo),
};

/** Booster fed by the steering pump, with a small reserve accumulator. */
export const hydraulicBoost: Family = {
  id: kind.family,
  title: kind.title,
  description: kind.description,
  toldBy: null,
  kinds: [kind],
  rows: hydraulicBoostRows,
};
