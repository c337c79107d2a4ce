import type { SketchShape } from '../procedure/look-step';

/** A part of a unit that can be replaced, cleaned or adjusted. */
export interface Part {
  readonly id: string;
  readonly title: string;
  /** Faults that it is at fault for. */
  readonly faults: readonly string[];
  /** Steps that what is done to it can change. */
  readonly affects: readonly string[];
}

/** The unit drawn with its parts: where each is, by its id, in a field of 320 × 200. */
export interface PartsDiagram {
  readonly sketch: readonly SketchShape[];
  readonly at: Readonly<Record<string, readonly [number, number]>>;
}
