import type { CharacteristicId } from '../quantities/characteristics';
import type { Ambient } from '../quantities/standard-atmosphere';
import type { Plant, PlantConditions } from '../physics/plant';
import type { PlanId } from '../procedure/step-context';
import type { StepDefinition } from '../procedure/step-definition';
import type { z } from 'zod';
import type { Here, ExpectedCurve } from '../procedure/expected';

export interface FaultDescription {
  readonly id: string;
  readonly title: string;
  /** How it shows, for a technician. */
  readonly shows: string;
  /** What a look at the unit would find: point id → option id. */
  readonly appearance: Readonly<Record<string, string>>;
}

export interface SheetField {
  readonly name: string;
  readonly label: string;
  readonly unit: string;
  readonly group: 'identity' | 'size' | 'behaviour' | 'tolerance' | 'limit';
  readonly help: string;
  readonly required: boolean;
  /** What the field may say, where it is a word and not a figure. */
  readonly choices?: readonly { readonly value: string; readonly title: string }[];
}

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
  readonly verdict: 'pass' | 'fail' | 'undecided' | 'recorded' | 'not-run';
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

/** Layouts of one family: they share its name and its file format, and have sheets, steps, curve and stand of their own. */
export interface Layouts {
  /** Sheet field that says which. */
  readonly field: string;
  /** By what the field says; the first is meant where nothing is said. */
  readonly families: readonly { readonly value: string; readonly family: AnyFamily }[];
}

/** Everything the product knows about one kind of unit. `Spec` is the sheet as written, `Unit` its SI form. */
export interface Family<Spec, Unit> {
  readonly id: string;
  readonly title: string;
  readonly description: string;
  readonly schema: z.ZodType<Spec>;
  readonly fields: readonly SheetField[];
  readonly example: { readonly name: string; readonly spec: Spec };
  readonly prepare: (spec: Spec) => Unit;
  /** The first is the plan that a unit is judged on unless another is chosen. */
  readonly plans: readonly Plan<Unit>[];
  readonly steps: readonly StepDefinition<Unit>[];
  readonly faults: readonly FaultDescription[];
  /** What the decisive step's curve is drawn over and against. */
  readonly curve: { readonly input: string; readonly output: string };
  readonly expectedCurve: (unit: Unit, supply: number, here: Here) => ExpectedCurve;
  /** Lowest and highest output (SI) of a sound unit at an input (SI) and a supply (Pa), on the apply branch. */
  readonly expectedBand: (unit: Unit, input: number, supply: number, here: Here) => readonly [number, number];
  /** What feeds the unit: a supply is a vacuum below the atmosphere, or a pressure above it. */
  readonly fedBy: 'vacuum' | 'pressure';
  /** Left out where every unit of the family is built alike. */
  readonly layouts?: Layouts;
}

// The registry holds families of different sheets; inside one family the types stay exact.
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- existential type of the registry
export type AnyFamily = Family<any, any>;
