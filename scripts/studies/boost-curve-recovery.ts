import { supplyOf } from '@/core/families/plan';
import type { CharacteristicId } from '../../src/core/quantities/characteristics';
import { ambientFrom } from '../../src/core/quantities/standard-atmosphere';
import { expandedUncertainty } from '../../src/core/instruments/uncertainty';
import { instrumentsByChannel } from '../../src/core/instruments/default-instruments';
import { labelledSeed, randomSource } from '../../src/core/rig/random';
import { runByItself } from '../../src/core/rig/run-by-itself';
import { rigForStep } from '../../src/core/rig/run-step';
import { defaultWorkshopLimits, defaultWorkshopSchools } from '../../src/core/families/common/default-limits';
import type { GuidePhase } from '../../src/core/families/guide-phase';
import { noCorrections } from '../../src/core/families/step-analysis';
import type { StepContext } from '../../src/core/families/step-context';
import type { MeasuredStep } from '../../src/core/families/step-definition';
import type { InLineUnit } from '../../src/core/families/vacuum-remote/geometry';
import { vacuumRemote } from '../../src/core/families/vacuum-remote';
import { runOutInput } from '../../src/core/families/vacuum-remote/control-valve';
import { cutInPressure, expectedHysteresis, expectedRatio } from '../../src/core/families/vacuum-remote/quasi-static';
import { inLineSchema, type InLineSpec } from '../../src/core/families/vacuum-remote/sheet';

/** Four invented units, from a small single to a tandem truck unit, for recovery studies. */
const studyGeometries: readonly InLineSpec[] = [
  vacuumRemote.example.spec,
  inLineSchema.parse({
    powerPistonDiameterMm: 152,
    slaveBoreMm: 19.05,
    pushRodDiameterMm: 8,
    cutInPressureKpa: 250,
    controlAreaRatio: 0.035,
    hysteresisKpa: 90,
    ratedVacuumKpa: 60,
    referenceInputKpa: 1700,
    shellVolumeCm3: 2300,
    appliedVolumeCm3: 900,
  }),
  inLineSchema.parse({
    powerPistonDiameterMm: 254,
    slaveBoreMm: 34.9,
    pushRodDiameterMm: 13,
    cutInPressureKpa: 450,
    controlAreaRatio: 0.045,
    returnSpringForceN: 260,
    hysteresisKpa: 150,
    ratedVacuumKpa: 60,
    referenceInputKpa: 1800,
    shellVolumeCm3: 8200,
    appliedVolumeCm3: 3100,
  }),
  inLineSchema.parse({
    powerPistonDiameterMm: 232,
    powerPistons: 2,
    slaveBoreMm: 38.1,
    pushRodDiameterMm: 14,
    cutInPressureKpa: 520,
    controlAreaRatio: 0.03,
    returnSpringForceN: 320,
    hysteresisKpa: 180,
    ratedVacuumKpa: 62,
    referenceInputKpa: 2400,
    shellVolumeCm3: 13500,
    appliedVolumeCm3: 5200,
  }),
];

export interface RecoveryCase {
  readonly characteristic: CharacteristicId;
  readonly truth: number;
  readonly value: number;
  readonly expanded: number;
}

/** Same guide, but the slow pull takes `seconds` up and `back` down. */
function paced(phases: readonly GuidePhase[], seconds: number, back: number): GuidePhase[] {
  return phases.map((phase) => {
    if (phase.instruction.code === 'pull-slowly-past') return { ...phase, lever: { ...phase.lever, seconds } };
    if (phase.instruction.code === 'let-back-slowly') return { ...phase, lever: { ...phase.lever, seconds: back } };
    return phase;
  });
}

const agreementStep = stepOf('gauge-agreement');
const curveStep = stepOf('boost-curve');

function stepOf(id: string): MeasuredStep<InLineUnit> {
  const step = vacuumRemote.steps.find((each) => each.id === id);
  if (step?.kind !== 'measured') throw new Error(`${id} is not a measured step`);
  return step;
}

/**
 * One simulated bench and unit: gauge agreement, then the boost curve at the bench's ordinary noise with a
 * ramp of 20–40 s and a pair error of up to 2 %. Returns what was found against the model's truth.
 */
function recoverBoostCurve(spec: InLineSpec, seed: number): RecoveryCase[] {
  const draw = randomSource(labelledSeed(seed, 'recovery'));
  const unit = vacuumRemote.prepare(spec);
  const context: StepContext<InLineUnit> = {
    unit,
    ambient: ambientFrom({ altitude: 1420 }),
    airTemperature: 284.15,
    benchVolume: 0.6e-3,
    instruments: instrumentsByChannel([]),
    date: '2026-11-23',
    corrections: noCorrections,
    workshopLimits: defaultWorkshopLimits,
    schools: defaultWorkshopSchools,
    plan: 'bench',
  };
  const setting = { faults: [], benchSeed: seed, runSeed: seed, pairError: (draw.uniform() - 0.5) * 0.04 };
  const agreementRig = rigForStep(vacuumRemote, agreementStep, context, setting);
  const agreement = agreementStep.analyse(runByItself(agreementRig, agreementStep.guide(context)), context);
  const corrected = { ...context, corrections: { ...noCorrections, ...agreement.corrections } };
  const phases = paced(curveStep.guide(corrected), 20 + 20 * draw.uniform(), 20 + 20 * draw.uniform());
  const analysis = curveStep.analyse(
    runByItself(rigForStep(vacuumRemote, curveStep, corrected, setting), phases),
    corrected,
  );
  // The regulator holds the supply at the bench's vacuum, so that is the vacuum the truth belongs to.
  const vacuum = supplyOf(vacuumRemote, context);
  const truths: readonly [CharacteristicId, number][] = [
    ['boost-ratio', expectedRatio(unit, vacuum)],
    ['boost-slope', unit.a + unit.b],
    ['run-out-input', runOutInput(unit, vacuum)],
    ['cut-in-pressure', cutInPressure(unit)],
    ['hysteresis', expectedHysteresis(unit)],
  ];
  return truths.map(([characteristic, truth]) => {
    const found = analysis.characteristics.find((each) => each.id === characteristic);
    const measured = found?.kind === 'measured';
    return {
      characteristic,
      truth,
      value: measured ? found.estimate.value : Number.NaN,
      expanded: measured ? expandedUncertainty(found.estimate) : Number.NaN,
    };
  });
}

/*
 * node --import tsx scripts/studies/boost-curve-recovery.ts <first geometry> <geometries> <seeds each>
 * prints every case as JSON. A process of its own, because the simulation is a thousand times faster outside
 * a test runner's sandbox.
 */
const [first, count, seeds] = process.argv.slice(2).map(Number);
const cases = studyGeometries
  .slice(first, first + count)
  .flatMap((spec, at) =>
    Array.from({ length: seeds }, (_, seed) => recoverBoostCurve(spec, 10_000 * (first + at) + seed + 1)),
  )
  .flat();
process.stdout.write(JSON.stringify(cases));
