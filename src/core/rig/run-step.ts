import { planOf, type AnyKind } from '../contract/kind';
import { conditionWith } from '../contract/model';
import type { ActiveFault, Plant } from '../physics/plant';
import type { StepContext } from '../procedure/step-context';
import { liveFeed, type MeasuredStep, type TypedStep } from '../procedure/step-definition';
import type { TypedValues } from '../procedure/typed-entry';
import type { Trace } from '../traces/trace';
import { labelledSeed, randomSource } from '../physics/random';
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
  /** Of a log that no bench runs: so many times as long as an ordinary one; 1 when left out. */
  readonly long?: number;
}

/** Bench volume of the stand-in where the site does not say, m3. */
const standInBenchVolume = 0.6e-3;

/** A unit in a condition, mounted for a step as the plan says. */
export function mountedFor(
  kind: AnyKind,
  step: MeasuredStep<unknown>,
  context: StepContext<unknown>,
  { unit, condition }: { readonly unit: unknown; readonly condition: unknown },
): { readonly plant: Plant; readonly leverChannel: string | null } {
  const { supply, lever } = planOf(kind, context.plan);
  if (!kind.model.plant) throw new Error(`no bench runs a ${kind.family}`);
  const plant = kind.model.plant(unit, condition, {
    mounted: context.plan,
    ambient: context.ambient.pressure,
    temperature: context.airTemperature,
    // The bench is set by the sheet, whatever the unit that stands on it.
    supply: supply?.at(context.unit, context.ambient) ?? 0,
    benchVolume: context.benchVolume ?? standInBenchVolume,
    startsFrom: liveFeed(step).startsFrom,
  });
  return { plant, leverChannel: lever?.channel ?? null };
}

/** The stand-in rig with a unit with faults mounted, ready for a step. */
export function rigForStep<Unit>(
  kind: AnyKind,
  step: MeasuredStep<Unit>,
  context: StepContext<Unit>,
  setting: StandInSetting,
): StandInRig {
  const { unit } = context;
  const condition: unknown = conditionWith(kind.model, unit, setting.faults);
  return standInRig({
    ...mountedFor(kind, step as MeasuredStep<unknown>, context, { unit, condition }),
    instruments: context.instruments,
    benchSeed: setting.benchSeed,
    runSeed: labelledSeed(setting.runSeed, step.id),
    sampleRate: setting.sampleRate ?? liveFeed(step).rate ?? 200,
    noise: setting.noise ?? ordinaryNoise,
    pairError: setting.pairError ?? 0,
  });
}

/** Whether the stand-in can give a trace of a step: its rig runs it, or it writes a log of what no bench runs. */
export function hasStandIn(kind: AnyKind, step: MeasuredStep<unknown>): boolean {
  return step.feeds.live !== undefined || kind.model.log !== undefined;
}

/**
 * Runs a whole step on the stand-in rig, the rig pulling the lever, and returns its trace; where no bench runs it, the log that a tool in
 * the vehicle would write: the same one for every step of one run. Throws where the stand-in has neither (a programmer's error).
 */
export function simulateStep<Unit>(
  kind: AnyKind,
  step: MeasuredStep<Unit>,
  context: StepContext<Unit>,
  setting: StandInSetting,
): Trace {
  if (!step.feeds.live && kind.model.log) {
    const condition: unknown = conditionWith(kind.model, context.unit, setting.faults);
    const seed = labelledSeed(setting.runSeed, `bench ${setting.benchSeed}`);
    return kind.model.log(context.unit, condition, { seed, sensors: 'ordinary', long: setting.long });
  }
  return runByItself(rigForStep(kind, step, context, setting), liveFeed(step).guide(context));
}

/** What the stand-in's own instruments show of a unit with faults for a step that is typed, SI by field; nothing where the stand-in has none. */
export function readStandIn<Unit>(
  kind: AnyKind,
  step: TypedStep<Unit>,
  context: StepContext<Unit>,
  { faults, seed }: { readonly faults: readonly ActiveFault[]; readonly seed: number },
): TypedValues {
  const condition: unknown = conditionWith(kind.model, context.unit, faults);
  return step.feeds.standIn?.(context, condition, randomSource(labelledSeed(seed, step.id))) ?? {};
}
