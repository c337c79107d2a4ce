import * as z from 'zod';
import { fluidChoices, fluidKinds } from '../../vocabulary/fluid';
import { storeContradictions, storeFields, storeShape } from '../../toolboxes/store/model/store-fields';
import { type SheetField, optionalPositive, positive, sheetFields } from '../../contract/sheet-field';

/** Sheet of a dual modulating pedal valve with its accumulators and charging valve. Pressures gauge. */
export const pedalValveSchema = z
  .strictObject({
    ...storeShape,
    rearAccumulatorVolumeCm3: optionalPositive(20_000),
    rearPrechargeKpa: optionalPositive(40_000),
    modulationKpaPerDegree: positive(5000),
    cutInTravelDegrees: z.number().min(0).max(40),
    regulatedMaximumKpa: positive(40_000),
    hysteresisDegrees: z.number().min(0).max(10).default(0.6),
    travelMaxDegrees: positive(60).default(24),
    neutralLeakCm3PerMin: positive(2000).default(60),
    neutralLeakMaxCm3PerMin: optionalPositive(5000),
    parkingReleaseKpa: positive(40_000),
    circuitDifferenceMaxKpa: optionalPositive(5000),
    riseTimeMaxS: optionalPositive(20),
    residualMaxKpa: optionalPositive(2000),
    hysteresisMaxDegrees: optionalPositive(20),
    fluid: z.enum(fluidKinds).default('mineral'),
  })
  .superRefine((spec, context) => {
    const refuse = (field: string, message: string) => context.addIssue({ code: 'custom', path: [field], message });
    storeContradictions(spec, refuse);
    if (spec.rearPrechargeKpa !== undefined && spec.rearPrechargeKpa >= spec.cutInKpa)
      refuse('rearPrechargeKpa', 'must be below cutInKpa, or nothing is stored');
    if (spec.regulatedMaximumKpa >= spec.cutInKpa)
      refuse('regulatedMaximumKpa', 'must be below cutInKpa: the valve gives no more than it is fed');
    const full = spec.cutInTravelDegrees + spec.regulatedMaximumKpa / spec.modulationKpaPerDegree;
    if (full >= spec.travelMaxDegrees) refuse('travelMaxDegrees', 'must be beyond the angle of the regulated maximum');
    if (spec.hysteresisDegrees >= spec.cutInTravelDegrees)
      refuse('hysteresisDegrees', 'must be below cutInTravelDegrees, else the valve would not let go');
  });

export type PedalValveSpec = z.infer<typeof pedalValveSchema>;

const field = sheetFields<PedalValveSpec>();
const required = true;

/** Form fields in the order a technician needs them. */
export const pedalValveFields: readonly SheetField[] = [
  ...storeFields({ lamp: 'Alarm sounds at' }),
  field('rearAccumulatorVolumeCm3', 'Rear accumulator volume', 'cm3', 'size', { help: 'Left empty, as the front' }),
  field('rearPrechargeKpa', 'Rear precharge', 'kPa', 'behaviour', { help: 'Left empty, as the front' }),
  field('modulationKpaPerDegree', 'Modulation', 'kPa/°', 'behaviour', {
    help: 'Brake pressure to each degree',
    required,
  }),
  field('cutInTravelDegrees', 'Cut-in travel', '°', 'behaviour', { required }),
  field('regulatedMaximumKpa', 'Regulated maximum', 'kPa', 'behaviour', { required }),
  field('parkingReleaseKpa', 'Parking brake lets go at', 'kPa', 'behaviour', { required }),
  field('travelMaxDegrees', 'Pedal travel', '°', 'size'),
  field('hysteresisDegrees', 'Hysteresis', '°', 'behaviour'),
  field('neutralLeakCm3PerMin', 'Neutral leak of a sound valve', 'cm3/min', 'behaviour'),
  field('fluid', 'Fluid', '', 'behaviour', { choices: fluidChoices }),
  field('neutralLeakMaxCm3PerMin', 'Neutral leak at most', 'cm3/min', 'limit'),
  field('circuitDifferenceMaxKpa', 'Circuits differ at most', 'kPa', 'limit'),
  field('riseTimeMaxS', 'Rise time at most', 's', 'limit'),
  field('residualMaxKpa', 'Residual at most', 'kPa', 'limit'),
  field('hysteresisMaxDegrees', 'Hysteresis at most', '°', 'limit'),
];
