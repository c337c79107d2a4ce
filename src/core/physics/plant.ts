import type { BenchControls } from './bench-controls';

/** Where the unit stands before a step: without vacuum or under it, without stored pressure or charged and settled. */
export type StartState = 'vented' | 'evacuated' | 'empty' | 'charged';

/** What surrounds a unit on the stand-in, SI. */
export interface Surroundings {
  /** What it is mounted on: the bench, or the vehicle that it sits in. */
  readonly mounted: 'bench' | 'vehicle';
  /** Local atmosphere, Pa absolute. */
  readonly ambient: number;
  /** K */
  readonly temperature: number;
  /** What the source holds: vacuum (Pa below the atmosphere), pressure (Pa gauge) or voltage (V), as the plan's supply says. */
  readonly supply: number;
  /** Hoses, tee and gauges, m3. */
  readonly benchVolume: number;
  readonly startsFrom: StartState;
}

/** The physics of one unit on the bench, advanced in small steps. */
export interface Plant {
  readonly channels: readonly string[];
  /** Largest integration step, s. */
  readonly largestStep: number;
  /** Advances by `dt` seconds under the given controls. */
  advance(dt: number, controls: BenchControls): void;
  /** Writes the true values, SI, in the order of `channels`. */
  read(out: Float64Array): void;
  /** State as plain numbers; `restore` puts it back. */
  snapshot(): number[];
  restore(state: readonly number[]): void;
}

/** A fault in the plant with a severity from 0 to 1. */
export interface ActiveFault {
  readonly id: string;
  readonly severity: number;
}
