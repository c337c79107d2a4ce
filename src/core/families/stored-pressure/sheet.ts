import * as z from 'zod';
import { fluidChoices, fluidKinds } from '../../vocabulary/fluid';
import { sphereChoices, spherePurposes } from '../../vocabulary/sphere-purpose';
import { storeContradictions, storeFields, storeShape } from '../../toolboxes/store/model/store-fields';
import { type SheetField, optionalPositive, positive, sheetFields } from '../../contract/sheet-field';

/** Sheet of a central dual-circuit stored-pressure system with levelling. Pressures gauge; circuit 2 feeds the levelling. */
export const storedPressureSchema = z
  .strictObject({
    ...storeShape,
    sphere2VolumeCm3: optionalPositive(20_000),
    sphere2PrechargeKpa: optionalPositive(40_000),
    spherePurpose: z.enum(spherePurposes).default('brake'),
    levellingLeakCm3PerMin: positive(500).default(6),
    levellingLeakMaxCm3PerMin: optionalPositive(2000),
    heightLossMaxMm: optionalPositive(200),
    meteringSlopeKpaPerN: positive(1000),
    cutInForceN: positive(500),
    regulatedMaximumKpa: positive(40_000),
    circuitDifferenceMaxKpa: optionalPositive(5000),
    bumpPressureMaxKpa: optionalPositive(5000),
    fluid: z.enum(fluidKinds).default('mineral'),
  })
  .superRefine((spec, context) => {
    const refuse = (field: string, message: string) => context.addIssue({ code: 'custom', path: [field], message });
    storeContradictions(spec, refuse);
    if (spec.sphere2PrechargeKpa !== undefined && spec.sphere2PrechargeKpa >= spec.cutInKpa)
      refuse('sphere2PrechargeKpa', 'must be below cutInKpa, or nothing is stored');
    if (spec.regulatedMaximumKpa >= spec.cutInKpa)
      refuse('regulatedMaximumKpa', 'must be below cutInKpa: the valve gives no more than it is fed');
  });

export type StoredPressureSpec = z.infer<typeof storedPressureSchema>;

const field = sheetFields<StoredPressureSpec>();
const required = true;

/** Form fields in the order a technician needs them. */
export const storedPressureFields: readonly SheetField[] = [
  ...storeFields({ lamp: 'Lamp lights at' }),
  field('sphere2VolumeCm3', 'Sphere 2 volume', 'cm3', 'size', { help: 'Left empty, as sphere 1' }),
  field('sphere2PrechargeKpa', 'Sphere 2 precharge', 'kPa', 'behaviour', { help: 'Left empty, as sphere 1' }),
  field('spherePurpose', 'Spheres are for', '', 'identity', {
    help: 'A suspension sphere on a brake circuit, or the reverse, is dangerous',
    choices: sphereChoices,
  }),
  field('meteringSlopeKpaPerN', 'Metering slope', 'kPa/N', 'behaviour', { help: 'At the pedal', required }),
  field('cutInForceN', 'Cut-in force', 'N', 'behaviour', { help: 'At the pedal', required }),
  field('regulatedMaximumKpa', 'Highest brake pressure', 'kPa', 'behaviour', { required }),
  field('levellingLeakCm3PerMin', 'Leak of a sound levelling', 'cm3/min', 'behaviour', { help: 'At cut-out' }),
  field('fluid', 'Fluid', '', 'behaviour', { choices: fluidChoices }),
  field('levellingLeakMaxCm3PerMin', 'Levelling leak at most', 'cm3/min', 'limit'),
  field('heightLossMaxMm', 'Height lost at most', 'mm', 'limit'),
  field('circuitDifferenceMaxKpa', 'Circuits differ at most', 'kPa', 'limit'),
  field('bumpPressureMaxKpa', 'Bump pressure at most', 'kPa', 'limit'),
];
