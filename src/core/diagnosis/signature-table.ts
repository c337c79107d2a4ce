import type { PlanId } from '../procedure/step-context';
import type { Measure } from './figure';

/** What a figure comes to over units of many sizes that all have one condition. */
export interface Cell {
  /** Share of them in which it was measured, and in which it was only known to lie above or below something; the rest found nothing. */
  readonly measured: number;
  readonly above: number;
  readonly below: number;
  /** Where it lies in the figure's coordinate, and by how much that differs from size to size (standard). */
  readonly at: number;
  readonly spread: number;
}

/** One figure of a plan: what sound units show, and how it moves as they differ from each other. */
export interface FigureSignature {
  readonly step: string;
  readonly id: string;
  readonly measure: Measure;
  readonly sound: Cell;
  /** Standard uncertainty that ordinary instruments leave, in the figure's coordinate. */
  readonly standard: number;
  /** What one standard deviation of each of the table's scatters moves it by. */
  readonly scatter: readonly number[];
}

/** What one fault does: a cell for every severity of the table and every figure; null where the figure stays as in a sound unit. */
export type FaultSignature = readonly (readonly (Cell | null)[])[];

/** What every fault of a kind does to every figure of a plan, relative to what the sheet at hand lets expect. Made by `npm run signatures`. */
export interface SignatureTable {
  readonly family: string;
  readonly kind: string;
  readonly plan: PlanId;
  /** Of the method and of all that the model does to a condition: another one means that the table is stale. */
  readonly madeFrom: string;
  readonly severities: readonly number[];
  readonly scatters: readonly string[];
  readonly figures: readonly FigureSignature[];
  readonly faults: Readonly<Record<string, FaultSignature>>;
}
