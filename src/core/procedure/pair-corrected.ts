import type { PairCorrection } from './step-analysis';

/** What an output gauge would read if it agreed with the input gauge, SI of the output; as it reads where nothing is corrected. */
export function pairCorrected(pair: PairCorrection | null): (output: number) => number {
  return pair?.applied ? (output) => (output - pair.offset) / pair.gain : (output) => output;
}
