import type { Samples } from '../../traces/own-samples';
import { random, systematic, type Estimate } from '../../instruments/uncertainty';
import type { Drive } from './drive';
import { meanInterval } from '../../traces/time-mean';
import type { Clocked } from './drive-clock';

const { abs, max, min, round, sqrt } = Math;

/** The pedal's rate is taken over this, s. */
const rateOver = 0.02;
/** One stamp is one event, s. */
const oneEvent = 1;
/** What only comes back from a dropout is no press: where the pedal was so long before is looked at, s. */
const newGround = 0.15;
/** No foot is faster, m/s: what is, is a contact that came back. */
const fastestFoot = 2;
/** A rise of which so much is only the way back began in a dropout. */
const comesBack = 0.2;

/** Share of what the motor gave, and of the largest request, that it may still give; share of the request that friction must give. */
const regenLeft = 0.1;
const regenLeftOfLargest = 0.02;
const frictionOfRequest = 0.9;
/** And both for so long, s. */
const forSoLong = 0.1;
/** What the motor gave is its mean over this before, s. */
const before = 0.1;

/** A log that samples the pedal more slowly than this cannot tell how fast it moves, Hz. */
export const panicRateLeast = 1 / rateOver;

/** A single sample that lies further from what is between its neighbours than they from each other is taken as that. */
function withoutSpikes({ time, value }: Samples): Samples {
  const out = value.slice();
  for (let i = 1; i + 1 < value.length; i++) {
    const [a, b, c] = [value[i - 1], value[i], value[i + 1]];
    const between = a + ((c - a) * (time[i] - time[i - 1])) / (time[i + 1] - time[i - 1]);
    if (abs(b - between) > abs(c - a)) out[i] = between;
  }
  return { time, value: out };
}

/** Index of the last of the highest values from one index to another. */
function highestIn(value: Float64Array, from: number, to: number): number {
  let highest = from;
  for (let k = from; k <= to; k++) if (value[k] >= value[highest]) highest = k;
  return highest;
}

/** Times (s) at which somebody stamps on the pedal: its rate (m/s) passes the threshold while it is pressed to where it was not. */
export function panicEvents(travel: Samples, threshold: number): readonly number[] {
  const { time, value } = withoutSpikes(travel);
  const events: number[] = [];
  let [behind, low] = [0, 0];
  for (let i = 1; i < time.length; i++) {
    // The sample that is the rate's own time behind, and none further: over a gap there is no rate.
    while (behind + 1 < i && time[behind + 1] <= time[i] - rateOver + 1e-9) behind++;
    const dt = time[i] - time[behind];
    if (dt < rateOver - 1e-6 || dt > 2 * rateOver) continue;
    const rise = value[i] - value[behind];
    if (value[i] - value[i - 1] > fastestFoot * (time[i] - time[i - 1])) continue;
    if (rise < threshold * dt) continue;
    while (time[low] < time[behind] - newGround) low++;
    const highest = highestIn(value, low, behind);
    const back = value[highest] - value[behind] > rise * comesBack;
    // After a dropout the pedal is where it was, or has moved on by what a foot did meanwhile.
    if (back && value[i] - value[highest] < threshold * (time[i] - time[highest])) continue;
    if (events.length === 0 || time[behind] - events[events.length - 1] > oneEvent) events.push(time[behind]);
  }
  return events;
}

/** One panic of a drive, begun at a time (s); none is left out, whatever became of it. */
export type Panic = { readonly at: number } & (
  | { readonly kind: 'answered'; readonly delay: Estimate }
  /** The braking ended before motor and friction had answered: it took at least this long. */
  | { readonly kind: 'not-answered'; readonly atLeast: Estimate }
  /** Nothing was requested within a second of it. */
  | { readonly kind: 'not-braked' }
  /** The log leaves out a part of what followed. */
  | { readonly kind: 'not-recorded' }
);

interface Columns {
  readonly requested: Clocked;
  readonly regen: Clocked;
  readonly friction: Clocked;
}

function answeredAt(
  { requested, regen, friction }: Columns,
  {
    from,
    to,
    hold,
    regenMost,
  }: { readonly from: number; readonly to: number; readonly hold: number; readonly regenMost: number },
  share: number,
): number | null {
  let since = -1;
  for (let i = from; i < to; i++) {
    const holds = regen.value[i] <= regenMost && friction.value[i] >= share * requested.value[i];
    if (!holds) since = -1;
    else if (since < 0) since = i;
    if (since >= 0 && i - since >= hold) return since;
  }
  return null;
}

/** Whether torque was known at every step from one to another. */
const isKnown = ({ requested, given }: Drive, from: number, to: number): boolean =>
  !requested.known.subarray(from, to).includes(0) && !given.known.subarray(from, to).includes(0);

/**
 * How each panic of a drive was answered: from its begin until the motor gives hardly anything and friction gives what was requested,
 * for a tenth of a second on end; else to the end of the braking. `frictionDoubt`: standard uncertainty of friction as a share of itself.
 */
export function panicDelays(
  drive: Drive,
  events: readonly number[],
  travel: Samples,
  frictionDoubt: number,
): readonly Panic[] {
  const own = meanInterval(travel);
  return events.map((at): Panic => panicAt(drive, at, own, frictionDoubt));
}

function panicAt(drive: Drive, at: number, interval: number, frictionDoubt: number): Panic {
  const { clock, stretches, largest } = drive;
  const from = round((at - clock.start) / clock.step);
  const within = from + round(oneEvent / clock.step);
  // The request follows the pedal: the braking that begins with it, or that it falls into.
  const stretch = stretches.find(([begin, end]) => end > from && begin <= within);
  const told = stretch ? min(clock.count, stretch[1] + 1) : within;
  if (from < 0 || told > clock.count || !isKnown(drive, from, told)) return { at, kind: 'not-recorded' };
  if (!stretch) return { at, kind: 'not-braked' };
  const [begin, to] = stretch;
  const back = max(0, from - round(before / clock.step));
  let was = 0;
  for (let i = back; i < from; i++) was += drive.regen.value[i] / max(1, from - back);
  const asked = {
    from: max(from, begin),
    to,
    hold: round(forSoLong / clock.step),
    regenMost: max(regenLeft * was, regenLeftOfLargest * largest),
  };
  const answered = (share: number) => answeredAt(drive, asked, share);
  const found = answered(frictionOfRequest);
  const beside = [-1, 1].map((sign) => answered(frictionOfRequest * (1 + sign * frictionDoubt)) ?? to);
  const estimate: Estimate = {
    value: ((found ?? to) - from) * clock.step,
    components: [
      random('timing', Math.hypot(interval, clock.step) / sqrt(12)),
      systematic('gauge-gain', ((beside[1] - beside[0]) * clock.step) / 2),
    ],
  };
  return found === null ? { at, kind: 'not-answered', atLeast: estimate } : { at, kind: 'answered', delay: estimate };
}
