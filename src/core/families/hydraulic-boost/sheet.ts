import * as z from 'zod';
import { type SheetField, optionalPositive, positive, sheetFields } from '../../contract/sheet-field';

/** Sheet of a booster fed by the steering pump. Pressures gauge, forces at the push rod unless they say pedal. */
export const hydraulicBoostSchema = z
  .strictObject({
    reliefKpa: positive(25_000),
    pumpFlowLPerMin: positive(40),
    boostPistonAreaMm2: positive(8000),
    returnSpringForceN: z.number().min(0).max(2000).default(120),
    servoRatio: z.number().gt(1).max(20),
    cutInForceN: positive(1000),
    jumpInForceN: z.number().min(0).max(5000).default(200),
    hysteresisN: z.number().min(0).max(500).default(30),
    efficiency: z.number().gt(0).max(1).default(0.95),
    masterBoreMm: positive(60),
    masterEfficiency: z.number().gt(0).max(1).default(0.95),
    masterSpringForceN: z.number().min(0).max(1000).default(60),
    pedalRatio: positive(12),
    pedalTravelMm: positive(200).default(70),
    reserveForceN: positive(1000).default(200),
    reserveVolumeCm3: positive(2000),
    reservePrechargeKpa: positive(20_000),
    reserveChargedKpa: positive(25_000),
    fluidPerApplicationCm3: positive(200),
    reserveLeakCm3PerMin: positive(100).default(0.1),
    soakSeconds: positive(86_400).default(3600),
    hoseRatingKpa: positive(60_000),
    assistedApplicationsMin: z.number().int().min(1).max(20).optional(),
    returnPressureMaxKpa: optionalPositive(5000),
    reliefTolerancePercent: optionalPositive(50),
    cutInTolerancePercent: optionalPositive(100),
    jumpInTolerancePercent: optionalPositive(200),
    slopeTolerancePercent: optionalPositive(100),
    runOutTolerancePercent: optionalPositive(100),
    hysteresisMaxN: optionalPositive(1000),
  })
  .superRefine((spec, context) => {
    const refuse = (field: string, message: string) => context.addIssue({ code: 'custom', path: [field], message });
    if (spec.hoseRatingKpa <= spec.reliefKpa)
      refuse(
        'hoseRatingKpa',
        'must be above reliefKpa: a pressure hose that is not rated for the relief pressure bursts',
      );
    if (spec.reservePrechargeKpa >= spec.reserveChargedKpa)
      refuse('reservePrechargeKpa', 'must be below reserveChargedKpa, or nothing is in reserve');
    if (spec.reserveChargedKpa > spec.reliefKpa) refuse('reserveChargedKpa', 'must not be above reliefKpa');
    if (spec.hysteresisN >= spec.cutInForceN)
      refuse('hysteresisN', 'must be below cutInForceN, else the unit would not let go');
    const assist = spec.efficiency * spec.reliefKpa * 1e-3 * spec.boostPistonAreaMm2 - spec.returnSpringForceN;
    if (spec.jumpInForceN >= assist) refuse('jumpInForceN', 'is more than the boost piston can give');
  });

export type HydraulicBoostSpec = z.infer<typeof hydraulicBoostSchema>;

const field = sheetFields<HydraulicBoostSpec>();
const required = true;

/** Form fields in the order a technician needs them. */
export const hydraulicBoostFields: readonly SheetField[] = [
  field('reliefKpa', 'Pump relief', 'kPa', 'behaviour', { required }),
  field('pumpFlowLPerMin', 'Pump flow at idle', 'L/min', 'behaviour', { required }),
  field('hoseRatingKpa', 'Pressure hose rated for', 'kPa', 'size', {
    help: 'Off the hose; must be above the relief pressure',
    required,
  }),
  field('boostPistonAreaMm2', 'Boost piston area', 'mm2', 'size', { required }),
  field('servoRatio', 'Servo ratio', '1', 'behaviour', { required }),
  field('cutInForceN', 'Cut-in force', 'N', 'behaviour', { help: 'At the push rod', required }),
  field('masterBoreMm', 'Master cylinder bore', 'mm', 'size', { required }),
  field('pedalRatio', 'Pedal ratio', '1', 'size', { required }),
  field('reserveVolumeCm3', 'Reserve accumulator', 'cm3', 'size', { required }),
  field('reservePrechargeKpa', 'Reserve precharge', 'kPa', 'behaviour', {
    help: 'Gauge, at 20 °C; of a spring, where it begins to take',
    required,
  }),
  field('reserveChargedKpa', 'Reserve charged to', 'kPa', 'behaviour', { required }),
  field('fluidPerApplicationCm3', 'Fluid of one application', 'cm3', 'behaviour', { required }),
  field('jumpInForceN', 'Jump-in force', 'N', 'behaviour'),
  field('returnSpringForceN', 'Return spring force', 'N', 'behaviour'),
  field('hysteresisN', 'Hysteresis', 'N', 'behaviour'),
  field('efficiency', 'Efficiency', '1', 'behaviour'),
  field('masterEfficiency', 'Master cylinder efficiency', '1', 'behaviour'),
  field('masterSpringForceN', 'Master cylinder spring', 'N', 'behaviour'),
  field('pedalTravelMm', 'Pedal travel at full assist', 'mm', 'behaviour'),
  field('reserveForceN', 'Pedal force of the reserve test', 'N', 'behaviour'),
  field('reserveLeakCm3PerMin', 'Leak of a sound reserve', 'cm3/min', 'behaviour'),
  field('soakSeconds', 'Soak', 's', 'behaviour'),
  field('assistedApplicationsMin', 'Assisted strokes at least', '1', 'limit'),
  field('returnPressureMaxKpa', 'Return pressure at most', 'kPa', 'limit'),
  field('hysteresisMaxN', 'Hysteresis at most', 'N', 'limit'),
  field('reliefTolerancePercent', 'Relief and flow tolerance', '%', 'tolerance'),
  field('cutInTolerancePercent', 'Cut-in tolerance', '%', 'tolerance'),
  field('jumpInTolerancePercent', 'Jump-in tolerance', '%', 'tolerance'),
  field('slopeTolerancePercent', 'Slope tolerance', '%', 'tolerance'),
  field('runOutTolerancePercent', 'Run-out tolerance', '%', 'tolerance'),
];
