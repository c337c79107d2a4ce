import type { Family } from '../../contract/family';
import type { Kind } from '../../contract/kind';
import { saying } from '../../procedure/question';
import { servoPicture } from '../../toolboxes/servo/servo-curve';
import { servoSteps } from '../../toolboxes/servo/servo-steps';
import { weakSupply } from '../../toolboxes/electrical/weak-supply';
import { motorBoostBench } from './bench-stand';
import type { MotorBoostCondition } from './faults';
import { prepareMotorBoost, type MotorBoostUnit } from './geometry';
import { faultCodes } from './look-steps';
import { motorBoostModel } from './model';
import { release, stepResponse } from './response-steps';
import { motorBoostParts, motorBoostPrevalence, motorBoostSymptoms } from './parts-and-symptoms';
import { motorBoostRows } from './rows';
import { motorBoostFields, motorBoostSchema, type MotorBoostSpec } from './sheet';
import { motorServo, type Measured } from './step-parts';
import { drain, makeSafeAfter, makeSafeBefore, supplyCheck } from './supply-steps';
import { sensorTracks } from './track-step';
import { motorBoostDiagram } from './diagram';

const servo = servoSteps(motorServo);
const { unassistedCurve } = servo;

const assistCurve: Measured = {
  ...servo.assistCurve,
  analyse: (trace, context) => {
    const analysis = servo.assistCurve.analyse(trace, context);
    const { ratedVoltage } = context.unit;
    return saying(analysis, weakSupply(analysis.vacuum ?? ratedVoltage, ratedVoltage));
  },
};

const steps = [
  makeSafeBefore,
  supplyCheck,
  sensorTracks,
  unassistedCurve,
  assistCurve,
  stepResponse,
  release,
  drain,
  faultCodes,
  makeSafeAfter,
];

const kind: Kind<MotorBoostSpec, MotorBoostUnit, MotorBoostCondition> = {
  family: 'motor-boost',
  value: '',
  title: 'Motor booster',
  description: 'A motor on the push rod: the pedal stays coupled to the master cylinder, and works without power too',
  sheet: {
    schema: motorBoostSchema,
    fields: motorBoostFields,
    example: {
      name: 'Ostvale Works MB3',
      spec: motorBoostSchema.parse({
        cutInForceN: 70,
        servoRatio: 5.5,
        motorForceMaxN: 2600,
        strokeMm: 38,
        masterBoreMm: 23.8,
        pedalRatio: 3.6,
        sensorStrokeMm: 40,
        ratedVoltageV: 12,
        ratedCurrentA: 40,
      }),
    },
    prepare: prepareMotorBoost,
  },
  model: motorBoostModel,
  parts: motorBoostParts,
  diagram: motorBoostDiagram,
  symptoms: motorBoostSymptoms,
  prevalence: motorBoostPrevalence,
  plans: [
    {
      id: 'bench',
      title: 'Bench test',
      steps: steps.map((step) => step.id),
      ...motorBoostBench,
      face: 'assist-curve',
      closing: ['drain', 'fault-codes', 'make-safe-after'],
      conclusions: [],
    },
  ],
  steps,
  curve: servoPicture(motorServo),
};

/** Motor, gears and two-track sensor on the rod of a master cylinder. */
export const motorBoost: Family = {
  id: kind.family,
  title: kind.title,
  description: kind.description,
  toldBy: null,
  kinds: [kind],
  rows: motorBoostRows,
};
