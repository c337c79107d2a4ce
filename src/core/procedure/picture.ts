import type { ShownAs } from '../quantities/shown-as';
import type { Trace } from '../traces/trace';
import type { CurvePoint, CycleMap, ExpectedCurve, ExpectedTrace, Here, PredictedStaircase } from './expected';
import type { StepAnalysis } from './step-analysis';
import type { StepContext } from './step-context';

/** Outputs over an input, drawn over where a sound unit lies. */
export interface CurvePicture<Unit> {
  readonly kind: 'curve';
  /** Channel, or `time` since the first output left zero (s). */
  readonly input: string;
  /** The band is the first one's. */
  readonly outputs: readonly [string, ...string[]];
  /** Its outputs together are one line more, called so. */
  readonly sum?: string;
  /** Where a sound unit lies at a supply (SI of the plan's supply). */
  readonly expected: (unit: Unit, supply: number, here: Here) => ExpectedCurve;
  /** Lowest and highest output (SI) of a sound unit at an input (SI) and a supply, on the apply branch. */
  readonly band: (unit: Unit, input: number, supply: number, here: Here) => readonly [number, number];
  /** The curve of a trace, SI, where it is worked out of more than these channels; null where a trace gives none. */
  readonly workedOut?: (trace: Trace, context: StepContext<Unit>) => readonly CurvePoint[] | null;
}

/** One line of a lane, on times of its own (s), SI; NaN where nobody knows. */
export interface TimelineLine {
  readonly title: string;
  /** What is asked for is dashed; what is given is filled, the first over the next; the rest are lines. */
  readonly drawn: 'line' | 'asked' | 'filled';
  readonly time: Float64Array;
  readonly value: Float64Array;
}

/** One lane of a time-line: lines of one quantity, the band that they should keep to, what is going on when. */
export interface TimelineLane {
  readonly title: string;
  readonly as: ShownAs;
  /** Share of the picture's height, by proportion. */
  readonly height: number;
  readonly lines: readonly TimelineLine[];
  readonly band?: readonly [number, number];
}

/** What a step looks like. Each kind has one renderer, for screens and for paper alike. */
export type Picture<Unit> =
  | CurvePicture<Unit>
  /** Channels over time; where `expected` is given, over where the first one should lie from when it leaves zero. */
  | {
      readonly kind: 'over-time';
      readonly channels: readonly string[];
      readonly expected?: (context: StepContext<Unit>) => readonly ExpectedTrace[];
      /** Nobody knows beforehand how long it takes: the axis grows with what is recorded. */
      readonly openEnded?: true;
    }
  /** Stroke by stroke over what each should give. */
  | {
      readonly kind: 'steps';
      readonly predict: (context: StepContext<Unit>, analysis: StepAnalysis | null) => PredictedStaircase;
    }
  /** Lanes under each other on one long clock, to be looked into anywhere. */
  | {
      readonly kind: 'timeline';
      readonly lanes: (trace: Trace, context: StepContext<Unit>) => readonly TimelineLane[];
    }
  /** Run time against rest time of the pump, with where each fault would lie. */
  | { readonly kind: 'map'; readonly maps: (context: StepContext<Unit>) => readonly CycleMap[] };

/** The first picture of a kind; undefined where a step has none. */
export function pictureOf<Unit, K extends Picture<Unit>['kind']>(
  pictures: readonly Picture<Unit>[],
  kind: K,
): Extract<Picture<Unit>, { kind: K }> | undefined {
  return pictures.find((picture): picture is Extract<Picture<Unit>, { kind: K }> => picture.kind === kind);
}

const bandPoints = 72;

/** A curve whose band does not hang on what feeds the unit: it is expected in the middle of the band. */
export function plainCurve<Unit>(curve: {
  readonly input: string;
  readonly outputs: CurvePicture<Unit>['outputs'];
  readonly sum?: string;
  readonly inputEnd: (unit: Unit) => number;
  readonly band: (unit: Unit, input: number) => readonly [number, number];
  readonly workedOut?: CurvePicture<Unit>['workedOut'];
}): CurvePicture<Unit> {
  const { input, outputs, band } = curve;
  return {
    kind: 'curve',
    input,
    outputs,
    ...(curve.sum === undefined ? {} : { sum: curve.sum }),
    expected: (unit) => {
      const inputEnd = curve.inputEnd(unit);
      const apply = Array.from({ length: bandPoints + 1 }, (_, at) => {
        const x = (inputEnd * at) / bandPoints;
        const [low, high] = band(unit, x);
        return { input: x, output: (low + high) / 2 };
      });
      return { apply, wayBack: [], keyPoints: [], tolerance: 0, inputEnd };
    },
    band,
    ...(curve.workedOut ? { workedOut: curve.workedOut } : {}),
  };
}
