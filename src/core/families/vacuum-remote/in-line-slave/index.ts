import { inLineSlaveParts, remotePrevalence, remoteSymptoms } from '../unit/parts-and-symptoms';
import { boostPicture } from './boost-picture';
import type { Kind } from '../../../contract/kind';
import { benchVacuum } from '../unit/bench-vacuum';
import type { PlantCondition } from '../unit/faults';
import { inLineSlaveModel } from './model';
import { prepareInLine, type InLineUnit } from './geometry';
import { pullInput } from '../unit/control-valve';
import { outputAt } from './quasi-static';
import { inLineFields, inLineSchema, type InLineSpec } from '../unit/sheet';
import { vacuumRemoteSteps } from './steps';
import { inLineSlaveDiagram } from './diagram';

/** Remote vacuum unit whose slave piston stands in the brake line. */
export const inLineSlave: Kind<InLineSpec, InLineUnit, PlantCondition> = {
  family: 'vacuum-remote',
  value: 'in-line-slave',
  title: 'Remote vacuum unit',
  description: 'A vacuum servo in the hydraulic line between master cylinder and wheels',
  sheet: {
    schema: inLineSchema,
    fields: inLineFields,
    example: {
      name: 'Tarnock R7',
      spec: inLineSchema.parse({
        powerPistonDiameterMm: 178,
        slaveBoreMm: 25.4,
        pushRodDiameterMm: 10,
        cutInPressureKpa: 350,
        controlAreaRatio: 0.042,
        returnSpringForceN: 180,
        hysteresisKpa: 110,
        ratedVacuumKpa: 60,
        referenceInputKpa: 1700,
        shellVolumeCm3: 3400,
        appliedVolumeCm3: 1300,
        switchCloseMinKpa: 250,
        switchCloseMaxKpa: 600,
      }),
    },
    prepare: prepareInLine,
  },
  model: inLineSlaveModel,
  parts: inLineSlaveParts,
  diagram: inLineSlaveDiagram,
  symptoms: remoteSymptoms,
  prevalence: remotePrevalence,
  plans: [
    {
      id: 'bench',
      title: 'Bench test',
      steps: vacuumRemoteSteps.map((step) => step.id),
      supply: { kind: 'vacuum', channel: 'supply_vacuum', at: benchVacuum },
      // The lever must reach the boost curve's end and, with no assist, the gauge comparison's top.
      lever: {
        channel: 'input_pressure',
        maximum: (unit) => outputAt(unit, pullInput(unit, unit.ratedVacuum), unit.ratedVacuum) * 1.05,
      },
      face: 'boost-curve',
      closing: ['vacuum-hold-rest', 'vacuum-hold-applied', 'pressure-hold', 'leak-look'],
      conclusions: [],
    },
  ],
  steps: vacuumRemoteSteps,
  curve: boostPicture,
};
