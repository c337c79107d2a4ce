import type { Felt } from '../vocabulary/felt';
import type { StepVerdict } from '../vocabulary/verdict';
import type { CharacteristicId } from '../quantities/characteristics';
import type { Ambient } from '../quantities/standard-atmosphere';
import type { PlanId } from '../procedure/step-context';

/** What feeds a unit: a vacuum below the atmosphere (Pa), a pressure above it (Pa gauge) or a voltage (V). */
export interface Supply<Unit> {
  readonly kind: 'vacuum' | 'pressure' | 'voltage';
  /** Channel on which it is read at the unit. */
  readonly channel: string;
  /** What the source gives this unit in this air, SI. */
  readonly at: (unit: Unit, ambient: Ambient) => number;
}

/** What drives a unit: lever, rod or pedal; a guide's levels are of its channel. */
export interface Lever<Unit> {
  readonly channel: string;
  /** Highest level it is moved to for this unit, SI. */
  readonly maximum: (unit: Unit) => number;
}

/** What the inquiry knows of its steps. */
export interface InquiryStep {
  readonly verdict: StepVerdict;
  /** Characteristics that fell short of their limit: too much is no sign of too little. */
  readonly short: readonly CharacteristicId[];
  readonly findings: Readonly<Record<string, string>>;
  /** What was felt or heard where nothing was measured. */
  readonly felt: Felt | null;
  /** The hose before the unit was found to take vacuum: one gauge read more at the engine. */
  readonly hoseTakes: boolean;
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
  /** Family that looks further, where the fault is none of this unit's. */
  readonly handsTo?: string;
  /** Step that says so and is done again once it is mended; the first one where it is not one step. */
  readonly step?: string;
  readonly holds: (steps: ReadonlyMap<string, InquiryStep>) => boolean;
}

/** How a unit is fed and driven where it is mounted. */
export type Stand<Unit> = Pick<Plan<Unit>, 'supply' | 'lever'>;

export interface Plan<Unit> {
  readonly id: PlanId;
  readonly title: string;
  readonly steps: readonly string[];
  /** Steps that close every repair, whatever was touched: leaks, and what must be left without pressure or charge. */
  readonly closing: readonly string[];
  /** Step whose picture is the unit's face, on the floor and on paper. */
  readonly face: string;
  /** Where an inquiry ends, in the order of its steps; empty for a plan that only measures. */
  readonly conclusions: readonly Conclusion[];
  /** Null where nothing feeds the unit that the plan would have to know. */
  readonly supply: Supply<Unit> | null;
  /** Null where nothing is pulled or pressed by a guide. */
  readonly lever: Lever<Unit> | null;
  /** One log is the evidence of all steps that read one: what it takes to record it, minutes. Left out, each step has evidence of its own. */
  readonly oneLog?: { readonly minutes: number };
}
