/** What a foot, an ear or a mouth found: evidence, and never a measured pass. */
export type FeltCode =
  | 'sank-and-stayed'
  | 'stayed-up'
  | 'sank-and-came-back'
  | 'to-the-floor'
  | 'rush-of-air'
  | 'little-air'
  | 'no-air'
  | 'blows-one-way'
  | 'blows-both-ways'
  | 'blows-neither-way'
  | 'much-lighter'
  | 'little-lighter'
  | 'no-lighter';

/** What that speaks of: a sound part, one that does too little, one that is faulty otherwise, or neither. */
export type FeltSays = 'sound' | 'short' | 'fault' | 'nothing';

export interface Felt {
  readonly code: FeltCode;
  readonly says: FeltSays;
}
