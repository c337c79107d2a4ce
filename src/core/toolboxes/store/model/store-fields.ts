import * as z from 'zod';
import { type SheetField, optionalPositive, positive, sheetFields } from '../../../contract/sheet-field';
import type { StoreUnit } from './store-unit';

/** Fields that the sheet of every unit with a gas accumulator has, pressures gauge; circuits with one store each. */
export const storeShape = {
  accumulatorVolumeCm3: positive(20_000),
  prechargeKpa: positive(40_000),
  cutInKpa: positive(40_000),
  cutOutKpa: positive(40_000),
  lampKpa: positive(40_000),
  leastUsefulKpa: positive(40_000),
  gasTimeConstantS: positive(3600).default(30),
  pumpFlowCm3PerS: positive(2000),
  fluidPerApplicationCm3: positive(500),
  internalLeakCm3PerMin: positive(500).default(3),
  deadKpa: optionalPositive(2000),
  restTimeMinS: optionalPositive(86_400),
  chargeTimeMaxS: optionalPositive(3600),
  internalLeakMaxCm3PerMin: optionalPositive(2000),
  assistedApplicationsMin: z.number().int().min(1).max(60).optional(),
  halfLifeMinH: optionalPositive(2000),
  prechargeTolerancePercent: optionalPositive(50),
  switchTolerancePercent: optionalPositive(50),
} as const;

type StoreSpec = z.infer<z.ZodObject<typeof storeShape>>;

/** What cannot be of a store's figures: named by the field that is wrong. */
export function storeContradictions(
  spec: Pick<StoreSpec, 'prechargeKpa' | 'cutInKpa' | 'cutOutKpa' | 'lampKpa' | 'leastUsefulKpa'>,
  refuse: (field: keyof StoreSpec, message: string) => void,
): void {
  if (spec.cutInKpa >= spec.cutOutKpa) refuse('cutInKpa', 'must be below cutOutKpa');
  if (spec.prechargeKpa >= spec.cutInKpa) refuse('prechargeKpa', 'must be below cutInKpa, or nothing is stored');
  if (spec.lampKpa >= spec.cutInKpa) refuse('lampKpa', 'must be below cutInKpa, or the lamp never goes out');
  if (spec.leastUsefulKpa >= spec.cutOutKpa) refuse('leastUsefulKpa', 'must be below cutOutKpa');
}

/** The store in SI. */
export function storeFromSpec(spec: StoreSpec & { readonly motorRunMaxS?: number }): StoreUnit {
  const percent = (value: number | undefined) => (value === undefined ? null : value / 100);
  const scaled = (value: number | undefined, factor: number) => (value === undefined ? null : value * factor);
  const perMinute = 1e-6 / 60;
  return {
    volume: spec.accumulatorVolumeCm3 * 1e-6,
    precharge: spec.prechargeKpa * 1e3,
    cutIn: spec.cutInKpa * 1e3,
    cutOut: spec.cutOutKpa * 1e3,
    lamp: spec.lampKpa * 1e3,
    leastUseful: spec.leastUsefulKpa * 1e3,
    timeConstant: spec.gasTimeConstantS,
    pumpFlow: spec.pumpFlowCm3PerS * 1e-6,
    fluidPerApplication: spec.fluidPerApplicationCm3 * 1e-6,
    internalLeak: spec.internalLeakCm3PerMin * perMinute,
    dead: scaled(spec.deadKpa, 1e3),
    motorRunMax: spec.motorRunMaxS ?? null,
    restTimeMin: spec.restTimeMinS ?? null,
    chargeTimeMax: spec.chargeTimeMaxS ?? null,
    internalLeakMax: scaled(spec.internalLeakMaxCm3PerMin, perMinute),
    assistedApplicationsMin: spec.assistedApplicationsMin ?? null,
    halfLifeMin: scaled(spec.halfLifeMinH, 3600),
    prechargeTolerance: percent(spec.prechargeTolerancePercent),
    switchTolerance: percent(spec.switchTolerancePercent),
  };
}

/** Form fields of a store, in the order a technician needs them. */
export function storeFields(words: { readonly lamp: string }): readonly SheetField[] {
  const field = sheetFields<StoreSpec>();
  const required = true;
  return [
    field('accumulatorVolumeCm3', 'Accumulator volume', 'cm3', 'size', { help: 'Gas side, empty of fluid', required }),
    field('prechargeKpa', 'Precharge', 'kPa', 'behaviour', { help: 'Gauge, at 20 °C', required }),
    field('cutInKpa', 'Pump starts at', 'kPa', 'behaviour', { required }),
    field('cutOutKpa', 'Pump stops at', 'kPa', 'behaviour', { required }),
    field('lampKpa', words.lamp, 'kPa', 'behaviour', { required }),
    field('leastUsefulKpa', 'Least useful pressure', 'kPa', 'behaviour', {
      help: 'A stroke that ends below does not count',
      required,
    }),
    field('pumpFlowCm3PerS', 'Pump flow', 'cm3/s', 'behaviour', {
      help: 'At working pressure, to each circuit',
      required,
    }),
    field('fluidPerApplicationCm3', 'Fluid of one application', 'cm3', 'behaviour', { required }),
    field('gasTimeConstantS', 'Gas time constant', 's', 'behaviour', {
      help: 'How fast the gas takes its shell’s temperature',
    }),
    field('internalLeakCm3PerMin', 'Leak of a sound circuit', 'cm3/min', 'behaviour', { help: 'Inside, at cut-out' }),
    field('restTimeMinS', 'Rest at least', 's', 'limit'),
    field('chargeTimeMaxS', 'Charge time at most', 's', 'limit'),
    field('internalLeakMaxCm3PerMin', 'Internal leak at most', 'cm3/min', 'limit'),
    field('assistedApplicationsMin', 'Applications at least', '1', 'limit'),
    field('halfLifeMinH', 'Half-life at least', 'h', 'limit'),
    field('deadKpa', 'Counts as dead below', 'kPa', 'limit'),
    field('prechargeTolerancePercent', 'Precharge tolerance', '%', 'tolerance'),
    field('switchTolerancePercent', 'Switch tolerance', '%', 'tolerance'),
  ];
}
