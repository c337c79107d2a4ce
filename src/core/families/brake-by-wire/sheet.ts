import * as z from 'zod';
import { type SheetField, optionalPositive, positive, sheetFields } from '../../contract/sheet-field';
import { storeContradictions, storeFields, storeShape } from '../../toolboxes/store/model/store-fields';

/** What the sheet of every decoupled unit says, whatever makes its pressure. The simulator's figures are at the pedal. */
const commonShape = {
  pedalRatio: positive(12),
  linkageEfficiency: z.number().gt(0).max(1).default(1),
  masterBoreMm: positive(60),
  masterEfficiency: z.number().gt(0).max(1).default(0.95),
  masterSpringForceN: z.number().min(0).max(1000).default(60),
  simulatorPreloadN: z.number().min(0).max(500).default(20),
  simulatorStiffness1NPerMm: positive(100),
  simulatorStiffness2NPerMm: positive(500),
  simulatorChangeTravelMm: positive(150),
  simulatorTolerancePercent: positive(100).default(15),
  ratedVoltageV: positive(60).default(12),
  ratedCurrentA: positive(300),
  supplyDropMaxV: positive(10).default(0.5),
  groundDropMaxV: positive(10).default(0.2),
  quiescentCurrentMaxMa: positive(1000).default(20),
  sleepAfterS: z.number().min(1).max(7200).default(600),
  sensorSupplyV: positive(24).default(5),
  sensorOffsetRatio: z.number().min(0).lt(1).default(0.1),
  sensorFullScaleKpa: positive(60_000),
  sensorFullScaleRatio: z.number().gt(0).max(1).default(0.9),
  sensorOffsetMaxPercent: positive(20).default(1),
  sensorGainTolerancePercent: positive(50).default(2),
  linearityMaxPercent: positive(20).default(1),
  responseTimeConstantS: positive(2).default(0.05),
  trackingGainTolerancePercent: positive(50).default(3),
  steadyErrorMaxKpa: positive(5000).default(150),
  lagMaxS: positive(5).default(0.15),
  deadTimeMaxS: positive(2).default(0.05),
  overshootMaxPercent: positive(100).default(10),
  panicRiseTimeMaxS: positive(5).default(0.2),
  strokeCreepMaxMmPerMin: positive(100).default(1),
  residualMaxKpa: optionalPositive(2000),
  releaseTimeMaxS: optionalPositive(30),
  fallbackForceN: positive(2000).default(500),
  fallbackPressureMinKpa: optionalPositive(20_000),
  category: z.enum(['light', 'own']).optional(),
  ownDecelerationMinMPerS2: optionalPositive(10),
  massKg: optionalPositive(60_000),
  tyreRadiusMm: optionalPositive(1000),
  frictionCoefficientFront: optionalPositive(1.5),
  pistonAreaFrontMm2: optionalPositive(50_000),
  effectiveRadiusFrontMm: optionalPositive(1000),
  frictionCoefficientRear: optionalPositive(1.5),
  pistonAreaRearMm2: optionalPositive(50_000),
  effectiveRadiusRearMm: optionalPositive(1000),
  drumFactorRear: optionalPositive(10),
  backupBank: z.enum(['fitted', 'none']).default('fitted'),
  backupCapacitanceF: optionalPositive(10_000),
  backupVoltageFullV: optionalPositive(100),
  backupVoltageMinV: optionalPositive(100),
  energyPerStopJ: optionalPositive(1e6),
  stopsMin: z.number().int().min(1).max(100).default(3),
  safeWaitMin: z.number().min(0).max(240).default(15),
  safeVoltageV: positive(60).default(5),
} as const;

type CommonSpec = z.infer<z.ZodObject<typeof commonShape>>;
type Refuse = (field: string, message: string) => void;

const bank = ['backupCapacitanceF', 'backupVoltageFullV', 'backupVoltageMinV', 'energyPerStopJ'] as const;
const front = [
  'massKg',
  'tyreRadiusMm',
  'frictionCoefficientFront',
  'pistonAreaFrontMm2',
  'effectiveRadiusFrontMm',
] as const;
const rearDisc = ['frictionCoefficientRear', 'pistonAreaRearMm2', 'effectiveRadiusRearMm'] as const;

/** All of some fields or none of them: half a figure is none. */
function allOrNone(spec: CommonSpec, names: readonly (keyof CommonSpec)[], what: string, refuse: Refuse): void {
  const missing = names.filter((name) => spec[name] === undefined);
  if (missing.length > 0 && missing.length < names.length) refuse(missing[0], `is needed too for ${what}`);
}

function commonContradictions(spec: CommonSpec, refuse: Refuse): void {
  if (spec.simulatorStiffness2NPerMm <= spec.simulatorStiffness1NPerMm)
    refuse('simulatorStiffness2NPerMm', 'must be steeper than the first stage');
  if (spec.sensorFullScaleRatio <= spec.sensorOffsetRatio)
    refuse('sensorFullScaleRatio', 'must be above sensorOffsetRatio');
  allOrNone(spec, bank, 'the backup bank', refuse);
  if (spec.backupBank === 'none' && bank.some((name) => spec[name] !== undefined))
    refuse('backupBank', 'says that there is none, and its figures say that there is');
  if ((spec.backupVoltageMinV ?? 0) >= (spec.backupVoltageFullV ?? Infinity))
    refuse('backupVoltageMinV', 'must be below backupVoltageFullV');
  const rear = spec.drumFactorRear === undefined ? rearDisc : [];
  const said = [...front, ...rearDisc, 'drumFactorRear' as const].some((name) => spec[name] !== undefined);
  if (said) {
    const missing = [...front, ...rear].find((name) => spec[name] === undefined);
    if (missing !== undefined) refuse(missing, 'is needed too for the pressure that the vehicle’s rule takes');
    if (spec.category === undefined) refuse('category', 'is needed too: which rule the vehicle is under');
  }
  if (spec.category === 'own' && spec.ownDecelerationMinMPerS2 === undefined)
    refuse(
      'ownDecelerationMinMPerS2',
      'is needed for a rule of its own: the one of light vehicles is never taken instead',
    );
}

/** Sheet of a decoupled unit whose pressure a motor-driven plunger makes. Pressures gauge. */
export const plungerSchema = z
  .strictObject({
    ...commonShape,
    source: z.literal('plunger'),
    plungerBoreMm: positive(100),
    plungerStrokeMm: positive(300),
    plungerCreepMaxMmPerMin: positive(100).default(1),
  })
  .superRefine((spec, context) => {
    commonContradictions(spec, (field, message) => context.addIssue({ code: 'custom', path: [field], message }));
  });

/** Sheet of a decoupled unit that takes its pressure from a charged store. Pressures gauge. */
export const accumulatorSchema = z
  .strictObject({
    ...commonShape,
    source: z.literal('accumulator'),
    ...storeShape,
    motorRunMaxS: positive(600).default(90),
  })
  .superRefine((spec, context) => {
    const refuse: Refuse = (field, message) => context.addIssue({ code: 'custom', path: [field], message });
    commonContradictions(spec, refuse);
    storeContradictions(spec, refuse);
  });

export type PlungerSpec = z.infer<typeof plungerSchema>;
export type AccumulatorSpec = z.infer<typeof accumulatorSchema>;
export type ByWireSpec = PlungerSpec | AccumulatorSpec;

const field = sheetFields<PlungerSpec>();
const required = true;

const sourceField: SheetField = field('source', 'Pressure source', '', 'size', {
  required,
  choices: [
    { value: 'plunger', title: 'Plunger driven by a motor' },
    { value: 'accumulator', title: 'Pump and accumulator' },
  ],
});

const pedalFields: readonly SheetField[] = [
  field('pedalRatio', 'Pedal ratio', '1', 'size', { required }),
  field('masterBoreMm', 'Master cylinder bore', 'mm', 'size', { required }),
  field('simulatorStiffness1NPerMm', 'Simulator, first stage', 'N/mm', 'behaviour', { help: 'At the pedal', required }),
  field('simulatorStiffness2NPerMm', 'Simulator, second stage', 'N/mm', 'behaviour', {
    help: 'At the pedal',
    required,
  }),
  field('simulatorChangeTravelMm', 'Simulator changes stage at', 'mm', 'behaviour', {
    help: 'Travel of the pedal',
    required,
  }),
  field('sensorFullScaleKpa', 'Full scale of the pressure sensors', 'kPa', 'behaviour', { required }),
  field('ratedCurrentA', 'Rated peak current', 'A', 'behaviour', { required }),
];

const moreFields: readonly SheetField[] = [
  field('ratedVoltageV', 'Rated voltage', 'V', 'behaviour'),
  field('linkageEfficiency', 'Linkage efficiency', '1', 'behaviour'),
  field('masterEfficiency', 'Master cylinder efficiency', '1', 'behaviour'),
  field('masterSpringForceN', 'Master cylinder spring', 'N', 'behaviour'),
  field('simulatorPreloadN', 'Simulator preload', 'N', 'behaviour', { help: 'At the pedal' }),
  field('responseTimeConstantS', 'Time constant of a wheel', 's', 'behaviour'),
  field('sensorSupplyV', 'Sensor supply', 'V', 'behaviour'),
  field('sensorOffsetRatio', 'Sensor signal at no pressure', '1', 'behaviour', { help: 'Share of its supply' }),
  field('sensorFullScaleRatio', 'Sensor signal at full scale', '1', 'behaviour', { help: 'Share of its supply' }),
  field('sleepAfterS', 'Asleep after', 's', 'behaviour', { help: 'From the key off to the current asleep' }),
  field('backupBank', 'Backup bank', '', 'behaviour', {
    help: 'None only where the maker’s data says so: its proof of discharge is then not asked for',
    choices: [
      { value: 'fitted', title: 'Fitted, or not known' },
      { value: 'none', title: 'None fitted' },
    ],
  }),
  field('backupCapacitanceF', 'Capacitance of the bank', 'F', 'behaviour', {
    help: 'Left empty, its energy is not judged',
  }),
  field('backupVoltageFullV', 'Backup bank full', 'V', 'behaviour'),
  field('backupVoltageMinV', 'Backup bank useful down to', 'V', 'behaviour'),
  field('energyPerStopJ', 'Energy of one stop', 'J', 'behaviour'),
  field('fallbackForceN', 'Pedal force of the fallback test', 'N', 'behaviour'),
  field('category', 'Rule with the assist gone', '', 'behaviour', {
    choices: [
      { value: 'light', title: 'Light vehicle: 2.44 m/s²' },
      { value: 'own', title: 'A rule of its own' },
    ],
  }),
  field('ownDecelerationMinMPerS2', 'Deceleration of that rule', 'm/s2', 'behaviour', {
    help: 'Of a rule of its own, with the assist gone',
  }),
  field('massKg', 'Vehicle mass', 'kg', 'behaviour', {
    help: 'With tyres and brakes: what pressure its rule takes with the assist gone',
  }),
  field('tyreRadiusMm', 'Tyre radius', 'mm', 'behaviour'),
  field('frictionCoefficientFront', 'Friction, front', '1', 'behaviour'),
  field('pistonAreaFrontMm2', 'Piston area, front', 'mm2', 'behaviour', { help: 'Pistons of one side of one caliper' }),
  field('effectiveRadiusFrontMm', 'Effective radius, front', 'mm', 'behaviour'),
  field('frictionCoefficientRear', 'Friction, rear', '1', 'behaviour'),
  field('pistonAreaRearMm2', 'Piston area, rear', 'mm2', 'behaviour'),
  field('effectiveRadiusRearMm', 'Effective radius, rear', 'mm', 'behaviour'),
  field('drumFactorRear', 'Drum, rear', 'N·m/kPa', 'behaviour', { help: 'Torque of one wheel to each kPa' }),
  field('safeWaitMin', 'Wait before hands go in', 'min', 'limit', { help: 'By the maker’s data' }),
  field('safeVoltageV', 'Bank is safe below', 'V', 'limit'),
  field('stopsMin', 'Stops from the bank at least', '1', 'limit'),
  field('supplyDropMaxV', 'Supply drop at most', 'V', 'limit'),
  field('groundDropMaxV', 'Ground drop at most', 'V', 'limit'),
  field('quiescentCurrentMaxMa', 'Current asleep at most', 'mA', 'limit'),
  field('steadyErrorMaxKpa', 'Steady error at most', 'kPa', 'limit'),
  field('lagMaxS', 'Lag at most', 's', 'limit'),
  field('deadTimeMaxS', 'Dead time at most', 's', 'limit'),
  field('overshootMaxPercent', 'Overshoot at most', '%', 'limit'),
  field('panicRiseTimeMaxS', 'Time to 90 % at most', 's', 'limit', { help: 'Of the fastest press' }),
  field('strokeCreepMaxMmPerMin', 'Creep of the pedal at most', 'mm/min', 'limit'),
  field('fallbackPressureMinKpa', 'Fallback pressure at least', 'kPa', 'limit', {
    help: 'Left empty, the vehicle’s figures or the pedal’s own ratio say it',
  }),
  field('residualMaxKpa', 'Residual pressure at most', 'kPa', 'limit'),
  field('releaseTimeMaxS', 'Release time at most', 's', 'limit'),
  field('sensorOffsetMaxPercent', 'Zero of a sensor, at most', '%', 'tolerance', { help: 'Of its span' }),
  field('sensorGainTolerancePercent', 'Gain of a sensor, tolerance', '%', 'tolerance'),
  field('linearityMaxPercent', 'Linearity of a sensor, at most', '%', 'tolerance', { help: 'Of its span' }),
  field('trackingGainTolerancePercent', 'Gain of a wheel, tolerance', '%', 'tolerance'),
  field('simulatorTolerancePercent', 'Simulator tolerance', '%', 'tolerance', { help: 'Of each of its figures' }),
];

/** Form fields in the order a technician needs them. */
export const plungerFields: readonly SheetField[] = [
  sourceField,
  field('plungerBoreMm', 'Plunger bore', 'mm', 'size', { required }),
  field('plungerStrokeMm', 'Plunger stroke', 'mm', 'size', { required }),
  ...pedalFields,
  ...moreFields,
  field('plungerCreepMaxMmPerMin', 'Creep of the plunger at most', 'mm/min', 'limit', {
    help: 'While the pressure is held',
  }),
];

export const accumulatorFields: readonly SheetField[] = [
  sourceField,
  ...storeFields({ lamp: 'Lamp lights at' }),
  ...pedalFields,
  ...moreFields,
  sheetFields<AccumulatorSpec>()('motorRunMaxS', 'Motor runs at most', 's', 'limit', {
    help: 'At a stretch; the step ends when it is used up',
  }),
];
