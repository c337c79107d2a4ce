import { z } from 'zod';
import { optionalPositive, positive, sheetFields, type SheetField } from '../../contract/sheet-field';

const share = (most: number, usual: number) => positive(most).default(usual);

/** Sheet of a vehicle that brakes with its motor and its friction brakes together. Pressures gauge; shares are of the largest request. */
export const blendedSchema = z
  .strictObject({
    frictionCoefficientFront: positive(1.5),
    pistonAreaFrontMm2: positive(50_000),
    effectiveRadiusFrontMm: positive(1000),
    frictionCoefficientRear: optionalPositive(1.5),
    pistonAreaRearMm2: optionalPositive(50_000),
    effectiveRadiusRearMm: optionalPositive(1000),
    drumFactorRear: optionalPositive(10),
    pressureSource: z.enum(['accumulator', 'plunger']).default('accumulator'),
    tyreRadiusMm: positive(1000),
    massKg: positive(60_000),
    handoverHighKmh: positive(100).default(15),
    handoverLowKmh: positive(100).default(5),
    panicStrokeRateMmPerS: positive(5000).default(250),
    panicDelayMaxS: positive(5).default(0.25),
    regenLimitChargePercent: positive(100).default(90),
    closureBiasMaxPercent: share(100, 4),
    closureRmsMaxPercent: share(100, 6),
    closureWorstMaxPercent: share(200, 20),
    handoverDipMaxPercent: share(100, 15),
    unfilledMaxPercent: share(100, 5),
    frictionGainMin: positive(1.5).default(0.85),
    storeMarginMinKpa: z.number().min(0).max(20_000).default(500),
    masterDifferenceMaxKpa: positive(5000).default(200),
    switchDifferenceMaxS: positive(5).default(0.1),
  })
  .superRefine((spec, context) => {
    const refuse = (field: string, message: string) => context.addIssue({ code: 'custom', path: [field], message });
    if (spec.handoverLowKmh >= spec.handoverHighKmh) refuse('handoverLowKmh', 'must be below handoverHighKmh');
    const disc = ['frictionCoefficientRear', 'pistonAreaRearMm2', 'effectiveRadiusRearMm'] as const;
    const said = disc.filter((field) => spec[field] !== undefined);
    if (spec.drumFactorRear !== undefined && said.length > 0)
      refuse('drumFactorRear', 'the rear axle has discs or drums, not both');
    if (spec.drumFactorRear === undefined)
      for (const field of disc)
        if (spec[field] === undefined) refuse(field, 'is needed: the rear discs, or drumFactorRear for drums');
  });

export type BlendedSpec = z.infer<typeof blendedSchema>;

const field = sheetFields<BlendedSpec>();
const required = true;
const ofRequest = { help: 'Of the largest torque that was requested' };

/** Form fields in the order a technician needs them. */
export const blendedFields: readonly SheetField[] = [
  field('massKg', 'Vehicle mass', 'kg', 'size', { required }),
  field('tyreRadiusMm', 'Tyre radius', 'mm', 'size', { required }),
  field('frictionCoefficientFront', 'Friction, front', '1', 'size', { required }),
  field('pistonAreaFrontMm2', 'Piston area, front', 'mm2', 'size', {
    help: 'Pistons of one side of one caliper',
    required,
  }),
  field('effectiveRadiusFrontMm', 'Effective radius, front', 'mm', 'size', { required }),
  field('frictionCoefficientRear', 'Friction, rear', '1', 'size'),
  field('pistonAreaRearMm2', 'Piston area, rear', 'mm2', 'size'),
  field('effectiveRadiusRearMm', 'Effective radius, rear', 'mm', 'size'),
  field('drumFactorRear', 'Drum, rear', 'N·m/kPa', 'size', { help: 'Torque of one wheel to each kPa' }),
  field('pressureSource', 'Pressure from', '', 'identity', {
    choices: [
      { value: 'accumulator', title: 'A charged store' },
      { value: 'plunger', title: 'A plunger: no store' },
    ],
  }),
  field('handoverHighKmh', 'Handover begins at', 'km/h', 'behaviour', {
    help: 'Below this the motor hands over to the friction brakes',
  }),
  field('handoverLowKmh', 'Handover ends at', 'km/h', 'behaviour'),
  field('panicStrokeRateMmPerS', 'Panic from a pedal rate of', 'mm/s', 'behaviour'),
  field('regenLimitChargePercent', 'No regeneration from a charge of', '%', 'behaviour'),
  field('panicDelayMaxS', 'Panic answered within', 's', 'limit'),
  field('closureBiasMaxPercent', 'Torque missing on average', '%', 'limit', ofRequest),
  field('closureRmsMaxPercent', 'Torque error, RMS', '%', 'limit', ofRequest),
  field('closureWorstMaxPercent', 'Torque error at its worst', '%', 'limit', ofRequest),
  field('handoverDipMaxPercent', 'Dip in the handover', '%', 'limit', ofRequest),
  field('unfilledMaxPercent', 'Torque not filled in at full charge', '%', 'limit', ofRequest),
  field('frictionGainMin', 'Friction, share of what it should be', '1', 'limit'),
  field('storeMarginMinKpa', 'Store above every wheel by', 'kPa', 'limit'),
  field('masterDifferenceMaxKpa', 'Master sensors apart at most', 'kPa', 'limit'),
  field('switchDifferenceMaxS', 'Stop switches apart at most', 's', 'limit'),
];
