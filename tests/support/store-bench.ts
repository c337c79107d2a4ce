import { kindNamed } from '@/core/families';
import type { StoreCircuit, StoreUnit } from '@/core/toolboxes/store/model/store-unit';
import type { Corrections } from '@/core/procedure/step-analysis';
import type { StepContext } from '@/core/procedure/step-context';
import { contextAt } from '@/core/formats/site-file';
import { checkKind } from '@/core/formats/unit-sheet';
import { quantity, type AbsolutePressure } from '@/core/quantities/quantity';

/** Atmosphere of the invented workshop, Pa, and its air, K. */
export const shopAmbient = 85.4e3;
export const shopAir = 293.15;

/** A store of round figures, SI, pressures gauge. */
export const plainStore: StoreUnit = {
  volume: 250e-6,
  precharge: 8e6,
  cutIn: 14e6,
  cutOut: 17.5e6,
  lamp: 10.5e6,
  leastUseful: 9e6,
  timeConstant: 30,
  pumpFlow: 8e-6,
  fluidPerApplication: 6e-6,
  internalLeak: 0.02e-6,
  dead: null,
  halfLifeMin: null,
  motorRunMax: null,
  restTimeMin: null,
  chargeTimeMax: null,
  internalLeakMax: null,
  assistedApplicationsMin: null,
  prechargeTolerance: null,
  switchTolerance: null,
};

/** The one circuit of a unit that is a store and nothing else. */
export const onlyCircuit: StoreCircuit<StoreUnit> = {
  suffix: '',
  place: '',
  title: 'Store',
  pressure: 'accumulator_pressure',
  pump: 'pump_on',
  lamp: 'lamp_red',
  storeOf: (unit) => unit,
};

/** A bench in the workshop's air with a plain store on it, its gauges those of the invented bench. */
export function storeContext(
  change: Partial<StoreUnit> = {},
  corrections: Partial<Corrections> = {},
): StepContext<StoreUnit> {
  const kind = kindNamed('motor-pump-boost');
  const checked = kind && checkKind(kind, 'sheet', kind.sheet.example.spec, 'test');
  if (!checked?.ok) throw new Error('the example sheet is not valid');
  const here = contextAt(checked.value, { altitudeM: 1420, airTemperatureC: shopAir - 273.15 }, '2026-11-24');
  return {
    ...here,
    ambient: { ...here.ambient, pressure: quantity<AbsolutePressure>(shopAmbient) },
    airTemperature: shopAir,
    unit: { ...plainStore, ...change },
    corrections: { ...here.corrections, ...corrections },
  };
}
