import { coverageOf } from './coverage-factor';
import { calibrationState, type Instrument } from './instrument';

/** Where a standard uncertainty comes from. */
export type UncertaintySource =
  | 'fit'
  | 'noise'
  | 'resolution'
  | 'gauge-zero'
  | 'gauge-gain'
  | 'gauge-linearity'
  /** What the gauge itself drifts between two readings. */
  | 'gauge-stability'
  | 'pair-gain'
  | 'pair-offset'
  | 'timing'
  | 'counting'
  | 'force-match'
  /** What is left of a reserve that counts as used up. */
  | 'reserve-left'
  | 'volume'
  /** Of the gas, from the shell's or the air's. */
  | 'temperature'
  /** Heat that the gas has exchanged with its shell. */
  | 'gas-heat'
  /** What the law that a figure is carried on by does not say of this make. */
  | 'model'
  /** Repeats that scatter by more than their own noise explains. */
  | 'repeats';

export interface UncertaintyComponent {
  readonly source: UncertaintySource;
  /** Standard uncertainty (one sigma) in the unit of the value, SI. */
  readonly standard: number;
  /** Random parts shrink with repeats; systematic parts do not. */
  readonly random: boolean;
  /** Degrees of freedom that the figure was told with; left out where they are many, or it is no scatter that was seen. */
  readonly freedom?: number;
}

/** A value with everything its uncertainty is made of, SI. */
export interface Estimate {
  readonly value: number;
  readonly components: readonly UncertaintyComponent[];
}

/** One systematic part. */
export function systematic(source: UncertaintySource, standard: number): UncertaintyComponent {
  return { source, standard: Math.abs(standard), random: false };
}

/** One random part; `freedom` where few readings tell it. */
export function random(source: UncertaintySource, standard: number, freedom?: number): UncertaintyComponent {
  return { source, standard: Math.abs(standard), random: true, ...(freedom === undefined ? {} : { freedom }) };
}

/** Standard uncertainty of independent components together: √Σu² (JCGM 100:2008, 5.1.2), SI. */
export const combinedStandard = ({ components }: Pick<Estimate, 'components'>): number =>
  Math.sqrt(components.reduce((sum, { standard }) => sum + standard ** 2, 0));

/** Degrees of freedom of components together (Welch–Satterthwaite: JCGM 100:2008, G.4.1). */
export function effectiveFreedom({ components }: Pick<Estimate, 'components'>): number {
  const few = components.reduce((sum, { standard, freedom }) => (freedom ? sum + standard ** 4 / freedom : sum), 0);
  return few > 0 ? combinedStandard({ components }) ** 4 / few : Infinity;
}

/** Expanded uncertainty U = k·√Σu² of independent components, k for 95 % by their degrees of freedom (JCGM 100:2008, G.6.4), SI. */
export function expandedUncertainty(estimate: Estimate): number {
  return coverageOf(effectiveFreedom(estimate)) * combinedStandard(estimate);
}

/** Expanded uncertainty of the random parts alone, SI. */
export function randomUncertainty(estimate: Estimate): number {
  return expandedUncertainty({ value: estimate.value, components: estimate.components.filter((part) => part.random) });
}

/** Class error `a` (SI) of an instrument at `reading` (SI) on `date`; an overdue calibration doubles it. */
export function classError(instrument: Instrument, reading: number, date: string): number {
  const overdue = calibrationState(instrument, date).kind === 'overdue' ? 2 : 1;
  const base = instrument.classOf === 'full-scale' ? instrument.range : Math.abs(reading);
  return instrument.classFraction * base * overdue;
}

/** A third of the variance of a rectangular error of half-width `a`: (a/√3)²/3 = (a/3)². */
function thirdOf(a: number): number {
  return a / 3;
}

/** Uncertainty of one reading of one instrument, SI: zero, gain, linearity and resolution. */
export function readingComponents(instrument: Instrument, reading: number, date: string): UncertaintyComponent[] {
  const a = classError(instrument, reading, date);
  const resolution = systematic('resolution', instrument.resolution / Math.sqrt(12));
  if (instrument.classOf === 'reading') return [systematic('gauge-gain', a / Math.sqrt(3)), resolution];
  return [
    systematic('gauge-zero', thirdOf(a)),
    systematic('gauge-gain', thirdOf(a) * (Math.abs(reading) / instrument.range)),
    systematic('gauge-linearity', thirdOf(a)),
    resolution,
  ];
}

/**
 * Uncertainty of the difference `to − from` of two readings of one instrument, SI, without resolution:
 * the zero part cancels, the gain part scales with the difference over the range, and so does the
 * linearity part for readings less than a fifth of the range apart; beyond that it counts in full for each.
 */
export function differenceComponents(
  instrument: Instrument,
  from: number,
  to: number,
  date: string,
): UncertaintyComponent[] {
  const difference = Math.abs(to - from);
  if (instrument.classOf === 'reading') {
    const a = classError(instrument, difference, date);
    return [systematic('gauge-gain', a / Math.sqrt(3))];
  }
  const part = thirdOf(classError(instrument, to, date));
  const fraction = difference / instrument.range;
  return [
    systematic('gauge-gain', part * fraction),
    systematic('gauge-linearity', fraction < 0.2 ? part * fraction : part * Math.SQRT2),
  ];
}

/**
 * Resolution part of a difference of two readings, SI: √2·r/√12. Not random: repeats of one needle position do not
 * shrink it.
 */
export function differenceResolution(instrument: Pick<Instrument, 'resolution'>): UncertaintyComponent {
  return systematic('resolution', (Math.SQRT2 * instrument.resolution) / Math.sqrt(12));
}

/** Of a gauge whose class is of the reading, what its zero may be off: its class at this share of its range. */
const zeroShare = 0.1;

/** Standard uncertainty of a zero that nobody read, SI: the zero part of the class. */
export function unreadZero(instrument: Instrument, date: string): number {
  return instrument.classOf === 'reading'
    ? classError(instrument, zeroShare * instrument.range, date) / Math.sqrt(3)
    : thirdOf(classError(instrument, 0, date));
}

/** Share of its class that a gauge may drift by over a minute, where its record does not say otherwise. */
export const defaultStability = 0.1;

/**
 * What a gauge drifts by itself between two readings `seconds` apart, SI: a share of its class over a minute (from its
 * record, else a tenth), growing with the square root of time up to the class; a rectangular error of that half-width.
 */
export function stabilityComponent(
  instrument: Instrument,
  reading: number,
  seconds: number,
  date: string,
): UncertaintyComponent {
  const share = Math.min(1, (instrument.stabilityShare ?? defaultStability) * Math.sqrt(Math.max(0, seconds) / 60));
  return systematic('gauge-stability', (share * classError(instrument, reading, date)) / Math.sqrt(3));
}

/** Multiplies every component, as when a value is scaled. */
export function scaleComponents(components: readonly UncertaintyComponent[], factor: number): UncertaintyComponent[] {
  return components.map((part) => ({ ...part, standard: part.standard * Math.abs(factor) }));
}
