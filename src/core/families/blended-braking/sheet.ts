import * as z from 'zod';
import { positive, sheetFields, type SheetField } from '../../contract/sheet-field';
import { brakeSheetFields, brakeShape, checkRearBrakes } from '../../toolboxes/foundation/brake-sheet';
import type { BrakeFields } from '../../toolboxes/foundation/brakes-from-spec';

const share = (most: number, usual: number) => positive(most).default(usual);

/** Sheet of a vehicle that brakes with its motor and its friction brakes together. Pressures gauge; shares are of the largest request. */
export const blendedSchema = z
  .strictObject({
    ...brakeShape,
    pressureSource: z.enum(['accumulator', 'plunger']).default('accumulator'),
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
    checkRearBrakes(spec, refuse);
  });

export type BlendedSpec = z.infer<typeof blendedSchema>;

const field = sheetFields<BlendedSpec>();
const ofRequest = { help: 'Of the largest torque that was requested' };

/** Form fields in the order a technician needs them. */
export const blendedFields: readonly SheetField[] = [
  ...brakeSheetFields(sheetFields<BrakeFields>()),
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
