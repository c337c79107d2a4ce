import { storedParts, storedPrevalence, storedSymptoms } from './parts-and-symptoms';
import { storedPressureRows } from './rows';
import { chargePicture } from '../../toolboxes/store/model/charge-curve';
import type { Family } from '../../contract/family';
import type { Kind } from '../../contract/kind';
import type { StoredPressureCondition } from './faults';
import { storedPressureModel } from './model';
import { prepareStoredPressure, type StoredPressureUnit } from './geometry';
import { storedPressureFields, storedPressureSchema, type StoredPressureSpec } from './sheet';
import { storedPressureSteps } from './steps';
import { storedPressureVehicle } from './vehicle-stand';
import { storedDiagram } from './diagram';

const kind: Kind<StoredPressureSpec, StoredPressureUnit, StoredPressureCondition> = {
  family: 'stored-pressure',
  value: '',
  title: 'Central stored pressure',
  description: 'Two engine-driven pumps with a sphere each, metering valves at the pedal, levelling on one circuit',
  sheet: {
    schema: storedPressureSchema,
    fields: storedPressureFields,
    example: {
      name: 'Ullerby Glacier central system',
      spec: storedPressureSchema.parse({
        accumulatorVolumeCm3: 450,
        prechargeKpa: 6200,
        cutInKpa: 13_500,
        cutOutKpa: 16_500,
        lampKpa: 9500,
        leastUsefulKpa: 8000,
        pumpFlowCm3PerS: 14,
        fluidPerApplicationCm3: 12,
        internalLeakCm3PerMin: 1.5,
        levellingLeakCm3PerMin: 1,
        restTimeMinS: 240,
        meteringSlopeKpaPerN: 55,
        cutInForceN: 25,
        regulatedMaximumKpa: 11_000,
        halfLifeMinH: 0.5,
      }),
    },
    prepare: prepareStoredPressure,
  },
  model: storedPressureModel,
  parts: storedParts,
  diagram: storedDiagram,
  symptoms: storedSymptoms,
  prevalence: storedPrevalence,
  plans: [
    {
      id: 'vehicle',
      title: 'On the vehicle',
      steps: storedPressureSteps.map((step) => step.id),
      ...storedPressureVehicle,
      face: 'charge-from-empty',
      closing: ['rest-cycle', 'make-dead-after'],
      conclusions: [],
    },
  ],
  steps: storedPressureSteps,
  curve: chargePicture('accumulator_pressure', (unit) => unit.first),
};

/** Central dual-circuit stored pressure with levelling, as in excursion coaches. */
export const storedPressure: Family = {
  id: kind.family,
  title: kind.title,
  description: kind.description,
  toldBy: null,
  kinds: [kind],
  rows: storedPressureRows,
};
