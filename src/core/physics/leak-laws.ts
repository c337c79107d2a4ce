import { criticalRatio, nozzleFlow } from './nozzle';

/**
 * How a leak that does not change lets what is held go: a coordinate of what is left (Pa of difference to the outside, above
 * zero) that falls evenly with time.
 */
export type LeakLaw = (left: number) => number;

/** Through a gap so narrow that flow is in proportion to the difference, as of oil or of a small difference: exponential. */
export const proportional: LeakLaw = (left) => Math.log(left);

/** Through a hole, of oil: flow with the root of the difference. */
export const throughHole: LeakLaw = (left) => Math.sqrt(left);

/** Air through a narrow gap into a vacuum under air of `outside` (Pa absolute): flow with the difference of the squares of pressure. */
export const airThroughGap =
  (outside: number): LeakLaw =>
  (left) =>
    Math.log(left / (2 * outside - left));

/** Steps in which the flow through a hole is summed. */
const steps = 64;
/** From here on down nobody reads what is left, Pa: the last of it flows ever more slowly, and is summed from here. */
const nearlyNone = 50;
/** The temperature is the same throughout, and so does not matter to how the flow falls. */
const anyTemperature = 293.15;

/** Air through a hole into a vacuum under air of `outside` (Pa absolute): even while choked, then ever less (isentropic nozzle). */
export const airThroughHole =
  (outside: number): LeakLaw =>
  (left) => {
    const choked = outside * (1 - criticalRatio);
    const flow = (vacuum: number) => nozzleFlow(1, outside, outside - vacuum, anyTemperature);
    // Substituted left = y², so that the last of it, where the flow goes to nothing with the root, sums well.
    const from = Math.sqrt(nearlyNone);
    const width = (Math.sqrt(Math.min(left, choked)) - from) / steps;
    let sum = Math.max(0, left - choked) / flow(choked);
    for (let i = 0; i < steps; i++) {
      const y = from + (i + 0.5) * width;
      sum += (2 * y * width) / flow(y * y);
    }
    return sum;
  };

/** What of a figure is left, in so many halvings of the interval as double precision has room for. */
const halvings = 60;

/**
 * What is left (Pa) at `time` s by one law, of a leak that took `from` at 0 to `to` at `span` s (both Pa above zero): between them, or
 * carried on beyond. Where nothing was lost it is on the straight line through both.
 */
export function leftBy(
  law: LeakLaw,
  { from, to, span }: { readonly from: number; readonly to: number; readonly span: number },
  time: number,
): number {
  if (to >= from) return from + ((to - from) * time) / span;
  const first = law(from);
  const wanted = first + ((law(to) - first) * time) / span;
  let low = 0;
  let high = from;
  for (let i = 0; i < halvings; i++) {
    const middle = (low + high) / 2;
    if (law(middle) > wanted) high = middle;
    else low = middle;
  }
  return (low + high) / 2;
}
