import type { CharacteristicId } from '../../src/core/quantities/characteristics';
import { ambientFrom } from '../../src/core/quantities/standard-atmosphere';
import { expandedUncertainty } from '../../src/core/instruments/uncertainty';
import { defaultInstruments, instrumentsByChannel } from '../../src/core/instruments/default-instruments';
import { labelledSeed, randomSource } from '../../src/core/physics/random';
import { runByItself } from '../../src/core/rig/run-by-itself';
import { rigForStep } from '../../src/core/rig/run-step';
import { defaultWorkshopLimits } from '../../src/core/families';
import { defaultWorkshopSchools } from '../../src/core/procedure/workshop-limits';
import type { GuidePhase } from '../../src/core/procedure/guide-phase';
import { noCorrections } from '../../src/core/procedure/step-analysis';
import type { StepContext } from '../../src/core/procedure/step-context';
import { liveFeed, type MeasuredStep } from '../../src/core/procedure/step-definition';
import type { InLineUnit } from '../../src/core/families/vacuum-remote/in-line-slave/geometry';
import { supplyOf, type Kind } from '../../src/core/contract/kind';
import { inLineSlave } from '../../src/core/families/vacuum-remote/in-line-slave';
import { servoCylinder } from '../../src/core/families/vacuum-remote/servo-cylinder';
import { expectedForce, pullBegins, type ServoUnit } from '../../src/core/families/vacuum-remote/servo-cylinder/servo';
import {
  servoCylinderSchema,
  type ServoCylinderSpec,
} from '../../src/core/families/vacuum-remote/servo-cylinder/sheet';
import { runOutInput } from '../../src/core/families/vacuum-remote/unit/control-valve';
import {
  cutInPressure,
  expectedHysteresis,
  expectedRatio,
} from '../../src/core/families/vacuum-remote/in-line-slave/quasi-static';
import type { PlantCondition } from '../../src/core/families/vacuum-remote/unit/faults';
import { inLineSchema, type InLineSpec } from '../../src/core/families/vacuum-remote/unit/sheet';

/** The stand-in's instruments with what their records say of their lags: lines of up to 10 ms, force cells of none, s. */
const recorded = defaultInstruments.map((instrument) => ({
  ...instrument,
  lagSeconds: instrument.channel.endsWith('_pressure') ? 0.005 : 0,
}));

/** Four invented units, from a small single to a tandem truck unit, for recovery studies. */
const inLineGeometries: readonly InLineSpec[] = [
  inLineSlave.sheet.example.spec,
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

/** Two invented servo cylinders, a small one and a tandem. */
const servoGeometries: readonly ServoCylinderSpec[] = [
  servoCylinder.sheet.example.spec,
  servoCylinderSchema.parse({
    layout: 'servo-cylinder',
    powerPistonDiameterMm: 180,
    powerPistons: 2,
    cutInPressureKpa: 300,
    controlAreaRatio: 0.045,
    returnSpringForceN: 300,
    hysteresisKpa: 100,
    ratedVacuumKpa: 60,
    referenceInputKpa: 1200,
    shellVolumeCm3: 5200,
    appliedVolumeCm3: 2100,
    reservoirVolumeCm3: 6000,
  }),
];

/** One layout under study: its family, and what the model says is true of a unit at a vacuum (Pa). */
type StudiedKind<Spec, Unit> = Kind<Spec, Unit, PlantCondition>;

interface Studied<Spec, Unit> {
  readonly kind: StudiedKind<Spec, Unit>;
  readonly truths: (unit: Unit, vacuum: number) => readonly (readonly [CharacteristicId, number])[];
}

const inLine: Studied<InLineSpec, InLineUnit> = {
  kind: inLineSlave,
  truths: (unit, vacuum) => [
    ['boost-ratio', expectedRatio(unit, vacuum)],
    ['boost-slope', unit.a + unit.b],
    ['run-out-input', runOutInput(unit, vacuum)],
    ['cut-in-pressure', cutInPressure(unit)],
    ['hysteresis', expectedHysteresis(unit)],
  ],
};

const servo: Studied<ServoCylinderSpec, ServoUnit> = {
  kind: servoCylinder,
  truths: (unit, vacuum) => [
    ['servo-force', expectedForce(unit, vacuum)],
    ['servo-slope', unit.forceGain],
    ['run-out-input', runOutInput(unit, vacuum)],
    ['cut-in-pressure', pullBegins(unit)],
    ['hysteresis', unit.hysteresis],
  ],
};

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

function stepOf<Spec, Unit>(kind: StudiedKind<Spec, Unit>, id: string): MeasuredStep<Unit> | null {
  const step = kind.steps.find((each) => each.id === id);
  return step?.kind === 'measured' ? step : null;
}

/**
 * One simulated bench and unit: gauge agreement, then the boost curve at the bench's ordinary noise with a
 * ramp of 20–40 s and a pair error of up to 2 %. Returns what was found against the model's truth.
 */
function recoverBoostCurve<Spec, Unit>(of: Studied<Spec, Unit>, spec: Spec, seed: number): RecoveryCase[] {
  const draw = randomSource(labelledSeed(seed, 'recovery'));
  const { kind } = of;
  const unit = kind.sheet.prepare(spec);
  const context: StepContext<Unit> = {
    unit,
    ambient: ambientFrom({ altitude: 1420 }),
    airTemperature: 284.15,
    benchVolume: 0.6e-3,
    shell: { kind: 'as-air', settled: true },
    instruments: instrumentsByChannel(recorded),
    date: '2026-11-23',
    corrections: noCorrections,
    workshopLimits: defaultWorkshopLimits,
    schools: defaultWorkshopSchools,
    plan: 'bench',
  };
  const setting = { faults: [], benchSeed: seed, runSeed: seed, pairError: (draw.uniform() - 0.5) * 0.04 };
  const curveStep = stepOf(kind, 'boost-curve');
  if (!curveStep) throw new Error(`${kind.family} draws no boost curve`);
  const agreementStep = stepOf(kind, 'gauge-agreement');
  const agreement = agreementStep?.analyse(
    runByItself(rigForStep(kind, agreementStep, context, setting), liveFeed(agreementStep).guide(context)),
    context,
  );
  const corrected = { ...context, corrections: { ...noCorrections, ...agreement?.corrections } };
  const phases = paced(liveFeed(curveStep).guide(corrected), 20 + 20 * draw.uniform(), 20 + 20 * draw.uniform());
  const analysis = curveStep.analyse(runByItself(rigForStep(kind, curveStep, corrected, setting), phases), corrected);
  // The regulator holds the supply at the bench's vacuum, so that is the vacuum the truth belongs to.
  const vacuum = supplyOf(kind, context);
  return of.truths(unit, vacuum).map(([characteristic, truth]) => {
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
 * node --import tsx scripts/studies/boost-curve-recovery.ts <in-line|servo> <first geometry> <geometries> <seeds each>
 * prints every case as JSON. A process of its own, because the simulation is a thousand times faster outside
 * a test runner's sandbox.
 */
const [first, count, seeds] = process.argv.slice(3).map(Number);

function casesOf<Spec, Unit>(of: Studied<Spec, Unit>, geometries: readonly Spec[]): RecoveryCase[] {
  return geometries
    .slice(first, first + count)
    .flatMap((spec, at) =>
      Array.from({ length: seeds }, (_, seed) => recoverBoostCurve(of, spec, 10_000 * (first + at) + seed + 1)),
    )
    .flat();
}

const cases = process.argv[2] === 'servo' ? casesOf(servo, servoGeometries) : casesOf(inLine, inLineGeometries);
process.stdout.write(JSON.stringify(cases));
