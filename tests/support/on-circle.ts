/** Arrows on a circle of a graph: what is left once all that leads nowhere is taken away. */
export function onCircle(edges: readonly { readonly from: string; readonly to: string }[]): readonly string[] {
  let left = edges.filter(({ from, to }) => from !== to);
  for (;;) {
    const sources = new Set(left.map(({ from }) => from));
    const targets = new Set(left.map(({ to }) => to));
    const kept = left.filter(({ from, to }) => sources.has(to) && targets.has(from));
    if (kept.length === left.length) return [...new Set(kept.map(({ from, to }) => `${from} → ${to}`))];
    left = kept;
  }
}
