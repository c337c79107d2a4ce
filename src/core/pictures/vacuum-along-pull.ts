/** A supply below this is no vacuum yet, Pa. */
const vacuumOn = 5_000;

/** Cells of input that the pull is divided into, and how many samples are passed over between two looks. */
const cells = 48;
const stride = 5;

/** Index of the highest value: a pull lies before it, the way back after it. */
export function turningPoint(input: ArrayLike<number>): number {
  let at = 0;
  for (let i = 1; i < input.length; i++) if (input[i] > input[at] || Number.isNaN(input[at])) at = i;
  return at;
}

/**
 * Supply vacuum (Pa) as a function of input (Pa gauge): what was there when the pull first passed that input, and
 * `ahead` (Pa) where it has not come to yet, so that an expected curve is computed for the vacuum that was there.
 */
export function vacuumAlongPull(
  input: ArrayLike<number>,
  supply: ArrayLike<number>,
  how: { readonly inputEnd: number; readonly ahead: number },
): (input: number) => number {
  const seen = new Float64Array(cells).fill(Number.NaN);
  const cellOf = (at: number) => Math.min(cells - 1, Math.max(0, Math.floor((at / how.inputEnd) * cells)));
  const turn = turningPoint(input);
  for (let i = 0; i <= turn; i += stride) {
    const cell = cellOf(input[i]);
    if (supply[i] > vacuumOn && Number.isNaN(seen[cell])) seen[cell] = supply[i];
  }
  return (at) => {
    const known = seen[cellOf(at)];
    return Number.isNaN(known) ? how.ahead : known;
  };
}
