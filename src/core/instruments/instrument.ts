/** One measuring channel of a bench: a gauge with its range, class, resolution and calibration. SI. */
export interface Instrument {
  readonly channel: string;
  /** Name the shop knows it by, for the report. */
  readonly name: string;
  /** Full scale, SI. */
  readonly range: number;
  /** Smallest division one can honestly tell apart, SI, full width. */
  readonly resolution: number;
  /** Class error as a fraction of what `classOf` says. */
  readonly classFraction: number;
  readonly classOf: 'full-scale' | 'reading';
  /** Share of its class that it may drift by over a minute; a tenth where its record does not say. */
  readonly stabilityShare?: number;
  /** How late it reads what it measures, its line with it, s; undefined where its record does not say. */
  readonly lagSeconds?: number;
  /** The stand-in's own, taken where a bench names none: what a person reads there was not read from it. */
  readonly ofStandIn?: true;
  /** ISO dates. */
  readonly calibratedOn: string | null;
  readonly dueOn: string | null;
}

export type CalibrationState =
  | { readonly kind: 'in-date'; readonly dueOn: string }
  | { readonly kind: 'overdue'; readonly dueOn: string }
  | { readonly kind: 'unknown' };

/** Calibration state on `date` (ISO date). An unknown due date is said, not punished. */
export function calibrationState(instrument: Instrument, date: string): CalibrationState {
  if (instrument.dueOn === null) return { kind: 'unknown' };
  return instrument.dueOn.slice(0, 10) < date.slice(0, 10)
    ? { kind: 'overdue', dueOn: instrument.dueOn }
    : { kind: 'in-date', dueOn: instrument.dueOn };
}
