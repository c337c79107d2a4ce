import { evenlySpread } from '../traces/evenly-spread';
import type { ChannelDescription } from '../quantities/channels';

/** How a column has to be read to be what its channel is. */
export type ColumnReference =
  | { readonly kind: 'as-written' }
  /** Negative throughout: a vacuum as gauge pressure, or a sensor wired the other way round. */
  | { readonly kind: 'negative' }
  | { readonly kind: 'absolute' }
  /** It makes sense both ways: somebody has to say which. SI. */
  | { readonly kind: 'ambiguous'; readonly low: number; readonly high: number };

/** A column that starts about here and falls, as shares of the atmosphere, was drawn down as an absolute pressure. */
const startsAtAtmosphere = 0.88;
const fallsTo = 0.9;
/** No pump leaves less than this share of the atmosphere. */
const bestVacuum = 0.97;
/** Between these shares of the atmosphere a figure is a weak vacuum, or an absolute pressure under a good one. */
const eitherWay = [0.12, 0.5] as const;
/** Readings about zero may lie this far on the wrong side, Pa, N or A. */
const aboutZero = { vacuum: 2_000, pressure: 50_000, force: 20, current: 1 } as const;
/** A resting gauge pressure so close to the atmosphere (as a share of it) may be absolute, or be left in the unit. */
const nearAtmosphere = 0.05;

/** Lowest, highest, first and usual low figure of a column; null where it holds none. */
function spanOf(column: Float64Array) {
  let low = Infinity;
  let high = -Infinity;
  let count = 0;
  for (let i = 0; i < column.length; i++) {
    const value = column[i];
    if (value !== value) continue;
    count++;
    if (value < low) low = value;
    if (value > high) high = value;
  }
  if (count === 0) return null;
  // A channel that was read seldom has its figures in a few of its rows, and none may be passed over for being there.
  const figures = count === column.length ? column : column.filter((value) => !Number.isNaN(value));
  const few = figures.subarray(0, Math.max(1, Math.min(20, Math.floor(count / 20))));
  const sorted = evenlySpread(count, (i) => figures[i]).sort();
  return {
    low,
    high,
    first: few.reduce((sum, value) => sum + value, 0) / few.length,
    resting: sorted[Math.floor(sorted.length / 20)],
  };
}

/**
 * What sign and reference a column of figures (SI) has for its channel, at a local atmosphere (Pa absolute): a vacuum, a
 * gauge pressure, a force or a current of amperes that is negative throughout is turned; a vacuum that starts at the atmosphere and falls, or
 * that no pump could leave, is absolute; what makes sense both ways is asked, but of a column that its file calls a vacuum by the
 * channel's own name (`called`): weak vacuum is what this is for.
 */
export function inferReference(
  channel: Pick<ChannelDescription, 'dimension' | 'reference'>,
  column: Float64Array,
  ambient: number,
  called: boolean,
): ColumnReference {
  const span = spanOf(column);
  if (!span) return { kind: 'as-written' };
  const { low, high, first, resting } = span;
  if (channel.reference === 'vacuum') {
    if (high <= aboutZero.vacuum && low < -aboutZero.vacuum) return { kind: 'negative' };
    if (first > startsAtAtmosphere * ambient && low < fallsTo * first) return { kind: 'absolute' };
    if (high > bestVacuum * ambient) return { kind: 'absolute' };
    if (!called && low > eitherWay[0] * ambient && high < eitherWay[1] * ambient)
      return { kind: 'ambiguous', low, high };
    return { kind: 'as-written' };
  }
  if (channel.reference === 'gauge') {
    if (high <= aboutZero.pressure && low < -2 * aboutZero.pressure) return { kind: 'negative' };
    if (Math.abs(resting - ambient) < nearAtmosphere * ambient && high > 3 * ambient)
      return { kind: 'ambiguous', low, high };
    return { kind: 'as-written' };
  }
  // A clamp the other way round, or a tool that writes what is drawn as a loss.
  if (channel.dimension === 'current' && high <= aboutZero.current && low < -2 * aboutZero.current)
    return { kind: 'negative' };
  if (channel.dimension === 'force' && high <= aboutZero.force && low < -2 * aboutZero.force)
    return { kind: 'negative' };
  return { kind: 'as-written' };
}
