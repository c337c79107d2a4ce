/** A copy of at most so many values of a column, evenly spread over it; of all of them where it has no more. */
export function evenlySpread(column: Float64Array, most: number): Float64Array {
  const stride = Math.max(1, Math.ceil(column.length / most));
  if (stride === 1) return column.slice();
  return Float64Array.from({ length: Math.ceil(column.length / stride) }, (_, i) => column[i * stride]);
}
