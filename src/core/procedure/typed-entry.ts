import type { CharacteristicId } from '../quantities/characteristics';
import type { ShownAs } from '../quantities/shown-as';
import type { StepAnalysis } from './step-analysis';
import type { StepContext } from './step-context';

/** What a person reads a figure with. */
export type ReadBy =
  /** The gauge or meter of the field's channel. */
  | 'instrument'
  | 'watch'
  | 'rule'
  | 'vessel'
  /** Counted as it happens. */
  | 'count'
  /** Words for what was seen, felt or heard. */
  | 'eye'
  | 'foot'
  | 'ear';

/** One figure that is read off an instrument and typed. */
export interface TypedField {
  readonly id: string;
  readonly title: string;
  readonly hint: string;
  readonly as: ShownAs;
  /** Channel whose instrument it is read with, for its uncertainty; null for a watch or a count. */
  readonly channel: string | null;
  /** What a sound unit would give here, SI; null where nothing is expected yet. */
  readonly expected: { readonly low: number; readonly high: number } | null;
  /** What is expected is where the lever is to be held, not what a sound unit gives. */
  readonly toHold?: true;
  /** Outside this nobody would believe the figure without asking, SI. */
  readonly plausible: readonly [number, number];
  readonly optional: boolean;
  /** What may be chosen, where it is a word and not a figure; the value is its place in this list. */
  readonly choices?: readonly string[];
  /** Where it stands in a table that grows by a row, from 1, under which heading; left out of a reading that is taken once. */
  readonly row?: { readonly at: number; readonly heading: string };
  /** What it is read with, where its channel or kind does not say so already. */
  readonly by?: ReadBy;
}

/** What a figure is read with; null of one that nothing shows. */
export function readBy({ by, channel, as, choices }: TypedField): ReadBy | null {
  if (by) return by;
  if (choices) return 'eye';
  if (channel !== null) return 'instrument';
  if (as === 'time' || as === 'long-time') return 'watch';
  return as === 'count' || as === 'tally' ? 'count' : null;
}

/** Values typed so far, SI, by field. */
export type TypedValues = Readonly<Record<string, number>>;

/** A table of figures, SI. */
export interface LookUpTable {
  readonly title: string;
  readonly columns: readonly { readonly title: string; readonly as: ShownAs }[];
  readonly rows: readonly (readonly number[])[];
}

/** How a step is read off dials by hand. */
export interface TypedEntry<Unit> {
  /**
   * Fields in the order they are read; what is expected may depend on what was typed before. `begun` names fields in which something
   * stands that is no figure yet: a table does not end before them.
   */
  readonly fields: (
    context: StepContext<Unit>,
    values: TypedValues,
    begun?: readonly string[],
  ) => readonly TypedField[];
  /** What it is read against, to be looked up or printed: figures SI, row by row. */
  readonly table?: (context: StepContext<Unit>, values: TypedValues) => LookUpTable;
  readonly analyse: (values: TypedValues, context: StepContext<Unit>) => StepAnalysis;
  /** How figures follow from fields, to be shown: names of fields, and the signs and constants between them. */
  readonly terms?: (context: StepContext<Unit>) => Terms;
}

/** A sum in words of its fields, by the figure that it is. */
export type Terms = Readonly<Partial<Record<CharacteristicId, readonly string[]>>>;
