/** Coverage factor of many degrees of freedom: 95.45 % (JCGM 100:2008, 6.3.3). */
export const coverageFactor = 2;

/** Student's t for 95.45 % by degrees of freedom (JCGM 100:2008, table G.2). */
const table: readonly (readonly [freedom: number, factor: number])[] = [
  [1, 13.97],
  [2, 4.53],
  [3, 3.31],
  [4, 2.87],
  [5, 2.65],
  [6, 2.52],
  [7, 2.43],
  [8, 2.37],
  [10, 2.28],
  [12, 2.23],
  [15, 2.18],
  [20, 2.13],
  [30, 2.09],
  [50, 2.05],
  [100, 2.025],
];

/** Coverage factor of a standard uncertainty of so many degrees of freedom (one at least), between the table's rows even in 1/freedom. */
export function coverageOf(freedom: number): number {
  const at = Math.max(1, freedom);
  if (at === Infinity) return coverageFactor;
  const next = table.findIndex(([row]) => row >= at);
  if (next === 0) return table[0][1];
  const [below, low] = next < 0 ? table[table.length - 1] : table[next - 1];
  const [above, high] = next < 0 ? [Infinity, coverageFactor] : table[next];
  const share = (1 / below - 1 / at) / (1 / below - 1 / above);
  return low + share * (high - low);
}
