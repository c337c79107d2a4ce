/*
 * How well the pump's cycles alone tell low precharge, internal leak, weak pump and shifted switch apart, over simulated
 * units that differ among themselves, with severities from a fifth on.
 * `node --import tsx scripts/studies/cycles.ts <first> <count>` prints JSON.
 */
import { kindNamed } from '@/core/families';
import type { MotorPumpSpec } from '@/core/families/motor-pump-boost/sheet';
import { contextAt } from '@/core/formats/site-file';
import { checkKind } from '@/core/formats/unit-sheet';
import { labelledSeed, randomSource } from '@/core/physics/random';
import { simulateStep } from '@/core/rig/run-step';

export const cycleKinds = ['sound', 'low precharge', 'internal leak', 'weak pump', 'shifted switch'] as const;
export type CycleKind = (typeof cycleKinds)[number];

const faultOf: Readonly<Record<Exclude<CycleKind, 'sound'>, readonly string[]>> = {
  'low precharge': ['accumulator-precharge-low'],
  'internal leak': ['internal-leak'],
  'weak pump': ['pump-vanes-worn'],
  'shifted switch': ['pressure-switch-low', 'pressure-switch-high', 'switch-band-narrow'],
};

const readAs: Readonly<Record<string, CycleKind>> = {
  'precharge-low': 'low precharge',
  'internal-leak': 'internal leak',
  'pump-weak': 'weak pump',
  'switch-low': 'shifted switch',
  'switch-high': 'shifted switch',
  'switch-band-narrow': 'shifted switch',
};

/** As an ordinary logger would, Hz. */
const sampleRate = 10;

export interface CycleCase {
  readonly truth: CycleKind;
  readonly severity: number;
  readonly read: CycleKind | 'none';
}

export function cycleCase(seed: number): CycleCase {
  const kind = kindNamed('motor-pump-boost');
  const step = kind.steps.find((each) => each.id === 'rest-cycle');
  if (step?.kind !== 'measured') throw new Error('no rest-cycle');
  const random = randomSource(labelledSeed(seed, 'cycle study'));
  const between = (low: number, high: number) => low + (high - low) * random.uniform();
  const spread = (share: number) => 1 + share * random.normal();
  const precharge = between(6000, 9000);
  const cutIn = between(1.5, 1.8) * precharge;
  const spec: MotorPumpSpec = {
    ...(kind.sheet.example.spec as MotorPumpSpec),
    accumulatorVolumeCm3: between(180, 500),
    prechargeKpa: precharge,
    cutInKpa: cutIn,
    cutOutKpa: cutIn * between(1.22, 1.35),
    lampKpa: cutIn * 0.75,
    leastUsefulKpa: cutIn * 0.68,
    pumpFlowCm3PerS: between(4, 9),
    internalLeakCm3PerMin: between(4, 9),
    motorRunMaxS: 300,
    jumpInForceN: 50,
  };
  const truth: MotorPumpSpec = {
    ...spec,
    prechargeKpa: spec.prechargeKpa * spread(0.015),
    pumpFlowCm3PerS: spec.pumpFlowCm3PerS * spread(0.03),
    internalLeakCm3PerMin: spec.internalLeakCm3PerMin * spread(0.08),
    gasTimeConstantS: 30 * Math.exp(0.2 * random.normal()),
  };
  const cycle = cycleKinds[seed % cycleKinds.length];
  const severity = between(0.2, 1);
  const ids = cycle === 'sound' ? [] : faultOf[cycle];
  const faults = cycle === 'sound' ? [] : [{ id: ids[Math.floor(random.uniform() * ids.length)], severity }];
  const site = { altitudeM: 1420, airTemperatureC: between(-10, 30) };
  const sheet = (given: MotorPumpSpec) => {
    const checked = checkKind(kind, 'study', given, 'study');
    if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
    return checked.value;
  };
  const there = contextAt(sheet(truth), site, '2026-11-24');
  const trace = simulateStep(kind, step, there, {
    faults,
    benchSeed: seed + 1,
    runSeed: seed + 1,
    sampleRate,
  });
  const analysis = step.analyse(trace, contextAt(sheet(spec), site, '2026-11-24'));
  const note = analysis.notes.find((each) => each.code === 'cycles-speak-for');
  if (note?.code === 'cycles-speak-for') return { truth: cycle, severity, read: readAs[note.fault] };
  return { truth: cycle, severity, read: (analysis.cycles?.length ?? 0) > 0 ? 'sound' : 'none' };
}

const [first, count] = process.argv.slice(2).map(Number);
if (count > 0) process.stdout.write(JSON.stringify(Array.from({ length: count }, (_, at) => cycleCase(first + at))));
