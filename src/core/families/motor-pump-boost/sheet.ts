import * as z from 'zod';
import { fluidChoices, fluidKinds } from '../../vocabulary/fluid';
import { storeContradictions, storeFields, storeShape } from '../../toolboxes/store/model/store-fields';
import { type SheetField, optionalPositive, positive, sheetFields } from '../../contract/sheet-field';

/** Sheet of a motor-pump unit on the master cylinder, as written in a unit file. Pressures gauge. */
export const motorPumpSchema = z
  .strictObject({
    ...storeShape,
    boostPistonAreaMm2: positive(5000),
    returnSpringForceN: z.number().min(0).max(2000).default(100),
    servoRatio: z.number().gt(1).max(20),
    cutInForceN: positive(1000),
    jumpInForceN: z.number().min(0).max(5000).default(150),
    hysteresisN: z.number().min(0).max(500).default(25),
    efficiency: z.number().gt(0).max(1).default(0.95),
    masterBoreMm: positive(60),
    masterEfficiency: z.number().gt(0).max(1).default(0.95),
    masterSpringForceN: z.number().min(0).max(1000).default(60),
    pedalRatio: positive(12),
    reserveForceN: positive(1000).default(200),
    ratedVoltageV: positive(60),
    ratedCurrentA: positive(300),
    motorRunMaxS: positive(600).default(90),
    supplyDropMaxV: optionalPositive(20),
    fluid: z.enum(fluidKinds).default('glycol'),
    slopeTolerancePercent: optionalPositive(100),
    cutInTolerancePercent: optionalPositive(100),
    jumpInTolerancePercent: optionalPositive(200),
    runOutTolerancePercent: optionalPositive(100),
    hysteresisMaxN: optionalPositive(1000),
  })
  .superRefine((spec, context) => {
    const refuse = (field: string, message: string) => context.addIssue({ code: 'custom', path: [field], message });
    storeContradictions(spec, refuse);
    if (spec.hysteresisN >= spec.cutInForceN)
      refuse('hysteresisN', 'must be below cutInForceN, else the unit would not let go');
    const assist = spec.efficiency * spec.cutInKpa * 1e-3 * spec.boostPistonAreaMm2 - spec.returnSpringForceN;
    if (spec.jumpInForceN >= assist) refuse('jumpInForceN', 'is more than the boost piston can give at cut-in');
  });

export type MotorPumpSpec = z.infer<typeof motorPumpSchema>;

const field = sheetFields<MotorPumpSpec>();
const required = true;

/** Form fields in the order a technician needs them. */
export const motorPumpFields: readonly SheetField[] = [
  ...storeFields({ lamp: 'Lamp lights at' }),
  field('boostPistonAreaMm2', 'Boost piston area', 'mm2', 'size', { required }),
  field('servoRatio', 'Servo ratio', '1', 'behaviour', { required }),
  field('cutInForceN', 'Cut-in force', 'N', 'behaviour', { help: 'At the push rod', required }),
  field('masterBoreMm', 'Master cylinder bore', 'mm', 'size', { required }),
  field('pedalRatio', 'Pedal ratio', '1', 'size', { required }),
  field('ratedVoltageV', 'Rated voltage', 'V', 'behaviour', { required }),
  field('ratedCurrentA', 'Motor current at cut-out', 'A', 'behaviour', { required }),
  field('jumpInForceN', 'Jump-in force', 'N', 'behaviour'),
  field('returnSpringForceN', 'Return spring force', 'N', 'behaviour'),
  field('hysteresisN', 'Hysteresis', 'N', 'behaviour', { help: 'At the push rod' }),
  field('efficiency', 'Efficiency', '1', 'behaviour'),
  field('masterEfficiency', 'Master cylinder efficiency', '1', 'behaviour'),
  field('masterSpringForceN', 'Master cylinder spring', 'N', 'behaviour'),
  field('reserveForceN', 'Pedal force of a test stroke', 'N', 'behaviour'),
  field('fluid', 'Fluid', '', 'behaviour', { choices: fluidChoices }),
  field('motorRunMaxS', 'Motor runs at most', 's', 'limit', { help: 'At a stretch; the step ends when it is used up' }),
  field('supplyDropMaxV', 'Supply drop at most', 'V', 'limit'),
  field('hysteresisMaxN', 'Hysteresis at most', 'N', 'limit'),
  field('slopeTolerancePercent', 'Slope tolerance', '%', 'tolerance'),
  field('cutInTolerancePercent', 'Cut-in tolerance', '%', 'tolerance'),
  field('jumpInTolerancePercent', 'Jump-in tolerance', '%', 'tolerance'),
  field('runOutTolerancePercent', 'Run-out tolerance', '%', 'tolerance'),
];
