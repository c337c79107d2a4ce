import { servoCylinderParts, remotePrevalence, remoteSymptoms } from '../unit/parts-and-symptoms';
import { pullPicture } from './pull-picture';
import type { Kind } from '../../../contract/kind';
import { benchVacuum } from '../unit/bench-vacuum';
import { pullInput } from '../unit/control-valve';
import type { PlantCondition } from '../unit/faults';
import { servoCylinderModel } from './model';
import { prepareServo, type ServoUnit } from './servo';
import { servoCylinderFields, servoCylinderSchema, type ServoCylinderSpec } from './sheet';
import { servoCylinderSteps } from './steps';
import { servoCylinderDiagram } from './diagram';

/** Remote vacuum unit with reservoir, control unit and a servo cylinder that pulls a cam lever. */
export const servoCylinder: Kind<ServoCylinderSpec, ServoUnit, PlantCondition> = {
  family: 'vacuum-remote',
  value: 'servo-cylinder',
  title: 'Remote vacuum unit',
  description: 'Reservoir, control unit and a servo cylinder that pulls a cam lever',
  sheet: {
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
  },
  model: servoCylinderModel,
  parts: servoCylinderParts,
  diagram: servoCylinderDiagram,
  symptoms: remoteSymptoms,
  prevalence: remotePrevalence,
  plans: [
    {
      id: 'bench',
      title: 'Bench test',
      steps: servoCylinderSteps.map((step) => step.id),
      supply: { kind: 'vacuum', channel: 'supply_vacuum', at: benchVacuum },
      lever: { channel: 'input_pressure', maximum: (unit) => pullInput(unit, unit.ratedVacuum) * 1.1 },
      face: 'boost-curve',
      closing: ['vacuum-hold-rest', 'vacuum-hold-applied', 'pressure-hold', 'leak-look'],
      conclusions: [],
    },
  ],
  steps: servoCylinderSteps,
  curve: pullPicture,
};
