/** A part of a unit that can be replaced, cleaned or adjusted. */
export interface Part {
  readonly id: string;
  readonly title: string;
  /** Faults that it is at fault for. */
  readonly faults: readonly string[];
  /** Steps that what is done to it can change. */
  readonly affects: readonly string[];
}
