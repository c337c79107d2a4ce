import { random, systematic, type Estimate } from '../../instruments/uncertainty';
import { errorNoise, type Closure } from './closure';
import { takenBy } from './closure-error';
import type { Drive } from './drive';
import { windowMeans, type Clocked } from './drive-clock';
import type { BlendedUnit } from './geometry';
import { sensorParts, type SensorDoubt } from './sensor-doubt';

const { abs, max, round, sqrt } = Math;

/** A dip is a mean over this, held against the mean of the time before the handover, s. */
const dipWindow = 0.1;
const before = 1;
/** How sharp it is shows beside a wider window. */
const widerWindow = 0.2;

/** One handover from motor to friction: where it began (s), and the largest torque that was missing in it beyond what was missing before, N·m. */
export interface Handover {
  readonly at: number;
  readonly dip: Estimate;
  /** What was missing in the second before it. */
  readonly open: Estimate;
}

/** Steps between which the speed falls from `high` to `low` (m/s) without rising above the one again. */
function fallsThrough({ value, known }: Clocked, high: number, low: number): readonly (readonly [number, number])[] {
  const falls: (readonly [number, number])[] = [];
  let from = -1;
  for (let i = 1; i < value.length; i++) {
    if (known[i] === 0 || value[i] > high) from = -1;
    if (known[i] === 1 && known[i - 1] === 1 && value[i - 1] > high && value[i] <= high) from = i;
    if (from >= 0 && known[i] === 1 && value[i] <= low) {
      falls.push([from, i]);
      from = -1;
    }
  }
  return falls;
}

/** Largest of the means that begin within a window before a step, or at it; 0 where none is known. */
function largestNear({ value, known }: Clocked, at: number, within: number): number {
  let largest = -Infinity;
  for (let i = max(0, at - within); i <= at; i++) if (known[i] === 1) largest = max(largest, value[i]);
  return largest === -Infinity ? 0 : largest;
}

/** The error with its means over a dip's window. */
interface Looked {
  readonly error: Clocked;
  readonly means: Clocked;
}

/** What is held against a dip: the mean of what was missing before it, and over how many steps. */
function heldBefore({ error }: Looked, from: number, steps: number): { readonly mean: number; readonly count: number } {
  let [sum, count] = [0, 0];
  for (let i = max(0, from - steps); i < from; i++)
    if (error.known[i] === 1) {
      sum += error.value[i];
      count++;
    }
  return { mean: sum / count, count };
}

/** Step at which the deepest window of a stretch begins; −1 where none is known. */
function deepestIn({ means }: Looked, from: number, to: number, inDip: number): number {
  let best = -1;
  for (let i = from; i + inDip <= to + 1; i++)
    if (means.known[i] === 1 && (best < 0 || means.value[i] > means.value[best])) best = i;
  return best;
}

/** Every handover of a drive of which all was recorded, braking from a second before it to its end. */
export function handoversOf(
  unit: BlendedUnit,
  drive: Drive,
  { error, delay, beside: errorsBeside }: Closure,
  speed: Clocked,
  doubt: SensorDoubt,
): readonly Handover[] {
  const { clock, braking, interval } = drive;
  const look = (of: Clocked): Looked => ({ error: of, means: windowMeans(of, clock, dipWindow) });
  const own = look(error);
  const beside = errorsBeside.map(look);
  const wider = windowMeans(error, clock, widerWindow);
  // A straight line between samples cuts c·T²/12 off a hump of curvature c; windows cut c·w²/24 off it.
  const cut = interval ** 2 / 12 / ((widerWindow ** 2 - dipWindow ** 2) / 24);
  const [inDip, inBefore] = [max(1, round(dipWindow / clock.step)), round(before / clock.step)];
  const noise = errorNoise(unit, drive) * sqrt(1 / inDip + 1 / inBefore);
  return fallsThrough(speed, unit.handoverHigh, unit.handoverLow).flatMap(([from, to]): Handover[] => {
    const { mean, count } = heldBefore(own, from, inBefore);
    const best = deepestIn(own, from, to, inDip);
    // Half of the second before must have been braking, and all of the handover.
    const all = !braking.subarray(from, to).includes(0);
    if (count < inBefore / 2 || !all || best < 0) return [];
    const weigh = (step: number) => {
      const inIt = step >= best && step < best + inDip ? 1 / inDip : 0;
      const held = step >= from - inBefore && step < from && error.known[step] === 1 ? 1 / count : 0;
      return inIt - held;
    };
    const dips = beside.map((each) => {
      const at = deepestIn(each, from, to, inDip);
      return at < 0 ? Number.NaN : each.means.value[at] - heldBefore(each, from, inBefore).mean;
    });
    const shift = round(delay / clock.step);
    const beforeIt = [max(0, from - inBefore), from] as const;
    const weighBefore = (step: number) => (error.known[step] === 1 ? 1 / count : 0);
    const range = [beforeIt[0], best + inDip] as const;
    return [
      {
        at: clock.start + from * clock.step,
        dip: {
          value: own.means.value[best] - mean,
          components: [
            // The largest of many means has more noise in it than any one of them.
            random('noise', noise * Math.SQRT2),
            systematic('timing', cut * max(0, own.means.value[best] - largestNear(wider, best, inDip))),
            systematic('timing', dips.some(Number.isNaN) ? 0 : abs(dips[1] - dips[0]) / 2 / sqrt(3)),
            ...sensorParts(doubt, takenBy(unit, drive, weigh, shift, range)),
          ],
        },
        open: {
          value: mean,
          components: [
            random('noise', errorNoise(unit, drive) / sqrt(count)),
            ...sensorParts(doubt, takenBy(unit, drive, weighBefore, shift, beforeIt)),
          ],
        },
      },
    ];
  });
}

/** The deepest of handovers; null where there was none. */
export function deepestOf(handovers: readonly Handover[]): Handover | null {
  return handovers.reduce<Handover | null>(
    (deepest, each) => (deepest && deepest.dip.value >= each.dip.value ? deepest : each),
    null,
  );
}
