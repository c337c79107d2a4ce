import type { ActiveFault } from '../physics/plant';

export interface FaultDescription {
  readonly id: string;
  readonly title: string;
  /** How it shows, for a technician. */
  readonly shows: string;
  /** What a look at the unit would find: point id → option id. */
  readonly appearance: Readonly<Record<string, string>>;
}

/** A fault as a change of a family's model; severity 0 … 1. */
export interface ModelFault<Condition, Unit = void> extends FaultDescription {
  readonly apply: (condition: Condition, severity: number, unit: Unit) => void;
}

/** A sound condition with the given faults worked into it; throws on an id that the list does not have (a programmer's error). */
export function withFaults<Condition, Unit>(
  condition: Condition,
  list: readonly ModelFault<Condition, Unit>[],
  faults: readonly ActiveFault[],
  unit: Unit,
): Condition {
  for (const { id, severity } of faults) {
    const fault = list.find((each) => each.id === id);
    if (!fault) throw new Error(`there is no fault "${id}" here`);
    fault.apply(condition, Math.min(1, Math.max(0, severity)), unit);
  }
  return condition;
}
