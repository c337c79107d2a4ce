import type { Family } from '../../../contract/family';
import { benchVacuum } from '../unit/bench-vacuum';
import { pullInput } from '../unit/control-valve';
import { outputTolerance } from '../boost-curve/boost-curve-limits';
import { servoCylinderFaults } from './faults';
import { servoCylinderPlant } from './plant';
import { expectedPull, forceBand, prepareServo, type ServoUnit } from './servo';
import { servoCylinderFields, servoCylinderSchema, type ServoCylinderSpec } from './sheet';
import { servoCylinderSteps } from './steps';

const tolerance = (unit: ServoUnit, shop: Parameters<typeof outputTolerance>[2]) =>
  outputTolerance('servoForceTolerancePercent', unit.spec.servoForceTolerancePercent, shop).value;

/** Remote vacuum unit with reservoir, control unit and a servo cylinder that pulls a cam lever. */
export const servoCylinder: Family<ServoCylinderSpec, ServoUnit> = {
  id: 'vacuum-remote',
  title: 'Remote vacuum unit',
  description: 'Reservoir, control unit and a servo cylinder that pulls a cam lever',
  schema: servoCylinderSchema,
  fields: servoCylinderFields,
  example: {
    name: 'Tarnock S11',
    spec: servoCylinderSchema.parse({
      layout: 'servo-cylinder',
      powerPistonDiameterMm: 203,
      cutInPressureKpa: 420,
      controlAreaRatio: 0.036,
      returnSpringForceN: 210,
      hysteresisKpa: 130,
      ratedVacuumKpa: 60,
      referenceInputKpa: 1800,
      shellVolumeCm3: 4600,
      appliedVolumeCm3: 1900,
      reservoirVolumeCm3: 9000,
      switchCloseMinKpa: 250,
      switchCloseMaxKpa: 600,
    }),
  },
  prepare: prepareServo,
  plans: [
    {
      id: 'bench',
      title: 'Bench test',
      steps: servoCylinderSteps.map((step) => step.id),
      stand: {
        leverChannel: 'input_pressure',
        leverMaximum: (unit) => pullInput(unit, unit.ratedVacuum) * 1.1,
        supply: benchVacuum,
        plant: servoCylinderPlant,
      },
      decisiveStep: 'boost-curve',
      conclusions: [],
    },
  ],
  steps: servoCylinderSteps,
  faults: servoCylinderFaults,
  curve: { input: 'input_pressure', output: 'rod_force' },
  fedBy: 'vacuum',
  expectedCurve: (unit, vacuum, { workshopLimits }) => expectedPull(unit, vacuum, tolerance(unit, workshopLimits)),
  expectedBand: (unit, input, vacuum, { workshopLimits }) =>
    forceBand(unit, { input, vacuum }, { tolerance: tolerance(unit, workshopLimits), upper: 'apply' }),
};
