import type { CharacteristicId } from '../quantities/characteristics';
import type { Ambient } from '../quantities/standard-atmosphere';
import type { Plant, PlantConditions } from '../physics/plant';
import type { PlanId } from '../procedure/step-context';
import type { StepVerdict } from '../vocabulary/verdict';

/** What the stand-in mounts a unit on: a bench, or the vehicle that it sits in. */
export interface Stand<Unit> {
  /** Channel that the lever (or rod, or pedal) drives; a guide's levels are of this channel. */
  readonly leverChannel: string;
  /** Highest level the lever is moved to for this unit, SI. */
  readonly leverMaximum: (unit: Unit) => number;
  /** What the source gives this unit in this air: vacuum (Pa), or the pressure of its store (Pa gauge). */
  readonly supply: (unit: Unit, ambient: Ambient) => number;
  readonly plant: (unit: Unit, conditions: PlantConditions) => Plant;
}

/** What the inquiry knows of its steps. */
export interface InquiryStep {
  readonly verdict: StepVerdict;
  /** Characteristics that failed their limit. */
  readonly failed: readonly CharacteristicId[];
  readonly findings: Readonly<Record<string, string>>;
}

/** A place where an inquiry ends. */
export interface Conclusion {
  readonly id: string;
  /** Where the fault is, in one line. */
  readonly title: string;
  /** What to do about it, and why it is so. */
  readonly advice: string;
  /** Faults that it speaks of. */
  readonly faults: readonly string[];
  /** The unit itself was found good: it may be released. Any other end names something to mend first. */
  readonly clears?: true;
  /** Step that says so and is done again once it is mended; the first one where it is not one step. */
  readonly step?: string;
  readonly holds: (steps: ReadonlyMap<string, InquiryStep>) => boolean;
}

export interface Plan<Unit> {
  readonly id: PlanId;
  readonly title: string;
  readonly steps: readonly string[];
  readonly stand: Stand<Unit>;
  /** Step whose picture is the unit's face, on the floor and on paper. */
  readonly decisiveStep: string;
  /** Where an inquiry ends, in the order of its steps; empty for a plan that only measures. */
  readonly conclusions: readonly Conclusion[];
}
