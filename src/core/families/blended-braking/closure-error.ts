import type { Clocked } from './drive-clock';
import { torquePerPascal, type Drive } from './drive';
import type { BlendedUnit } from './geometry';
import type { Taken } from './sensor-doubt';

const { abs, floor, max, min, round } = Math;

/** Delays that are tried, s. */
export const delayStep = 0.01;
const longestDelay = 0.3;

/** Requested less given, the given brought forward by one delay; N·m, known while somebody brakes. */
export interface ClosureError {
  readonly error: Clocked;
  /** s */
  readonly delay: number;
  /** Delays on either side fit so much worse that the delay is known to about this, s (one sigma of an even chance). */
  readonly delayStandard: number;
}

/** Value of a column between two steps; NaN where one of them is unknown. */
function between({ value, known }: Clocked, at: number): number {
  const low = floor(at);
  const share = at - low;
  if (low < 0 || low >= value.length || known[low] === 0) return Number.NaN;
  if (share < 1e-9) return value[low];
  return low + 1 < value.length && known[low + 1] === 1
    ? value[low] + share * (value[low + 1] - value[low])
    : Number.NaN;
}

/** So many steps tell one delay from the next, and what an error is made of. */
const stepsLookedAt = 20_000;
const weighedSteps = 50_000;

function meanSquare({ requested, given, clock }: Drive, steps: Int32Array, delay: number): number {
  const shift = delay / clock.step;
  const stride = max(1, floor(steps.length / stepsLookedAt));
  let [sum, count] = [0, 0];
  for (let at = 0; at < steps.length; at += stride) {
    const i = steps[at];
    const error = requested.value[i] - between(given, i + shift);
    if (error !== error) continue;
    sum += error * error;
    count++;
  }
  return count > 0 ? sum / count : Infinity;
}

/** The error with the given brought forward by a delay. */
export function errorAt({ requested, given, clock, braking }: Drive, delay: number): Clocked {
  const shift = delay / clock.step;
  const value = new Float64Array(clock.count);
  const known = new Uint8Array(clock.count);
  for (let i = 0; i < clock.count; i++) {
    if (braking[i] === 0) continue;
    const error = requested.value[i] - between(given, i + shift);
    if (error !== error) continue;
    value[i] = error;
    known[i] = 1;
  }
  return { value, known };
}

/** Steps whose flag is set. */
function stepsOf(flag: Uint8Array): Int32Array {
  const steps = new Int32Array(flag.length);
  let count = 0;
  for (let i = 0; i < flag.length; i++) if (flag[i] === 1) steps[count++] = i;
  return steps.subarray(0, count);
}

/** The error of a drive, with the one delay that leaves least of it over the steps that count. */
export function closureError(drive: Drive, counts: Uint8Array): ClosureError {
  const delays = Array.from({ length: round(longestDelay / delayStep) + 1 }, (_, at) => at * delayStep);
  const steps = stepsOf(counts);
  const squares = delays.map((delay) => meanSquare(drive, steps, delay));
  const best = squares.indexOf(min(...squares));
  return {
    error: errorAt(drive, delays[best]),
    delay: delays[best],
    delayStandard: delayStep / Math.sqrt(12),
  };
}

/** Steps that count for closure: somebody brakes, and no panic began less than a second before. */
export function countedSteps({ braking, clock }: Drive, panicsAt: readonly number[], leftOut: number): Uint8Array {
  const counts = braking.slice();
  for (const panic of panicsAt) {
    const from = floor((panic - clock.start) / clock.step);
    for (let i = max(0, from); i <= min(counts.length - 1, from + leftOut / clock.step); i++) counts[i] = 0;
  }
  return counts;
}

/**
 * What a weighted mean of the error takes from each sensor: `weigh` gives the weight of a step, none of which is outside of `range`; what
 * was given is `shift` steps later.
 */
export function takenBy(
  unit: BlendedUnit,
  drive: Drive,
  weigh: (step: number) => number,
  shift: number,
  range: readonly [number, number] = [0, drive.clock.count],
): Taken {
  const perPascal = torquePerPascal(unit);
  const torques = drive.wheels.map(() => 0);
  // Of hours a part says as much.
  const stride = max(1, floor((range[1] - range[0]) / weighedSteps));
  let [share, regen] = [0, 0];
  for (let i = range[0]; i < min(range[1], drive.clock.count); i += stride) {
    const weight = stride * weigh(i);
    if (weight === 0) continue;
    const at = min(drive.clock.count - 1, i + shift);
    share += weight;
    regen += weight * drive.regen.value[at];
    for (let wheel = 0; wheel < torques.length; wheel++)
      torques[wheel] += weight * perPascal[wheel] * drive.wheels[wheel].value[at];
  }
  return { wheels: torques.map((torque) => ({ share: abs(share), torque })), regen };
}
