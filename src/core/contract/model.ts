import type { ActiveFault, Plant, Surroundings } from '../physics/plant';
import type { CharacteristicId } from '../quantities/characteristics';
import type { StepContext } from '../procedure/step-context';
import type { Trace } from '../traces/trace';
import type { Fault } from './fault';

/** One way in which sound units of one sheet differ from each other. */
export interface Scatter<Unit> {
  readonly id: string;
  /** Standard deviation, as a fraction of the parameter. */
  readonly standard: number;
  /** The unit with its parameter off by `z` standard deviations. */
  readonly apply: (unit: Unit, z: number) => Unit;
}

/**
 * What a perfect measurement of a unit would say, SI, by characteristic; what steps read each of their own is said by the step and the
 * characteristic (`vacuum-hold-rest: leak-flow`). What the model does not settle is left out.
 */
export type Truth = Readonly<Partial<Record<CharacteristicId | StepsOwn, number>>>;

/** A step and a characteristic of it. One pattern, not one a characteristic: the checker of types tries each on each. */
type StepsOwn = `${string}: ${string}`;

/** What a step would read of a characteristic; undefined where the model does not settle it. */
export function truthOf(truth: Truth, step: string, characteristic: CharacteristicId): number | undefined {
  return truth[`${step}: ${characteristic}`] ?? truth[characteristic];
}

/** How a log is written that no bench runs. */
export interface LogSetting {
  readonly seed: number;
  /** Sensors with the noise and the errors of ordinary ones, or such as show what is there. */
  readonly sensors: 'ordinary' | 'right';
  /** So many times as long as an ordinary one; 1 when left out. */
  readonly long?: number;
}

/** A unit as physics: what state it is in, what faults do to that, and what it does on its stand. */
export interface Model<Unit, Condition> {
  /** Condition of a sound unit, made anew at each call: faults write into it. */
  readonly sound: (unit: Unit) => Condition;
  readonly faults: readonly Fault<Unit, Condition>[];
  readonly scatter: readonly Scatter<Unit>[];
  /** Dynamics for the stand-in bench; left out where no bench runs any step of the unit. */
  readonly plant?: (unit: Unit, condition: Condition, around: Surroundings) => Plant;
  /** A log as a tool in the vehicle would write it: the stand-in of what no bench runs. Deterministic by its seed. */
  readonly log?: (unit: Unit, condition: Condition, setting: LogSetting) => Trace;
  /** Worked out of unit and condition, never out of a trace. */
  readonly truth: (unit: Unit, condition: Condition, context: StepContext<Unit>) => Truth;
}

/** A sound condition with the given faults worked into it; throws on an id that the model does not have (a programmer's error). */
export function conditionWith<Unit, Condition>(
  model: Pick<Model<Unit, Condition>, 'sound' | 'faults'>,
  unit: Unit,
  faults: readonly ActiveFault[],
): Condition {
  const condition = model.sound(unit);
  for (const { id, severity } of faults) {
    const fault = model.faults.find((each) => each.id === id);
    if (!fault) throw new Error(`there is no fault "${id}" here`);
    fault.apply(condition, Math.min(1, Math.max(0, severity)), unit);
  }
  return condition;
}

/** Makes the scatter of one parameter of a unit: multiplied by 1 + z·standard. */
export function scatterOf<Unit>(id: keyof Unit & string, standard: number): Scatter<Unit> {
  return {
    id,
    standard,
    apply: (unit, z) => ({ ...unit, [id]: (unit[id] as number) * (1 + z * standard) }),
  };
}
