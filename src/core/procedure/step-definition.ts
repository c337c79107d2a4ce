import type { StartState } from '../physics/plant';
import type { RandomSource } from '../physics/random';
import type { Trace } from '../traces/trace';
import type { GuidePhase } from './guide-phase';
import type { Limit } from './limit';
import type { LookStep } from './look-step';
import type { Answered } from './question';
import type { StepAnalysis } from './step-analysis';
import type { StepContext } from './step-context';
import type { TypedEntry, TypedValues } from './typed-entry';
import type { StepCommon } from './step-common';
import type { ReadingBands, StepCurve, ExpectedTrace, HoldWatch, PredictedStaircase, CycleMap } from './expected';

/** A step that is measured. */
export interface MeasuredStep<Unit> extends StepCommon {
  readonly kind: 'measured';
  /** Channels without which the step cannot be analysed. */
  readonly needs: readonly string[];
  /** Channels that are shown and used where they exist. */
  readonly uses: readonly string[];
  readonly leastRows: number;
  /** Hz of the stand-in; 200 when left out, less where hours are watched. */
  readonly sampleRate?: number;
  readonly picture:
    | { readonly kind: 'ride-the-line' }
    /** Two circuits over the lever's channel. */
    | { readonly kind: 'two-circuits'; readonly channels: readonly [string, string] }
    /** Charge or discharge of a store with the precharge found on it. */
    | { readonly kind: 'knee'; readonly channels: readonly string[] }
    /** Run time against rest time of the pump, with where each fault would lie. */
    | { readonly kind: 'run-rest'; readonly channels: readonly string[] }
    | { readonly kind: 'over-time'; readonly channels: readonly string[] }
    | { readonly kind: 'staircase'; readonly channels: readonly string[] };
  /** State the unit is in when the step begins. */
  readonly startsFrom: StartState;
  readonly guide: (context: StepContext<Unit>) => readonly GuidePhase[];
  /** Only an answer in three parts will do: what happened, whether it is evidence, what it comes to. */
  readonly analyse: (trace: Trace, context: StepContext<Unit>) => Answered;
  readonly limits: (analysis: StepAnalysis, context: StepContext<Unit>) => readonly Limit[];
  /** Where each reading should be now, SI, by channel; before anything has been read `readings` is empty. */
  readonly bands: (context: StepContext<Unit>, readings: Readonly<Record<string, number>>) => ReadingBands;
  /** Of a hold: what is watched, so that it can be called before its time. */
  readonly watch?: (context: StepContext<Unit>) => HoldWatch;
  /** What the step's own curve is drawn over, where it is not the family's. */
  readonly ownCurve?: (context: StepContext<Unit>) => StepCurve;
  /** Run and rest times of a sound unit and of every fault that they tell, for the map. */
  readonly cycleMap?: (context: StepContext<Unit>) => readonly CycleMap[];
  /** Where a trace of the step should lie, for a knee picture: by channel, s and SI. */
  readonly expectedTraces?: (context: StepContext<Unit>) => readonly ExpectedTrace[];
  /** What each stroke should give, for a staircase. */
  readonly staircase?: (context: StepContext<Unit>, analysis: StepAnalysis | null) => PredictedStaircase;
  /** How it is read off dials by hand; a step without one takes its characteristics as they are. */
  readonly entry?: TypedEntry<Unit>;
}

/** A step without a trace: lengths and counts that are read and typed. */
export interface TypedStep<Unit, Condition = unknown> extends StepCommon {
  readonly kind: 'typed';
  readonly entry: TypedEntry<Unit>;
  readonly limits: (analysis: StepAnalysis, context: StepContext<Unit>) => readonly Limit[];
  /** What the stand-in's instruments would show, SI by field, for a unit in a condition. */
  readonly standIn: (context: StepContext<Unit>, condition: Condition, random: RandomSource) => TypedValues;
}

export type StepDefinition<Unit, Condition = unknown> = MeasuredStep<Unit> | LookStep | TypedStep<Unit, Condition>;
