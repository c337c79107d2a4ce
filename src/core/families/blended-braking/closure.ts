import { random, systematic, type Estimate } from '../../instruments/uncertainty';
import { closureError, countedSteps, delayStep, errorAt, takenBy, type ClosureError } from './closure-error';
import { torquePerPascal, type Drive } from './drive';
import { windowMeans, type Clocked } from './drive-clock';
import type { BlendedUnit } from './geometry';
import { sensorParts, type SensorDoubt } from './sensor-doubt';

const { abs, hypot, max, min, round, sqrt } = Math;

/** The brakes answer a panic as fast as they can: what closes in its first second is another question, s. */
const panicLeftOut = 1;
/** The worst of it is a mean over this, s. */
const worstWindow = 0.2;

/** How the torque of a drive closes, N·m. */
export interface Closure extends ClosureError {
  /** The error with delays a step shorter and longer: what it hangs on the delay. */
  readonly beside: readonly Clocked[];
  readonly bias: Estimate;
  readonly rms: Estimate;
  /** Largest mean over a fifth of a second, without its sign; and where it begins, s. */
  readonly worst: { readonly estimate: Estimate; readonly at: number };
}

/** Noise of the error at one step, N·m, one sigma: white noise of every sample that it is made of. */
export function errorNoise(unit: BlendedUnit, { noise }: Drive): number {
  const perPascal = torquePerPascal(unit);
  return hypot(noise.requested, noise.regen, ...noise.wheels.map((each, at) => each * perPascal[at]));
}

/** Mean of an error and of its square over the steps that are known, and that count where it says which. */
function momentsOf(
  { value, known }: Clocked,
  counts: Uint8Array = known,
): { readonly mean: number; readonly square: number; readonly count: number } {
  let sum = 0;
  let squares = 0;
  let count = 0;
  for (let i = 0; i < value.length; i++) {
    if (known[i] === 0 || counts[i] === 0) continue;
    sum += value[i];
    squares += value[i] * value[i];
    count++;
  }
  return { mean: sum / count, square: squares / count, count };
}

/** Largest mean over a window, without its sign; the step that it begins at. */
function worstOf(means: Clocked): number {
  let best = -1;
  for (let i = 0; i < means.value.length; i++)
    if (means.known[i] === 1 && (best < 0 || abs(means.value[i]) > abs(means.value[best]))) best = i;
  return best;
}

/** The error, its bias, size and worst with their uncertainties; null where no step counts. */
export function closureOf(
  unit: BlendedUnit,
  drive: Drive,
  doubt: SensorDoubt,
  panicsAt: readonly number[],
): Closure | null {
  const counts = countedSteps(drive, panicsAt, panicLeftOut);
  const counted = { ...drive, braking: counts };
  const found = closureError(counted, counts);
  const { error, delay } = found;
  const { mean: bias, square: withNoise, count } = momentsOf(error);
  const means = windowMeans(error, drive.clock, worstWindow);
  const at = worstOf(means);
  if (count === 0 || at < 0) return null;
  const noise = errorNoise(unit, drive);
  // Noise adds to the mean square by its own: what is left is the error's.
  const rms = sqrt(max(0, withNoise - noise * noise));
  const shift = round(delay / drive.clock.step);
  const parts = (weigh: (step: number) => number) => sensorParts(doubt, takenBy(unit, drive, weigh, shift));
  const beside = [delay - delayStep, delay + delayStep].map((each) => errorAt(drive, max(0, each)));
  const moments = beside.map((each) => momentsOf(each, counts));
  const ofBias = parts((step) => (error.known[step] === 1 ? 1 / count : 0));
  const biasStandard = hypot(...ofBias.map(({ standard }) => standard));
  const own = (values: readonly number[]) => abs(values[1] - values[0]) / 2 / sqrt(3);
  const inWorst = round(worstWindow / drive.clock.step);
  return {
    ...found,
    // What closes by other rules is asked of the panics too.
    error: errorAt(drive, delay),
    beside,
    bias: {
      value: bias,
      components: [
        random('noise', noise / sqrt(count)),
        systematic('timing', own(moments.map(({ mean }) => mean))),
        ...ofBias,
      ],
    },
    rms: {
      value: rms,
      components: [
        random('noise', noise / sqrt(count)),
        systematic('timing', own(moments.map(({ square }) => sqrt(square)))),
        // The root moves with each error as much as it is alike to it; next to nothing, by as much as the bias may be off.
        ...(rms > biasStandard
          ? parts((step) => (error.known[step] === 1 ? error.value[step] / rms / count : 0))
          : ofBias),
      ],
    },
    worst: {
      at: drive.clock.start + at * drive.clock.step,
      estimate: {
        value: abs(means.value[at]),
        components: [
          // The largest of many means has more noise in it than any one of them, and a slow column fewer samples.
          random('noise', (noise * Math.SQRT2) / sqrt(max(1, worstWindow / max(drive.clock.step, drive.interval)))),
          // Between the samples of a slow column a corner may lie anywhere.
          systematic('timing', worstSlope(drive, error, at, inWorst) * hypot(found.delayStandard, drive.interval / 12)),
          ...sensorParts(
            doubt,
            takenBy(unit, drive, () => 1 / inWorst, shift, [at, at + inWorst]),
          ),
        ],
      },
    },
  };
}

/** How much the mean over a window moves with the delay, N·m/s. */
function worstSlope({ given, clock }: Drive, { value }: Clocked, at: number, length: number): number {
  const last = min(value.length - 1, at + length);
  return abs(given.value[last] - given.value[at]) / (length * clock.step);
}
