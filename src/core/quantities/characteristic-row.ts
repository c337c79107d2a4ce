import type { ShownAs } from './shown-kind';

/** How a characteristic is read off dials by hand. */
export type DialReading =
  /** One reading above the gauge's zero, or a difference of two readings of one gauge. */
  | { readonly kind: 'difference'; readonly channel: string }
  | { readonly kind: 'reading'; readonly channel: string }
  /** Quotient of two readings of two gauges. */
  | { readonly kind: 'quotient'; readonly channels: readonly [string, string] }
  /** A share of a span, off two gauges: what they are off by counts whole, however small the share. */
  | { readonly kind: 'share'; readonly channels: readonly [string, string] }
  /** Worked out of what two gauges read: it is neither of their readings. */
  | { readonly kind: 'worked-out'; readonly channels: readonly [string, string] }
  /** Two gauges against each other. */
  | { readonly kind: 'between'; readonly channels: readonly [string, string] }
  /** Change of one gauge's reading over a watched time. */
  | { readonly kind: 'rate'; readonly channel: string }
  /** Volume flow worked out of such a change and a volume. */
  | { readonly kind: 'flow'; readonly channel: string }
  /** Read with a watch: half a second each way. */
  | { readonly kind: 'watch' }
  /** Counted. */
  | { readonly kind: 'count' }
  /** Worked out of a sheet: nothing is read. */
  | { readonly kind: 'calculated' };

/** Everything that is said of a characteristic, in one row. */
export interface CharacteristicRow {
  readonly title: string;
  /** Unit symbol in open files. */
  readonly unit: string;
  readonly as: ShownAs;
  readonly dial: DialReading;
  /**
   * Name in open files where it differs: a force–pressure curve has a boost slope and a hysteresis too, but in other units than a
   * pressure–pressure curve, and one id has one unit in here.
   */
  readonly openName?: string;
  /** A time that a leak takes: twice the leak halves it, so that what is wrong is in proportion to one over it. */
  readonly inverse?: true;
  /** It follows from other figures of its step and from how somebody did it: said, but no finding of its own. */
  readonly repeats?: true;
}
