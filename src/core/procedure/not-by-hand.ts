import type { TypedEntry } from './typed-entry';

/** Why a person cannot read a step off dials. */
export type NotByHandReason =
  /** It is over sooner than an eye or a watch follows. */
  | 'too-quick'
  /** It is told by what many signals of a vehicle do together, over a whole drive. */
  | 'many-signals'
  /** No dial or lamp shows it to anybody. */
  | 'nothing-shows-it';

/** A step that no person reads: a log or the bench itself must. */
export interface NotByHand<Unit> {
  readonly kind: 'not-by-hand';
  readonly why: NotByHandReason;
  /** What another tool worked out of it, as it was typed formerly and still stands in files; nobody is asked for it. */
  readonly former: TypedEntry<Unit>;
}

export const notByHand = <Unit>(why: NotByHandReason, former: TypedEntry<Unit>): NotByHand<Unit> => ({
  kind: 'not-by-hand',
  why,
  former,
});
