import type { FeltCode } from './felt';

/** What was felt or heard, in words: as they are offered and as they are said. */
export const feltWords: Readonly<Record<FeltCode, string>> = {
  'sank-and-stayed': 'sank a little and stayed',
  'stayed-up': 'stayed up',
  'sank-and-came-back': 'sank and came back',
  'to-the-floor': 'went to the floor',
  'rush-of-air': 'a rush of air',
  'little-air': 'a little air',
  'no-air': 'no air at all',
  'blows-one-way': 'blows one way only',
  'blows-both-ways': 'blows both ways',
  'blows-neither-way': 'blows neither way',
  'much-lighter': 'much lighter with it',
  'little-lighter': 'a little lighter with it',
  'no-lighter': 'no lighter with it',
};
