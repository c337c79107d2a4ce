import type { Family } from '../../contract/family';
import type { Kind } from '../../contract/kind';
import { basePair } from './base-pair-step';
import { combinationValve } from './combination-valve-step';
import { foundationConclusions } from './conclusions';
import { foundationDiagram } from './diagram';
import { failedAssist } from './failed-assist-step';
import type { FoundationCondition } from './faults';
import { prepareFoundation, type FoundationUnit } from './geometry';
import { bleed, complaint, fluidLook, hoseLook, parkingBrake, redLamp, seizedCheck } from './look-steps';
import { foundationModel } from './model';
import { foundationParts, foundationPrevalence, foundationSymptoms } from './parts-and-symptoms';
import { proportioning, proportioningCurve } from './proportioning-step';
import { foundationFamilyRows } from './rows';
import { foundationFields, foundationSchema, type FoundationSpec } from './sheet';
import { stopLampAdjust } from './stop-lamp-step';
import { foundationVehicle } from './vehicle-stand';

const steps = [
  complaint,
  fluidLook,
  basePair,
  proportioning,
  combinationValve,
  seizedCheck,
  hoseLook,
  stopLampAdjust,
  redLamp,
  parkingBrake,
  failedAssist,
  bleed,
];

const kind: Kind<FoundationSpec, FoundationUnit, FoundationCondition> = {
  family: 'foundation',
  value: '',
  title: 'Behind the unit',
  description: 'Master cylinder, valves, wheels, lamps and parking brake of a vehicle, looked through in order',
  sheet: {
    schema: foundationSchema,
    fields: foundationFields,
    example: {
      name: 'Ullerby crew minibus',
      spec: foundationSchema.parse({
        category: 'light',
        masterBoreMm: 23.8,
        pedalRatio: 4,
        splitPressureKpa: 2500,
        rearSlope: 0.4,
        frictionCoefficientFront: 0.38,
        pistonAreaFrontMm2: 2290,
        effectiveRadiusFrontMm: 115,
        frictionCoefficientRear: 0.38,
        pistonAreaRearMm2: 900,
        effectiveRadiusRearMm: 110,
        tyreRadiusMm: 300,
        massKg: 1600,
        displacedVolumeCm3: 9,
        pedalTravelMaxMm: 110,
      }),
    },
    prepare: prepareFoundation,
  },
  model: foundationModel,
  parts: foundationParts,
  diagram: foundationDiagram,
  symptoms: foundationSymptoms,
  prevalence: foundationPrevalence,
  plans: [
    {
      id: 'vehicle',
      title: 'Behind the unit, on the vehicle',
      steps: steps.map((step) => step.id),
      ...foundationVehicle,
      face: proportioning.id,
      closing: ['bleed', 'failed-assist-stop'],
      conclusions: foundationConclusions,
    },
  ],
  steps,
  curve: proportioningCurve,
};

/** What sits behind the unit: no unit of its own, but where many a bad booster is found. */
export const foundation: Family = {
  id: kind.family,
  title: kind.title,
  description: kind.description,
  toldBy: null,
  kinds: [kind],
  rows: foundationFamilyRows,
};
