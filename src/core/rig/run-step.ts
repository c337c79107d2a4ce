import { type AnyFamily, planOf } from '../contract/family';
import type { ActiveFault } from '../physics/plant';
import type { StepContext } from '../procedure/step-context';
import type { MeasuredStep } from '../procedure/step-definition';
import type { Trace } from '../traces/trace';
import { labelledSeed } from '../physics/random';
import { runByItself } from './run-by-itself';
import { ordinaryNoise, standInRig, type BenchNoise, type StandInRig } from './stand-in-rig';

export interface StandInSetting {
  readonly faults: readonly ActiveFault[];
  /** Draws the bench's gauges. */
  readonly benchSeed: number;
  /** Draws the noise of the run. */
  readonly runSeed: number;
  /** Hz; 200 when left out. */
  readonly sampleRate?: number;
  readonly noise?: BenchNoise;
  readonly pairError?: number;
}

/** Bench volume of the stand-in where the site does not say, m3. */
const standInBenchVolume = 0.6e-3;

/** The stand-in rig with a unit mounted, ready for a step. */
export function rigForStep<Unit>(
  family: AnyFamily,
  step: MeasuredStep<Unit>,
  context: StepContext<Unit>,
  setting: StandInSetting,
): StandInRig {
  const { stand } = planOf(family, context.plan);
  return standInRig({
    stand,
    unit: context.unit,
    ambient: context.ambient.pressure,
    temperature: context.airTemperature,
    supplyVacuum: stand.supply(context.unit, context.ambient),
    benchVolume: context.benchVolume ?? standInBenchVolume,
    faults: setting.faults,
    instruments: context.instruments,
    benchSeed: setting.benchSeed,
    runSeed: labelledSeed(setting.runSeed, step.id),
    sampleRate: setting.sampleRate ?? step.sampleRate ?? 200,
    noise: setting.noise ?? ordinaryNoise,
    pairError: setting.pairError ?? 0,
    startsFrom: step.startsFrom,
  });
}

/** Runs a whole step on the stand-in rig, the rig pulling the lever, and returns its trace. */
export function simulateStep<Unit>(
  family: AnyFamily,
  step: MeasuredStep<Unit>,
  context: StepContext<Unit>,
  setting: StandInSetting,
): Trace {
  return runByItself(rigForStep(family, step, context, setting), step.guide(context));
}
