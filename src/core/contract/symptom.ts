/** How often a fault brings a symptom, in words. */
export type HowOften = 'always' | 'usually' | 'sometimes' | 'rarely' | 'never';

/** What a driver notices, as one of a list: the driver's own words stay beside it. */
export interface Symptom {
  readonly id: string;
  readonly title: string;
  /** How often a unit with nothing wrong, or with something else, is said to do it; left out, as seldom as anything is said of one. */
  readonly ofSound?: Exclude<HowOften, 'rarely' | 'never'>;
  /** By fault; one that is left out brings it rarely. */
  readonly of: Readonly<Record<string, Exclude<HowOften, 'rarely'>>>;
}
