import type { StartState } from '../physics/plant';
import type { RandomSource } from '../physics/random';
import type { Trace } from '../traces/trace';
import type { HoldWatch, ReadingBands } from './expected';
import type { GuidePhase } from './guide-phase';
import type { Limit } from './limit';
import type { LookStep } from './look-step';
import type { NotByHand } from './not-by-hand';
import type { Picture } from './picture';
import type { Answered } from './question';
import type { StepAnalysis } from './step-analysis';
import type { StepCommon } from './step-common';
import type { StepContext } from './step-context';
import type { TypedEntry, TypedValues } from './typed-entry';

/** What a recorded trace must bring, whoever recorded it. */
export interface LogFeed {
  /**
   * The step says itself what it takes a log's sensors to be: those that nobody named, and which rows are samples of theirs. Otherwise the
   * stand-in's gauge stands in for them, and what a logger wrote again is left out before the step sees it.
   */
  readonly ownSensors?: true;
  /** Channels without which the step cannot be analysed. */
  readonly needs: readonly string[];
  /** Sets of channels of which a log must have one whole, where its figures need none in common. */
  readonly anyOf?: readonly (readonly string[])[];
  /** Channels that are shown and used where they exist. */
  readonly uses: readonly string[];
  readonly leastRows: number;
  /** Hz, below which some of its figures cannot be told; left out where none hangs on it. */
  readonly leastRate?: number;
  /** Hz at which each channel that it needs must have been sampled to show what happened at all: `ordinaryRate` where left out, 0 for any. */
  readonly neededRate?: number;
  /**
   * Hz: nothing that the step looks for happens more quickly. A log that is many times as fast is read as the means of neighbouring rows;
   * left out where moments count.
   */
  readonly bandwidth?: number;
  /** What a log says of itself in a line `# key: value` rather than in a column: as a column of the value's number. */
  readonly named?: {
    readonly key: string;
    readonly channel: string;
    readonly values: Readonly<Record<string, number>>;
  };
  /** Names that logs and kept traces of this step may still have for a channel: today's → former. */
  readonly formerly?: Readonly<Record<string, string>>;
}

/** How a step is run on live instruments. */
export interface LiveFeed<Unit> {
  /** State the unit is in when the step begins. */
  readonly startsFrom: StartState;
  readonly guide: (context: StepContext<Unit>) => readonly GuidePhase[];
  /** Hz of the stand-in; 200 when left out, less where hours are watched. */
  readonly rate?: number;
  /** Where each reading should be now, SI, by channel; before anything has been read `readings` is empty. */
  readonly bands: (context: StepContext<Unit>, readings: Readonly<Record<string, number>>) => ReadingBands;
  /** Of a hold: what is watched, so that it can be called before its time. */
  readonly watch?: (context: StepContext<Unit>) => HoldWatch;
}

/** A step whose evidence is a trace: recorded live, brought as a log, or read off dials. */
export interface MeasuredStep<Unit> extends StepCommon {
  readonly kind: 'measured';
  readonly feeds: {
    readonly log: LogFeed;
    /** Left out where no bench can do it: only a log is taken. */
    readonly live?: LiveFeed<Unit>;
    /** How it is read off dials by hand, or why nobody does; a step without one takes its characteristics as they are. */
    readonly dials?: TypedEntry<Unit> | NotByHand<Unit>;
  };
  /** Only an answer in three parts will do: what happened, whether it is evidence, what it comes to. */
  readonly analyse: (trace: Trace, context: StepContext<Unit>) => Answered;
  readonly limits: (analysis: StepAnalysis, context: StepContext<Unit>) => readonly Limit[];
  /** Units for which it need not be done, though others must: their sheet says nothing of what it tries. */
  readonly optionalFor?: (unit: Unit) => boolean;
  /** The first that can be drawn of what is there is drawn: what needs an analysis waits for the end of a run. */
  readonly pictures: readonly [Picture<Unit>, ...Picture<Unit>[]];
}

/** A step without a trace: lengths and counts that are read and typed. */
export interface TypedStep<Unit, Condition = unknown> extends StepCommon {
  readonly kind: 'typed';
  /** Worked out of the sheet alone: nothing is typed, it is always there, and it says that it is a calculation. */
  readonly workedOut?: true;
  readonly feeds: {
    readonly dials: TypedEntry<Unit>;
    /** What the stand-in's instruments would show, SI by field, for a unit in a condition; left out where it has none. */
    readonly standIn?: (context: StepContext<Unit>, condition: Condition, random: RandomSource) => TypedValues;
  };
  readonly limits: (analysis: StepAnalysis, context: StepContext<Unit>) => readonly Limit[];
}

export type StepDefinition<Unit, Condition = unknown> = MeasuredStep<Unit> | LookStep | TypedStep<Unit, Condition>;

/** How a step is run live; throws where it is not (a programmer's error: ask `feeds.live` first where that may be). */
export function liveFeed<Unit>(step: MeasuredStep<Unit>): LiveFeed<Unit> {
  const { live } = step.feeds;
  if (!live) throw new Error(`${step.id} is not run live`);
  return live;
}

/** Whether a unit passes without the step. */
export function isOptional(step: StepDefinition<unknown>, unit: unknown): boolean {
  return step.optional || (step.kind === 'measured' && step.optionalFor?.(unit) === true);
}
