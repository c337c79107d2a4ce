import * as z from 'zod';
import { type SheetField, optionalPositive, positive, sheetFields } from '../../contract/sheet-field';

/** Sheet of a motor booster, as written in a unit file. Forces at the push rod, voltages at the unit's own terminals. */
export const motorBoostSchema = z
  .strictObject({
    cutInForceN: positive(1000),
    jumpInForceN: z.number().min(0).max(5000).default(200),
    servoRatio: z.number().gt(1).max(20),
    hysteresisN: z.number().min(0).max(500).default(20),
    motorForceMaxN: positive(20_000),
    returnSpringForceN: z.number().min(0).max(2000).default(120),
    strokeMm: positive(80),
    masterBoreMm: positive(60),
    masterEfficiency: z.number().gt(0).max(1).default(0.95),
    masterSpringForceN: z.number().min(0).max(1000).default(60),
    pedalRatio: positive(12),
    linkageEfficiency: z.number().gt(0).max(1).default(1),
    sensorSupplyV: positive(24).default(5),
    sensorStrokeMm: positive(120),
    sensorTrackStartV: z.number().min(0).max(24).default(0.5),
    sensorTrackEndV: z.number().min(0).max(24).default(4.5),
    sensorSumTolerancePercent: positive(20).default(2),
    sensorGainTolerancePercent: positive(50).default(5),
    sensorOffsetTolerancePercent: positive(20).default(2),
    sensorDropoutsMax: z.number().int().min(0).max(100).default(0),
    ratedVoltageV: positive(60),
    ratedCurrentA: positive(200),
    mainFuseA: positive(200).default(40),
    ignitionFuseA: positive(50).default(5),
    secondFeed: z.enum(['no', 'yes']).default('no'),
    supplyDropMaxV: positive(10).default(0.5),
    groundDropMaxV: positive(10).default(0.2),
    quiescentCurrentMaxMa: positive(1000).default(20),
    sleepAfterS: z.number().min(1).max(7200).default(600),
    riseTimeMaxS: positive(5).default(0.35),
    peakCurrentMaxA: optionalPositive(400),
    residualMaxKpa: optionalPositive(2000),
    releaseTimeMaxS: optionalPositive(30),
    slopeTolerancePercent: optionalPositive(100),
    cutInTolerancePercent: optionalPositive(100),
    jumpInTolerancePercent: optionalPositive(200),
    runOutTolerancePercent: optionalPositive(100),
    hysteresisMaxN: optionalPositive(1000),
  })
  .superRefine((spec, context) => {
    const refuse = (field: string, message: string) => context.addIssue({ code: 'custom', path: [field], message });
    if (spec.hysteresisN >= spec.cutInForceN)
      refuse('hysteresisN', 'must be below cutInForceN, else the unit would not let go');
    if (spec.jumpInForceN >= spec.cutInForceN + spec.motorForceMaxN - spec.returnSpringForceN)
      refuse('jumpInForceN', 'is more than the motor can give at cut-in');
    if (spec.sensorTrackEndV <= spec.sensorTrackStartV) refuse('sensorTrackEndV', 'must be above sensorTrackStartV');
    if (spec.sensorTrackEndV > spec.sensorSupplyV)
      refuse('sensorTrackEndV', 'is more than the sensor is supplied with');
    if (spec.sensorStrokeMm < spec.strokeMm)
      refuse('sensorStrokeMm', 'is shorter than the stroke that it has to follow');
  });

export type MotorBoostSpec = z.infer<typeof motorBoostSchema>;

const field = sheetFields<MotorBoostSpec>();
const required = true;
const yesNo = [
  { value: 'no', title: 'No' },
  { value: 'yes', title: 'Yes' },
];

/** Form fields in the order a technician needs them. */
export const motorBoostFields: readonly SheetField[] = [
  field('strokeMm', 'Stroke', 'mm', 'size', { required }),
  field('masterBoreMm', 'Master cylinder bore', 'mm', 'size', { required }),
  field('pedalRatio', 'Pedal ratio', '1', 'size', { required }),
  field('sensorStrokeMm', 'Stroke of the sensor', 'mm', 'size', {
    help: 'Travel over which both tracks run',
    required,
  }),
  field('cutInForceN', 'Cut-in force', 'N', 'behaviour', { help: 'At the push rod', required }),
  field('servoRatio', 'Servo ratio', '1', 'behaviour', { required }),
  field('motorForceMaxN', 'Largest force of the motor', 'N', 'behaviour', {
    help: 'On the rod, at the rated voltage',
    required,
  }),
  field('ratedVoltageV', 'Rated voltage', 'V', 'behaviour', { required }),
  field('ratedCurrentA', 'Rated peak current', 'A', 'behaviour', { required }),
  field('jumpInForceN', 'Jump-in force', 'N', 'behaviour'),
  field('hysteresisN', 'Hysteresis', 'N', 'behaviour', { help: 'At the push rod' }),
  field('returnSpringForceN', 'Return spring force', 'N', 'behaviour'),
  field('masterEfficiency', 'Master cylinder efficiency', '1', 'behaviour'),
  field('masterSpringForceN', 'Master cylinder spring', 'N', 'behaviour'),
  field('linkageEfficiency', 'Linkage efficiency', '1', 'behaviour'),
  field('sensorSupplyV', 'Sensor supply', 'V', 'behaviour'),
  field('sensorTrackStartV', 'Track A at rest', 'V', 'behaviour', { help: 'Track B is the supply less track A' }),
  field('sensorTrackEndV', 'Track A at the end', 'V', 'behaviour'),
  field('mainFuseA', 'Main fuse', 'A', 'behaviour'),
  field('ignitionFuseA', 'Ignition fuse', 'A', 'behaviour'),
  field('secondFeed', 'Second permanent feed', '', 'behaviour', { choices: yesNo }),
  field('sleepAfterS', 'Asleep after', 's', 'behaviour', { help: 'From the key off to the current asleep' }),
  field('supplyDropMaxV', 'Supply drop at most', 'V', 'limit'),
  field('groundDropMaxV', 'Ground drop at most', 'V', 'limit'),
  field('quiescentCurrentMaxMa', 'Current asleep at most', 'mA', 'limit'),
  field('riseTimeMaxS', 'Time to 90 % at most', 's', 'limit'),
  field('peakCurrentMaxA', 'Peak current at most', 'A', 'limit'),
  field('residualMaxKpa', 'Residual output at most', 'kPa', 'limit'),
  field('releaseTimeMaxS', 'Release time at most', 's', 'limit'),
  field('hysteresisMaxN', 'Hysteresis at most', 'N', 'limit'),
  field('sensorDropoutsMax', 'Dropouts at most', '1', 'limit'),
  field('sensorSumTolerancePercent', 'Sum of the tracks, tolerance', '%', 'tolerance', {
    help: 'Of the sensor supply',
  }),
  field('sensorGainTolerancePercent', 'Gain of a track, tolerance', '%', 'tolerance'),
  field('sensorOffsetTolerancePercent', 'Offset of a track, tolerance', '%', 'tolerance', {
    help: 'Of the sensor supply',
  }),
  field('slopeTolerancePercent', 'Slope tolerance', '%', 'tolerance'),
  field('cutInTolerancePercent', 'Cut-in tolerance', '%', 'tolerance'),
  field('jumpInTolerancePercent', 'Jump-in tolerance', '%', 'tolerance'),
  field('runOutTolerancePercent', 'Run-out tolerance', '%', 'tolerance'),
];
