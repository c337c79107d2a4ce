import type { StepContext } from './step-context';
import type { CircuitFaultId } from '../vocabulary/circuit-fault';

/** Band (low, high) by channel, SI. */
export type ReadingBands = Readonly<Record<string, readonly [number, number]>>;

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

/** Air, temperature and limits that an expected curve belongs to. */
export type Here = Pick<StepContext<unknown>, 'ambient' | 'airTemperature' | 'workshopLimits'>;

/** Points of a curve, SI. */
export interface CurvePoint {
  readonly input: number;
  readonly output: number;
}

export interface KeyPoint extends CurvePoint {
  readonly id: 'cut-in' | 'run-out' | 'reference' | 'valve-opening' | 'jump-in' | 'knee';
}

/** The decisive curve of a unit at one supply. */
export interface ExpectedCurve {
  readonly apply: readonly CurvePoint[];
  readonly wayBack: readonly CurvePoint[];
  readonly keyPoints: readonly KeyPoint[];
  /** Relative half-width of the band where the ratio is judged. */
  readonly tolerance: number;
  /** Input up to which the curve is drawn, SI. */
  readonly inputEnd: number;
  /** What comes with nothing to feed the unit, and how that is called; left out where nothing would. */
  readonly without?: { readonly title: string; readonly points: readonly CurvePoint[] };
}

/** A predicted staircase: what each stroke from the reserve should give, SI. */
export interface PredictedStaircase {
  readonly strokes: readonly { readonly output: number; readonly vacuum: number; readonly assisted: boolean }[];
  /** Output from which a stroke counts as assisted, Pa gauge. */
  readonly threshold: number;
  /** Steps of a store's pressure rather than of an output. */
  readonly of?: 'store';
}

/** A settled cycle: pump run and rest (s), start and stop (Pa gauge). */
export interface CyclePoint {
  readonly run: number;
  readonly rest: number;
  readonly cutIn: number;
  readonly cutOut: number;
}

/** Where cycles of one circuit would lie: sound, and along each fault. */
export interface CycleMap {
  readonly circuit: string;
  readonly title: string;
  readonly sound: CyclePoint;
  readonly faults: readonly {
    readonly id: CircuitFaultId;
    readonly title: string;
    readonly points: readonly CyclePoint[];
  }[];
}
