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
 * Supply vacuum (Pa) as a function of input (Pa gauge): what was there when the pull first passed that input, so that an expected
 * curve is computed for the vacuum that was there; further on what was there last, before it what was there first, and `ahead`
 * (Pa) where none was seen at all. Between two looks it runs straight.
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
  const known = [...seen.keys()].filter((cell) => !Number.isNaN(seen[cell]));
  if (known.length === 0) return () => how.ahead;
  return (at) => {
    const place = (at / how.inputEnd) * cells - 0.5;
    const next = known.findIndex((cell) => cell >= place);
    if (next <= 0) return seen[next === 0 ? known[0] : known[known.length - 1]];
    const [before, after] = [known[next - 1], known[next]];
    return seen[before] + ((place - before) / (after - before)) * (seen[after] - seen[before]);
  };
}
