import * as z from 'zod';
import { ruleOf } from '../../calculators/stop-rule';
import { optionalPositive, positive, sheetFields, type SheetField } from '../../contract/sheet-field';
import { brakeSheetFields, brakeShape, checkRearBrakes } from '../../toolboxes/foundation/brake-sheet';
import type { BrakeFields } from '../../toolboxes/foundation/brakes-from-spec';

/** Fields of a workshop's own rule, as the calculators call them. */
const ownFields = {
  speedKmh: 'ownSpeedKmh',
  decelerationMPerS2: 'ownDecelerationMinMPerS2',
  distanceA: 'ownDistanceA',
  distanceB: 'ownDistanceB',
  pedalForceN: 'ownPedalForceMaxN',
  source: 'ownSource',
} as const;

/** Sheet of what sits behind the unit: pedal, master cylinder, valves, brakes, lamps. Pressures gauge. */
export const foundationSchema = z
  .strictObject({
    category: z.enum(['light', 'own']),
    ownSpeedKmh: optionalPositive(200),
    ownDecelerationMinMPerS2: optionalPositive(15),
    ownDistanceA: z.number().min(0).max(2).optional(),
    ownDistanceB: optionalPositive(1),
    ownPedalForceMaxN: optionalPositive(3000),
    ownSource: z.string().trim().min(3).max(200).optional(),
    masterBoreMm: positive(100),
    masterEfficiency: positive(1).default(0.95),
    masterSpringForceN: z.number().min(0).max(1000).default(60),
    pedalRatio: positive(20),
    linkageEfficiency: positive(1).default(0.9),
    vehicleRatioMin: positive(20).default(2),
    vehicleRatioMax: positive(30).default(6),
    vehicleRatioForceN: positive(1000).default(200),
    splitPressureKpa: optionalPositive(20_000),
    rearSlope: z.number().min(0).max(1).optional(),
    splitTolerancePercent: positive(100).default(15),
    rearSlopeTolerance: positive(1).default(0.1),
    ...brakeShape,
    displacedVolumeCm3: optionalPositive(500),
    pedalTravelMaxMm: optionalPositive(500),
    stopLampKind: z.enum(['hydraulic', 'plunger']).default('hydraulic'),
    stopLampMinKpa: positive(5000).default(200),
    stopLampMaxKpa: positive(10_000).default(800),
    stopLampTravelMinMm: optionalPositive(100),
    stopLampTravelMaxMm: optionalPositive(100),
    fluid: z.enum(['glycol', 'silicone', 'mineral']).default('glycol'),
    bleedOrder: z.enum(['farthest-first', 'by-circuit']).default('farthest-first'),
  })
  .superRefine((spec, context) => {
    const refuse = (field: string, message: string) => context.addIssue({ code: 'custom', path: [field], message });
    checkRearBrakes(spec, refuse);
    const rule = ruleOf(spec.category, ownRuleOf(spec));
    if (rule.kind === 'incomplete')
      for (const field of rule.missing)
        refuse(
          ownFields[field],
          'is needed: a rule of the workshop’s own is whole, nothing of the light rule stands in for it',
        );
    if (spec.vehicleRatioMin >= spec.vehicleRatioMax) refuse('vehicleRatioMin', 'must be below vehicleRatioMax');
    if (spec.stopLampMinKpa >= spec.stopLampMaxKpa) refuse('stopLampMinKpa', 'must be below stopLampMaxKpa');
    if ((spec.splitPressureKpa === undefined) !== (spec.rearSlope === undefined))
      refuse(
        spec.rearSlope === undefined ? 'rearSlope' : 'splitPressureKpa',
        'is needed: a split has a pressure and a slope',
      );
    if (spec.stopLampKind === 'plunger') {
      const [low, high] = [spec.stopLampTravelMinMm, spec.stopLampTravelMaxMm];
      if (low === undefined) refuse('stopLampTravelMinMm', 'is needed for a plunger switch');
      if (high === undefined) refuse('stopLampTravelMaxMm', 'is needed for a plunger switch');
      if (low !== undefined && high !== undefined && low >= high)
        refuse('stopLampTravelMinMm', 'must be below stopLampTravelMaxMm');
    }
  });

export type FoundationSpec = z.infer<typeof foundationSchema>;

/** What a sheet says of a rule of the workshop's own. */
export function ownRuleOf(spec: {
  readonly [Field in (typeof ownFields)[keyof typeof ownFields]]?: number | string | undefined;
}) {
  return {
    speedKmh: spec.ownSpeedKmh as number | undefined,
    decelerationMPerS2: spec.ownDecelerationMinMPerS2 as number | undefined,
    distanceA: spec.ownDistanceA as number | undefined,
    distanceB: spec.ownDistanceB as number | undefined,
    pedalForceN: spec.ownPedalForceMaxN as number | undefined,
    source: spec.ownSource as string | undefined,
  };
}

const field = sheetFields<FoundationSpec>();
const required = true;
const ofOwn = { help: 'Of the rule that the vehicle is under, with its source' };

/** Form fields in the order a technician needs them. */
export const foundationFields: readonly SheetField[] = [
  field('category', 'The vehicle is under', '', 'identity', {
    required,
    choices: [
      { value: 'light', title: 'The rule of light vehicles' },
      { value: 'own', title: 'A rule of its own, written below' },
    ],
  }),
  field('fluid', 'Fluid', '', 'identity', {
    choices: [
      { value: 'glycol', title: 'Glycol (DOT 3, 4, 5.1)' },
      { value: 'silicone', title: 'Silicone (DOT 5)' },
      { value: 'mineral', title: 'Mineral oil' },
    ],
  }),
  field('bleedOrder', 'Bled', '', 'identity', {
    choices: [
      { value: 'farthest-first', title: 'Farthest wheel first' },
      { value: 'by-circuit', title: 'By circuit, as the maker says' },
    ],
  }),
  field('stopLampKind', 'Stop-lamp switch', '', 'identity', {
    choices: [
      { value: 'hydraulic', title: 'Worked by pressure' },
      { value: 'plunger', title: 'Worked by the pedal' },
    ],
  }),
  field('masterBoreMm', 'Master cylinder bore', 'mm', 'size', { required }),
  field('pedalRatio', 'Pedal ratio', '1', 'size', { required }),
  ...brakeSheetFields(sheetFields<BrakeFields>()),
  field('displacedVolumeCm3', 'Fluid displaced by the brakes', 'cm3', 'size'),
  field('masterEfficiency', 'Master cylinder efficiency', '1', 'behaviour'),
  field('masterSpringForceN', 'Master cylinder spring', 'N', 'behaviour'),
  field('linkageEfficiency', 'Linkage efficiency', '1', 'behaviour'),
  field('splitPressureKpa', 'Split pressure', 'kPa', 'behaviour', {
    help: 'Front pressure from which the rear falls behind',
  }),
  field('rearSlope', 'Rear slope', '1', 'behaviour', { help: 'Beyond the split pressure' }),
  field('splitTolerancePercent', 'Split pressure, tolerance', '%', 'tolerance'),
  field('rearSlopeTolerance', 'Rear slope, tolerance', '1', 'tolerance'),
  field('vehicleRatioMin', 'Assisted over unassisted, at least', '1', 'limit'),
  field('vehicleRatioMax', 'Assisted over unassisted, at most', '1', 'limit'),
  field('vehicleRatioForceN', 'Both at a pedal force of', 'N', 'limit', {
    help: 'Less assist is no fault at more foot, nor more of it at less',
  }),
  field('pedalTravelMaxMm', 'Pedal travel at most', 'mm', 'limit'),
  field('stopLampMinKpa', 'Stop lamp not below', 'kPa', 'limit'),
  field('stopLampMaxKpa', 'Stop lamp at', 'kPa', 'limit', { help: 'At the latest' }),
  field('stopLampTravelMinMm', 'Stop lamp not before', 'mm', 'limit', { help: 'Travel at the pedal' }),
  field('stopLampTravelMaxMm', 'Stop lamp after', 'mm', 'limit', { help: 'At the latest, travel at the pedal' }),
  field('ownSpeedKmh', 'Speed that the rule begins from', 'km/h', 'limit', ofOwn),
  field('ownDecelerationMinMPerS2', 'Deceleration at least', 'm/s²', 'limit', ofOwn),
  field('ownDistanceA', 'Distance: A of A·v + B·v²', 'm per km/h', 'limit', ofOwn),
  field('ownDistanceB', 'Distance: B of A·v + B·v²', 'm per (km/h)²', 'limit', ofOwn),
  field('ownPedalForceMaxN', 'Pedal force at most', 'N', 'limit', ofOwn),
  field('ownSource', 'Where the rule stands', '', 'limit', { ...ofOwn, text: true }),
];
