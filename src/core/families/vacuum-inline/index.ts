import { inlineParts, inlinePrevalence, inlineSymptoms } from './parts-and-symptoms';
import { vacuumInlineRows } from './rows';
import type { Family } from '../../contract/family';
import type { Kind } from '../../contract/kind';
import {
  assistCurve,
  release,
  unassistedCurve,
  vacuumDraw,
  vacuumHoldApplied,
  vacuumHoldRest,
} from './steps/bench-steps';
import { inlineBench } from './unit/bench-stand';
import { hardPedalConclusions } from './steps/conclusions';
import type { InlineCondition } from './unit/faults';
import { vacuumInlineModel } from './model';
import { prepareVacuumInline, type VacuumInlineUnit } from './unit/geometry';
import { behindTheBooster, complaint, hoseLook, lookOver } from './steps/look-steps';
import { assistPicture } from './unit/assist-picture';
import { rodGap } from './steps/rod-gap-step';
import { checkValve, reserve } from './steps/shared-steps';
import { vacuumInlineFields, vacuumInlineSchema, type VacuumInlineSpec } from './unit/sheet';
import { pedalDrop, reserveSoak, sameForcePair, sourceVacuum } from './steps/vehicle-steps';
import { inlineVehicle } from './unit/vehicle-stand';
import { inlineDiagram } from './diagram';

const kind: Kind<VacuumInlineSpec, VacuumInlineUnit, InlineCondition> = {
  family: 'vacuum-inline',
  value: '',
  title: 'Pedal-operated vacuum unit',
  description: 'A vacuum servo between the pedal and the master cylinder, tested on the bench or in its vehicle',
  sheet: {
    schema: vacuumInlineSchema,
    fields: vacuumInlineFields,
    example: {
      name: 'Ullerby P25',
      spec: vacuumInlineSchema.parse({
        diaphragmDiameterMm: 236,
        hubDiameterMm: 46,
        servoRatio: 5,
        cutInForceN: 110,
        jumpInForceN: 420,
        returnSpringForceN: 120,
        hysteresisN: 30,
        ratedVacuumKpa: 60,
        frontVolumeCm3: 3600,
        rearVolumeCm3: 1500,
        strokeMm: 36,
        masterBoreMm: 25.4,
        pedalRatio: 4,
        appliedTravelMm: 10,
        sourceKind: 'manifold',
        rodGapMinMm: 0.3,
        rodGapMaxMm: 0.9,
      }),
    },
    prepare: prepareVacuumInline,
  },
  model: vacuumInlineModel,
  parts: inlineParts,
  diagram: inlineDiagram,
  symptoms: inlineSymptoms,
  prevalence: inlinePrevalence,
  plans: [
    {
      id: 'bench',
      title: 'Bench test',
      steps: [
        lookOver.id,
        vacuumDraw.id,
        vacuumHoldRest.id,
        vacuumHoldApplied.id,
        checkValve.id,
        assistCurve.id,
        unassistedCurve.id,
        reserve.id,
        rodGap.id,
        release.id,
      ],
      ...inlineBench,
      face: assistCurve.id,
      closing: ['vacuum-hold-rest', 'vacuum-hold-applied'],
      conclusions: [],
    },
    {
      id: 'vehicle',
      title: 'Hard-pedal inquiry on the vehicle',
      steps: [
        complaint.id,
        hoseLook.id,
        sourceVacuum.id,
        checkValve.id,
        pedalDrop.id,
        reserve.id,
        reserveSoak.id,
        sameForcePair.id,
        behindTheBooster.id,
      ],
      ...inlineVehicle,
      face: reserve.id,
      closing: ['check-valve', 'pedal-drop'],
      conclusions: hardPedalConclusions,
    },
  ],
  steps: [
    lookOver,
    complaint,
    hoseLook,
    sourceVacuum,
    vacuumDraw,
    vacuumHoldRest,
    vacuumHoldApplied,
    checkValve,
    pedalDrop,
    assistCurve,
    unassistedCurve,
    reserve,
    reserveSoak,
    sameForcePair,
    rodGap,
    release,
    behindTheBooster,
  ],
  curve: assistPicture,
};

/** Pedal-operated vacuum unit, in line between pedal and master cylinder. */
export const vacuumInline: Family = {
  id: kind.family,
  title: kind.title,
  description: kind.description,
  toldBy: null,
  kinds: [kind],
  rows: vacuumInlineRows,
};
