import type { CharacteristicId } from '../quantities/characteristics';
import type { StartState, ActiveFault } from '../physics/plant';
import type { RandomSource } from '../physics/random';
import type { Trace } from '../traces/trace';
import type { CautionId } from '../vocabulary/caution-id';
import type { CycleMap } from './common/store/cycle-map';
import type { GuidePhase } from './guide-phase';
import type { Interlock } from './interlock';
import type { Limit } from './limit';
import type { LookStep } from './look-step';
import type { PredictedStaircase, StepAnalysis } from './step-analysis';
import type { StepContext } from './step-context';
import type { TypedEntry, TypedValues } from './typed-entry';

/** Band (low, high) by channel, SI. */
export type ReadingBands = Readonly<Record<string, readonly [number, number]>>;

export interface StepCommon {
  readonly id: string;
  readonly title: string;
  /** Why the step is there, and there in the order. */
  readonly why: string;
  /** Bench time with set-up, minutes. */
  readonly minutes: number;
  readonly cautions: readonly CautionId[];
  readonly optional: boolean;
  readonly characteristics: readonly CharacteristicId[];
  /** What must be on record before the step opens; left out where nothing must. */
  readonly interlock?: Interlock;
  /** What the step does to stored pressure: proves it gone, or puts it there; left out where it does neither. */
  readonly pressure?: 'proves-dead' | 'charges';
  /** Which of several runs are judged: their mean, or where the state of a moment is proved, the last. */
  readonly repeats?: 'last';
}

/** A curve that belongs to one step: its channels and where it should lie, SI. */
export interface StepCurve {
  readonly input: string;
  readonly output: string;
  readonly inputEnd: number;
  readonly band: (input: number) => readonly [number, number];
}

/** Low and high of one channel over the time since it left zero (s, SI). */
export interface ExpectedTrace {
  readonly channel: string;
  readonly points: readonly { readonly time: number; readonly low: number; readonly high: number }[];
}

/** A hold as it is watched while it runs. */
export interface HoldWatch {
  readonly channel: string;
  /** Full time, s. */
  readonly seconds: number;
  /** Most that may be lost over the full time from a starting level, SI. */
  readonly limit: (start: number) => number;
}

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
  readonly analyse: (trace: Trace, context: StepContext<Unit>) => StepAnalysis;
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
export interface TypedStep<Unit> extends StepCommon {
  readonly kind: 'typed';
  readonly entry: TypedEntry<Unit>;
  readonly limits: (analysis: StepAnalysis, context: StepContext<Unit>) => readonly Limit[];
  /** What the stand-in's instruments would show, SI by field, for a unit with faults. */
  readonly standIn: (context: StepContext<Unit>, faults: readonly ActiveFault[], random: RandomSource) => TypedValues;
}

export type StepDefinition<Unit> = MeasuredStep<Unit> | LookStep | TypedStep<Unit>;
