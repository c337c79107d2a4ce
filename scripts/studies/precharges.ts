/*
 * How well a precharge is found from a charge, over simulated charges: flows, gas time constants (from nearly isothermal
 * to nearly adiabatic), temperatures of −15 to 40 °C, volumes, precharges, noise and gauges all drawn from a seed.
 * `node --import tsx scripts/studies/precharges.ts <charge-from-empty|bleed-down> <cases>` prints JSON.
 */
import { kindNamed } from '@/core/families';
import { contextAt } from '@/core/formats/site-file';
import { checkKind } from '@/core/formats/unit-sheet';
import { expandedUncertainty } from '@/core/instruments/uncertainty';
import { labelledSeed, randomSource } from '@/core/physics/random';
import { simulateStep } from '@/core/rig/run-step';
import type { MotorPumpSpec } from '@/core/families/motor-pump-boost/sheet';

export interface PrechargeCase {
  readonly step: 'charge-from-empty' | 'bleed-down';
  /** Pa gauge at 20 °C. */
  readonly truth: number;
  readonly value: number | null;
  readonly expanded: number | null;
}

/** A shell's temperature is known from the air's to about this, K. */
const shellSpread = 1;

const kind = kindNamed('motor-pump-boost');

export function prechargeCase(seed: number, stepId: PrechargeCase['step']): PrechargeCase {
  if (!kind) throw new Error('no motor-pump family');
  const random = randomSource(labelledSeed(seed, 'precharge study'));
  const between = (low: number, high: number) => low + (high - low) * random.uniform();
  const precharge = between(3000, 9500);
  const cutIn = between(1.35, 1.8) * precharge;
  const cutOut = cutIn * between(1.2, 1.4);
  const celsius = between(-15, 40);
  const drawn: Partial<MotorPumpSpec> = {
    accumulatorVolumeCm3: between(120, 900),
    prechargeKpa: precharge,
    cutInKpa: cutIn,
    cutOutKpa: cutOut,
    lampKpa: cutIn * 0.8,
    leastUsefulKpa: cutIn * 0.7,
    pumpFlowCm3PerS: between(3, 14),
    gasTimeConstantS: 30,
    motorRunMaxS: 600,
    jumpInForceN: 50,
  };
  const spec = { ...(kind.sheet.example.spec as MotorPumpSpec), ...drawn };
  // The bench knows that its stores have settled.
  const site = (air: number) => ({ altitudeM: between(0, 1800), airTemperatureC: air, shellSettled: true });
  const sheet = (given: object) => {
    const checked = checkKind(kind, 'study', given, 'study');
    if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
    return checked.value;
  };
  const altitude = site(celsius);
  // The true unit's gas takes its shell's temperature faster or slower than the sheet says, and the shell is not at the air's.
  const heat = stepId === 'charge-from-empty' ? between(8, 200) : 30 * Math.exp(0.28 * random.normal());
  const truth = contextAt(
    sheet({ ...spec, gasTimeConstantS: heat }),
    { ...altitude, airTemperatureC: celsius + shellSpread * random.normal() },
    '2026-11-24',
  );
  const seen = contextAt(sheet(spec), altitude, '2026-11-24');
  const step = kind.steps.find((each) => each.id === stepId);
  if (step?.kind !== 'measured') throw new Error(`${stepId} is not measured`);
  const trace = simulateStep(kind, step, truth, { faults: [], benchSeed: seed + 1, runSeed: seed + 1 });
  const found = step.analyse(trace, seen).characteristics.find((each) => each.id === 'precharge');
  return {
    step: stepId,
    truth: precharge * 1e3,
    value: found?.kind === 'measured' ? found.estimate.value : null,
    expanded: found?.kind === 'measured' ? expandedUncertainty(found.estimate) : null,
  };
}

const [stepId, count] = process.argv.slice(2);
if (stepId === 'charge-from-empty' || stepId === 'bleed-down')
  process.stdout.write(JSON.stringify(Array.from({ length: Number(count) }, (_, seed) => prechargeCase(seed, stepId))));
