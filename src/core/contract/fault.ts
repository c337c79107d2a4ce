import type { ShownAs } from '../quantities/shown-as';

/** How much of a fault there is, as a figure that a technician thinks in. */
export type Extent<Condition, Unit> =
  /** It is there or it is not. */
  | { readonly kind: 'there-or-not' }
  /** Read off the condition that it made, SI, and how it is shown; moves one way with severity. */
  | {
      readonly kind: 'figure';
      readonly title: string;
      readonly as: ShownAs;
      readonly of: (condition: Condition, unit: Unit) => number;
    };

/** A fault: its words, how it looks, and what it does to a sound unit. */
export interface Fault<Unit, Condition> {
  readonly id: string;
  readonly title: string;
  /** How it shows, for a technician. */
  readonly shows: string;
  /** What a look at the unit would find: point id → option id. */
  readonly appearance: Readonly<Record<string, string>>;
  /** Steps that fail with it at `toldAt` of its severity: what `shows` says in words. Of a family's kinds and plans, those that have them. */
  readonly tells: readonly string[];
  /** Steps that pass in spite of it: what tells it from its neighbours. */
  readonly leaves: readonly string[];
  readonly extent: Extent<Condition, Unit>;
  /** Works the fault into a condition; severity 0 … 1. */
  readonly apply: (condition: Condition, severity: number, unit: Unit) => void;
}

/** A fault that is there or is not. */
export const thereOrNot = { kind: 'there-or-not' } as const;

/** Severity at which a fault is told of. */
export const toldAt = 0.6;

/** Makes the extent of a fault from what it changes. */
export function extentOf<Condition, Unit>(
  title: string,
  as: ShownAs,
  of: (condition: Condition, unit: Unit) => number,
): Extent<Condition, Unit> {
  return { kind: 'figure', title, as, of };
}
