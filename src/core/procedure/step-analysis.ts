import type { Estimate } from '../instruments/uncertainty';
import type { CharacteristicId } from '../quantities/characteristics';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import type { Felt } from '../vocabulary/felt';

/** The result for one characteristic of a step, SI. */
export type Characteristic =
  | { readonly kind: 'measured'; readonly id: CharacteristicId; readonly estimate: Estimate }
  /** Only known to lie beyond a bound (never closed up to x; run-out not reached up to x). */
  | {
      readonly kind: 'beyond';
      readonly id: CharacteristicId;
      readonly side: 'above' | 'below';
      readonly bound: Estimate;
      readonly problem: AnalysisProblem;
    }
  | { readonly kind: 'absent'; readonly id: CharacteristicId; readonly problem: AnalysisProblem };

/** Something found in a trace, to be drawn on it. */
export interface TraceEvent {
  readonly id:
    | 'cut-in'
    | 'run-out'
    | 'valve-opening'
    | 'control-zero'
    | 'switch-closes'
    | 'switch-opens'
    | 'hold'
    | 'engine-starts'
    | 'knee'
    | 'regulated'
    | 'pump-starts'
    | 'pump-stops'
    | 'lamp'
    | 'worst'
    | 'handover'
    | 'panic'
    | 'speed-lost'
    | 'full'
    | 'store-lowest'
    | 'masters-apart'
    | 'switches-apart';
  /** s in the trace's clock, or null for a point that is constructed from fitted lines. */
  readonly time: number | null;
  /** Place in the step's picture, SI. */
  readonly x?: number;
  readonly y?: number;
}

/** Agreement of the output gauge with the input gauge: output reading = offset + gain · input reading. */
export interface PairCorrection {
  readonly offset: number;
  readonly gain: number;
  /** Standard uncertainties. */
  readonly offsetStandard: number;
  readonly gainStandard: number;
  /** Gains that keep the error inside the limit at every level, given the offset. */
  readonly allowedGain: readonly [number, number];
  /** False when the error was outside the limit: nothing is corrected, and U carries it. */
  readonly applied: boolean;
}

/** What earlier steps found out about the bench. */
export interface Corrections {
  readonly pair: PairCorrection | null;
  /** Control gauge minus supply gauge on one tee, Pa, and its standard uncertainty. */
  readonly vacuumPair: { readonly difference: number; readonly standard: number } | null;
  /** Stores by circuit ("" or "-2"): precharge found (Pa gauge at 20 °C), oil leak found over a soak (m3/s). */
  readonly precharge: Readonly<Record<string, Found>>;
  readonly soakLeak: Readonly<Record<string, Found>>;
}

/** A value that an earlier step found, with its standard uncertainty, SI. */
export interface Found {
  readonly value: number;
  readonly standard: number;
}

export const noCorrections: Corrections = { pair: null, vacuumPair: null, precharge: {}, soakLeak: {} };

export interface StepAnalysis {
  readonly characteristics: readonly Characteristic[];
  readonly events: readonly TraceEvent[];
  /** Observations that are no verdict but that the report should carry. */
  readonly notes: readonly AnalysisProblem[];
  /** What keeps a pass from standing: a fail stays one, a pass is undecided for these reasons. */
  readonly doubts?: readonly AnalysisProblem[];
  readonly corrections?: Partial<Corrections>;
  /** Pressure at the start of a hold, Pa gauge, where the step has one. */
  readonly held?: number;
  /** Supply vacuum that the expected curve belongs to, Pa, where the step has one. */
  readonly vacuum?: number;
  /** Supply vacuum at rest before the pull, Pa. */
  readonly restVacuum?: number;
  /** What was felt or heard where nothing was measured. */
  readonly felt?: Felt;
  /** Pedal force that two pushes were held at, N: what their pressures are held against follows from it; null where nobody knows it. */
  readonly pedalForce?: number | null;
  /** How well that is known, one sigma, N. */
  readonly pedalForceStandard?: number;
  /** Pressure at the front axle while both were read, Pa gauge: what one is over the other follows from it. */
  readonly frontPressure?: number;
  /** Largest torque that was requested in a drive, N·m: what limits are shares of. */
  readonly largestRequest?: number;
  /** Whole settled cycles of a pump, by circuit: run and rest (s). */
  readonly cycles?: readonly MeasuredCycle[];
  /** Strokes found one after the other, where the step counts them. */
  readonly strokes?: readonly MeasuredStroke[];
}

/** Mean run and rest of a pump (s) with where it started and stopped (Pa gauge), by circuit. */
export interface MeasuredCycle {
  readonly circuit: string;
  readonly run: number;
  readonly runStandard: number;
  readonly rest: number;
  readonly restStandard: number;
  /** The rest outlasted the trace: it is at least this. */
  readonly restOpen: boolean;
  readonly cutIn: number;
  readonly cutOut: number;
}

/** One stroke of a reserve, SI. */
export interface MeasuredStroke {
  /** Output while held, Pa gauge. */
  readonly output: number;
  /** Vacuum before it, Pa; NaN where none was recorded. */
  readonly vacuum: number;
  /** s, in the trace's clock. */
  readonly time: number;
}
