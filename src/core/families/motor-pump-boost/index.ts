import { motorPumpParts, motorPumpPrevalence, motorPumpSymptoms } from './parts-and-symptoms';
import { goneNow, goneOnce } from '../../procedure/interlock';
import { motorPumpBoostRows } from './rows';
import type { Family } from '../../contract/family';
import type { Kind } from '../../contract/kind';
import { servoSteps } from '../../toolboxes/servo/servo-steps';
import type { ServoSetup } from '../../toolboxes/servo/pressure-servo';
import { chargePicture } from '../../toolboxes/store/model/charge-curve';
import { storeSteps } from '../../toolboxes/store/steps/store-steps';
import { motorPumpBench } from './bench-stand';
import { supplyCheck } from './electrical-step';
import type { MotorPumpCondition } from './faults';
import { motorPumpModel } from './model';
import { assistForce, prepareMotorPump, type MotorPumpUnit } from './geometry';
import { fluidLook, leakLook } from './look-steps';
import { motorPumpFields, motorPumpSchema, type MotorPumpSpec } from './sheet';
import { motorPumpDiagram } from './diagram';

const lever = 'rod_force';

const store = storeSteps<MotorPumpUnit>({
  circuits: [
    {
      suffix: '',
      place: '',
      title: 'Store',
      pressure: 'accumulator_pressure',
      pump: 'pump_on',
      lamp: 'lamp_red',
      storeOf: (unit) => unit.store,
    },
  ],
  lever,
  strokeLevel: ({ unit }) => unit.strokeForce,
  live: { power: 1 },
  driven: 'motor',
  cautions: [],
  alarm: 'lamp-pressure',
});

const servo: ServoSetup<MotorPumpUnit> = {
  lever,
  leverage: () => 1,
  feed: 'accumulator_pressure',
  feedShows: 'supply',
  supply: ({ unit }) => unit.store.cutOut * 0.96,
  assist: assistForce,
  controls: { power: 1 },
  startsFrom: 'charged',
  cautions: ['wakes-by-itself'],
  guards: { powered: goneOnce('pressure'), unpowered: goneNow('pressure'), brings: ['pressure'] },
};
const { assistCurve, unassistedCurve } = servoSteps(servo);

const steps = [
  store.makeDeadBefore,
  fluidLook,
  supplyCheck,
  store.charge,
  store.bleedDown,
  store.pumpSwitch,
  store.restCycle,
  store.applications,
  assistCurve,
  unassistedCurve,
  leakLook,
  store.makeDeadAfter,
];

const kind: Kind<MotorPumpSpec, MotorPumpUnit, MotorPumpCondition> = {
  family: 'motor-pump-boost',
  value: '',
  title: 'Motor-pump unit',
  description: 'An electric pump and a gas accumulator that boost the master cylinder they sit on',
  sheet: {
    schema: motorPumpSchema,
    fields: motorPumpFields,
    example: {
      name: 'Tarnock M18',
      spec: motorPumpSchema.parse({
        accumulatorVolumeCm3: 250,
        prechargeKpa: 8000,
        cutInKpa: 14_000,
        cutOutKpa: 18_000,
        lampKpa: 10_500,
        leastUsefulKpa: 9500,
        pumpFlowCm3PerS: 6,
        fluidPerApplicationCm3: 6,
        internalLeakCm3PerMin: 6,
        boostPistonAreaMm2: 300,
        servoRatio: 5,
        cutInForceN: 90,
        jumpInForceN: 250,
        masterBoreMm: 25.4,
        pedalRatio: 3.5,
        ratedVoltageV: 12,
        ratedCurrentA: 38,
        restTimeMinS: 120,
        chargeTimeMaxS: 45,
      }),
    },
    prepare: prepareMotorPump,
  },
  model: motorPumpModel,
  parts: motorPumpParts,
  diagram: motorPumpDiagram,
  symptoms: motorPumpSymptoms,
  prevalence: motorPumpPrevalence,
  plans: [
    {
      id: 'bench',
      title: 'Bench test',
      steps: steps.map((step) => step.id),
      ...motorPumpBench,
      face: 'charge-from-empty',
      closing: ['leak-look', 'make-dead-after'],
      conclusions: [],
    },
  ],
  steps,
  curve: chargePicture('accumulator_pressure', (unit) => unit.store),
};

/** Electric motor and pump, accumulator, switch, booster and master cylinder in one casting. */
export const motorPumpBoost: Family = {
  id: kind.family,
  title: kind.title,
  description: kind.description,
  toldBy: null,
  kinds: [kind],
  rows: motorPumpBoostRows,
};
