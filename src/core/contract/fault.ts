import type { ActiveFault } from '../physics/plant';

export interface FaultDescription {
  readonly id: string;
  readonly title: string;
  /** How it shows, for a technician. */
  readonly shows: string;
  /** What a look at the unit would find: point id → option id. */
  readonly appearance: Readonly<Record<string, string>>;
  /** Steps that fail with it at `toldAt` of its severity: what `shows` says in words. Of a family's layouts and plans, those that have them. */
  readonly tells: readonly string[];
  /** Steps that pass in spite of it: what tells it from its neighbours. */
  readonly leaves: readonly string[];
}

/** Severity at which a fault is told of. */
export const toldAt = 0.6;

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
