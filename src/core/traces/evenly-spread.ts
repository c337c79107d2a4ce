/**
 * A median of so many, evenly spread, is that of all. A prime: what a logger does every so many rows is met in all its phases, not in one
 * of them again and again.
 */
const enoughToTell = 65_521;

/** What stands at so many places of `length` at most, evenly spread over them; at all of them where there are no more. */
export function evenlySpread(length: number, at: (index: number) => number, most = enoughToTell): Float64Array {
  const count = Math.max(0, Math.min(length, most));
  return Float64Array.from({ length: count }, (_, i) => at(Math.floor((i * length) / count)));
}
