/** How often a fault brings a symptom, in words. */
export type HowOften = 'always' | 'usually' | 'sometimes' | 'rarely' | 'never';

/** What a driver notices, as one of a list: the driver's own words stay beside it. */
export interface Symptom {
  readonly id: string;
  readonly title: string;
  /** By fault; one that is left out brings it rarely. */
  readonly of: Readonly<Record<string, Exclude<HowOften, 'rarely'>>>;
}
