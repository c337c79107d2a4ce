import { turningPoint } from './vacuum-along-pull';

/** Samples that a place is the mean of. */
const span = 20;
/** Boost has begun where the output lies this share of the longest input above it, and the lever has left its rest. */
const aboveInput = 0.02;
const leftRest = 0.05;
/** The control port has come to the atmosphere below this, Pa vacuum. */
const atAtmosphere = 600;

/** Where boost began and ended in a pull that is still going on: input and output, Pa. What has not come yet is not there. */
export interface BoostSoFar {
  readonly cutIn?: readonly [number, number];
  readonly runOut?: readonly [number, number];
}

/**
 * Cut-in and run-out as they happen, to be shown without figures: the figures come from the whole pull. Only where output and input are
 * both pressures does output above input mean that boost has begun. `inputEnd` is the longest input, Pa.
 */
export function boostSoFar(columns: Readonly<Record<string, readonly number[]>>, inputEnd: number): BoostSoFar {
  const { input_pressure: input, output_pressure: output, control_vacuum: control } = columns;
  if (!input || !output) return {};
  const turn = turningPoint(input);
  const mean = (column: readonly number[], at: number) => {
    let sum = 0;
    for (let i = at; i < at + span; i++) sum += column[i];
    return sum / span;
  };
  let cutIn: BoostSoFar['cutIn'];
  for (let i = 0; i + span <= turn; i += span) {
    const [x, y] = [mean(input, i), mean(output, i)];
    if (!cutIn && y - x > aboveInput * inputEnd && x > leftRest * inputEnd) cutIn = [x, x];
    else if (cutIn && control && mean(control, i) < atAtmosphere) return { cutIn, runOut: [x, y] };
  }
  return cutIn ? { cutIn } : {};
}
