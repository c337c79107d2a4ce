import type { StepCommon } from './step-common';

/** Name under which a finding keeps what was written beside a point. */
export const writtenKey = (point: string) => `${point}: written`;

/** One line of a sketch: an SVG path in a field of 320 × 200, filled as metal, rubber or not at all. */
export interface SketchShape {
  readonly path: string;
  readonly fill: 'body' | 'rubber' | 'none';
}

export interface LookPoint {
  readonly id: string;
  readonly title: string;
  readonly hint: string;
  /** What is written down beside the choice, where something is: codes, a part number. */
  readonly writes?: string;
  /** What the step's options are called here, by their ids, where its own words do not fit this point. */
  readonly words?: Readonly<Record<string, string>>;
  /** Where it is on the step's sketch, in a field of 320 × 200. */
  readonly at: readonly [number, number];
}

export interface LookOption {
  readonly id: string;
  readonly title: string;
  readonly effect: 'pass' | 'note' | 'fail';
}

/** What an option of a step is called at one of its points. */
export const optionTitle = (point: Pick<LookPoint, 'words'>, option: LookOption): string =>
  point.words?.[option.id] ?? option.title;

/** What is looked at: every point gets one of the options. */
export interface LookFeed {
  /** The unit as the points are numbered on it. */
  readonly sketch: readonly SketchShape[];
  readonly points: readonly LookPoint[];
  /** What is to be done for a unit of this sheet, line by line, before it is looked at; left out where all are alike. */
  readonly plan?: (unit: unknown) => readonly string[];
  readonly options: readonly LookOption[];
}

/** A step that is looked at. */
export interface LookStep extends StepCommon {
  readonly kind: 'look';
  readonly feeds: { readonly look: LookFeed };
}

/** What is looked over: in order, worth a note, or unfit. */
export const inOrderOptions: readonly LookOption[] = [
  { id: 'in-order', title: 'In order', effect: 'pass' },
  { id: 'note', title: 'To note', effect: 'note' },
  { id: 'unfit', title: 'Unfit', effect: 'fail' },
];

/** What is looked at under pressure: dry, damp or dripping. */
export const leakOptions: readonly LookOption[] = [
  { id: 'dry', title: 'Dry', effect: 'pass' },
  { id: 'damp', title: 'Damp', effect: 'note' },
  { id: 'dripping', title: 'Dripping', effect: 'fail' },
];
