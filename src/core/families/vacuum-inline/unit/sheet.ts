import * as z from 'zod';
import { sourceChoices } from '../../../toolboxes/vacuum/source-vacuum';
import { type SheetField, optionalPositive, positive, sheetFields } from '../../../contract/sheet-field';

/** Sheet of a pedal-operated vacuum unit, as written in a unit file. Pressures gauge unless the name says vacuum. */
export const vacuumInlineSchema = z
  .strictObject({
    diaphragmDiameterMm: positive(600),
    diaphragms: z.union([z.literal(1), z.literal(2)]).default(1),
    hubDiameterMm: z.number().min(0).max(300).default(0),
    servoRatio: z.number().gt(1).max(20),
    cutInForceN: positive(1000),
    jumpInForceN: z.number().min(0).max(5000),
    returnSpringForceN: z.number().min(0).max(2000).default(120),
    efficiency: z.number().gt(0).max(1).default(0.95),
    hysteresisN: z.number().min(0).max(500).default(30),
    ratedVacuumKpa: positive(100),
    frontVolumeCm3: positive(50_000),
    rearVolumeCm3: positive(50_000),
    strokeMm: positive(100),
    masterBoreMm: positive(60),
    masterEfficiency: z.number().gt(0).max(1).default(0.95),
    masterSpringForceN: z.number().min(0).max(1000).default(60),
    pedalRatio: positive(12).default(4),
    linkageEfficiency: z.number().gt(0).max(1).default(1),
    rodGapMinMm: z.number().min(0).max(10).optional(),
    rodGapMaxMm: optionalPositive(10),
    reserveForceN: positive(1000).default(200),
    appliedTravelMm: optionalPositive(100),
    sourceKind: z.enum(['manifold', 'pump']).optional(),
    cutInTolerancePercent: optionalPositive(100),
    jumpInTolerancePercent: optionalPositive(200),
    slopeTolerancePercent: optionalPositive(100),
    runOutTolerancePercent: optionalPositive(100),
    hysteresisMaxN: optionalPositive(1000),
    supplySagMaxPercent: optionalPositive(100),
    vacuumLossMaxKpa: optionalPositive(100),
    vacuumLossSeconds: optionalPositive(86_400),
    leakFlowMaxCm3PerMin: optionalPositive(1e6),
    reverseLeakMaxKpa: optionalPositive(100),
    assistedApplicationsMin: z.number().int().min(1).max(20).optional(),
    residualMaxKpa: optionalPositive(2000),
    releaseTimeMaxS: optionalPositive(120),
  })
  .superRefine((spec, context) => {
    const refuse = (field: string, message: string) => context.addIssue({ code: 'custom', path: [field], message });
    if (spec.hubDiameterMm >= spec.diaphragmDiameterMm)
      refuse('hubDiameterMm', 'must be smaller than diaphragmDiameterMm');
    if (spec.hysteresisN >= spec.cutInForceN)
      refuse('hysteresisN', 'must be below cutInForceN, else the unit would not let go');
    if (spec.masterBoreMm >= spec.diaphragmDiameterMm)
      refuse('masterBoreMm', 'must be smaller than diaphragmDiameterMm');
    const travel = spec.appliedTravelMm ?? spec.strokeMm;
    if (travel > spec.strokeMm) refuse('appliedTravelMm', 'must not be more than strokeMm');
    const area = spec.diaphragms * (Math.PI / 4) * (spec.diaphragmDiameterMm ** 2 - spec.hubDiameterMm ** 2);
    if ((area * spec.strokeMm) / 1000 >= spec.frontVolumeCm3)
      refuse('frontVolumeCm3', 'must be more than the diaphragms sweep over the stroke');
    if (spec.rodGapMinMm !== undefined && spec.rodGapMaxMm !== undefined && spec.rodGapMinMm >= spec.rodGapMaxMm)
      refuse('rodGapMinMm', 'must be below rodGapMaxMm');
    if (spec.jumpInForceN > (spec.efficiency * area * spec.ratedVacuumKpa) / 1000)
      refuse('jumpInForceN', 'is more than the diaphragm can give at the rated vacuum');
  });

export type VacuumInlineSpec = z.infer<typeof vacuumInlineSchema>;

const field = sheetFields<VacuumInlineSpec>();
const required = true;

/** Form fields in the order a technician measures them. */
export const vacuumInlineFields: readonly SheetField[] = [
  field('diaphragmDiameterMm', 'Effective diaphragm diameter', 'mm', 'size', {
    help: 'Not the shell’s: a rolling diaphragm measured at the shell reads 5–10 % too large',
    required,
  }),
  field('diaphragms', 'Diaphragms', '1', 'size', { help: '1, or 2 for a tandem unit' }),
  field('hubDiameterMm', 'Hub diameter', 'mm', 'size', { help: 'Subtracted once for each diaphragm' }),
  field('servoRatio', 'Servo ratio', '1', 'behaviour', {
    help: 'Reaction disc area over plunger area',
    required,
  }),
  field('cutInForceN', 'Cut-in force', 'N', 'behaviour', { help: 'At the push rod', required }),
  field('jumpInForceN', 'Jump-in force', 'N', 'behaviour', { help: 'Output force right after cut-in', required }),
  field('ratedVacuumKpa', 'Rated vacuum', 'kPa', 'behaviour', { required }),
  field('frontVolumeCm3', 'Front volume at rest', 'cm3', 'size', { required }),
  field('rearVolumeCm3', 'Rear volume at rest', 'cm3', 'size', { required }),
  field('strokeMm', 'Stroke', 'mm', 'size', { required }),
  field('masterBoreMm', 'Master cylinder bore', 'mm', 'size', {
    help: 'Of the cylinder on the bench if the vehicle’s own is not fitted',
    required,
  }),
  field('pedalRatio', 'Pedal ratio', '1', 'size'),
  field('appliedTravelMm', 'Travel at the reserve force', 'mm', 'behaviour', {
    help: 'From the fluid the brakes take; left empty, the stroke',
  }),
  field('returnSpringForceN', 'Return spring force', 'N', 'behaviour'),
  field('efficiency', 'Efficiency', '1', 'behaviour'),
  field('hysteresisN', 'Hysteresis', 'N', 'behaviour', { help: 'At the push rod' }),
  field('masterEfficiency', 'Master cylinder efficiency', '1', 'behaviour'),
  field('masterSpringForceN', 'Master cylinder spring', 'N', 'behaviour'),
  field('linkageEfficiency', 'Linkage efficiency', '1', 'behaviour'),
  field('reserveForceN', 'Pedal force of the reserve test', 'N', 'behaviour'),
  field('sourceKind', 'Source', '', 'behaviour', {
    help: 'Without it a source check stays undecided away from the sea',
    choices: sourceChoices,
  }),
  field('rodGapMinMm', 'Rod gap at least', 'mm', 'limit', { help: 'At the rated vacuum, from the maker' }),
  field('rodGapMaxMm', 'Rod gap at most', 'mm', 'limit'),
  field('cutInTolerancePercent', 'Cut-in tolerance', '%', 'tolerance'),
  field('jumpInTolerancePercent', 'Jump-in tolerance', '%', 'tolerance'),
  field('slopeTolerancePercent', 'Slope tolerance', '%', 'tolerance'),
  field('runOutTolerancePercent', 'Run-out tolerance', '%', 'tolerance'),
  field('hysteresisMaxN', 'Hysteresis at most', 'N', 'limit'),
  field('supplySagMaxPercent', 'Supply sag at most', '%', 'limit', { help: 'Of the supply vacuum' }),
  field('vacuumLossMaxKpa', 'Vacuum loss at most', 'kPa', 'limit'),
  field('vacuumLossSeconds', 'Vacuum loss over', 's', 'limit'),
  field('leakFlowMaxCm3PerMin', 'Leak flow at most', 'cm3/min', 'limit'),
  field('reverseLeakMaxKpa', 'Back through the check valve at most', 'kPa', 'limit'),
  field('assistedApplicationsMin', 'Assisted strokes at least', '1', 'limit'),
  field('residualMaxKpa', 'Residual output at most', 'kPa', 'limit'),
  field('releaseTimeMaxS', 'Release time at most', 's', 'limit'),
];
