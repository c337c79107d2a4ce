import { pedalValveParts, pedalValvePrevalence, pedalValveSymptoms } from './parts-and-symptoms';
import { pedalValveRows } from './rows';
import type { Family } from '../../contract/family';
import type { Kind } from '../../contract/kind';
import { pedalValveBench } from './bench-stand';
import type { PedalValveCondition } from './faults';
import { pedalValveModel } from './model';
import { preparePedalValve, type PedalValveUnit } from './geometry';
import { pedalValveFields, pedalValveSchema, type PedalValveSpec } from './sheet';
import { modulationPicture } from './modulation-step';
import { pedalValveSteps } from './steps';
import { pedalValveDiagram } from './diagram';

const kind: Kind<PedalValveSpec, PedalValveUnit, PedalValveCondition> = {
  family: 'pedal-valve',
  value: '',
  title: 'Pedal valve',
  description: 'Two pressure-reducing spools under a pedal, fed by a charging valve and two accumulators',
  sheet: {
    schema: pedalValveSchema,
    fields: pedalValveFields,
    example: {
      name: 'Ostvale Works DV2 valve',
      spec: pedalValveSchema.parse({
        accumulatorVolumeCm3: 1400,
        prechargeKpa: 5500,
        cutInKpa: 11_500,
        cutOutKpa: 14_500,
        lampKpa: 8500,
        leastUsefulKpa: 7000,
        pumpFlowCm3PerS: 60,
        fluidPerApplicationCm3: 60,
        internalLeakCm3PerMin: 20,
        modulationKpaPerDegree: 520,
        cutInTravelDegrees: 3.2,
        regulatedMaximumKpa: 6800,
        parkingReleaseKpa: 3200,
      }),
    },
    prepare: preparePedalValve,
  },
  model: pedalValveModel,
  parts: pedalValveParts,
  diagram: pedalValveDiagram,
  symptoms: pedalValveSymptoms,
  prevalence: pedalValvePrevalence,
  plans: [
    {
      id: 'bench',
      title: 'Bench test',
      steps: pedalValveSteps.map((step) => step.id),
      ...pedalValveBench,
      face: 'modulation-curve',
      closing: ['neutral-leak', 'make-dead-after'],
      conclusions: [],
    },
  ],
  steps: pedalValveSteps,
  curve: modulationPicture,
};

/** Dual modulating pedal valve of loaders, graders and snow blowers. */
export const pedalValve: Family = {
  id: kind.family,
  title: kind.title,
  description: kind.description,
  toldBy: null,
  kinds: [kind],
  rows: pedalValveRows,
};
