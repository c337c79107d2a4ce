import { commonDivisor } from './common-divisor';
import type { Samples } from './own-samples';
import { meanInterval } from './time-mean';

const { abs, max, min, round } = Math;

/** So many changes of a channel show how it was written; so many clear steps among them are needed. */
const changesLookedAt = 2000;
const stepsNeeded = 20;
/** A step of so many of its smallest ones is one that a channel cannot take in a moment after it has stood still … */
const clearStep = 3;
/** … and hardly ever does: where so many of them come after a standstill, what stood was no measurement. */
const share = 0.9;

/** What stands for longer, s, is a slow quantity, and what it was stands for it. */
const longestStanding = 5;

interface Changes {
  /** How many samples each one comes after the one before it, and by how much, without its sign. */
  readonly after: readonly number[];
  readonly by: readonly number[];
}

function changesOf({ value }: Samples): Changes {
  const [after, by] = [[] as number[], [] as number[]];
  let last = 0;
  for (let i = 1; i < value.length && by.length < changesLookedAt; i++) {
    if (value[i] === value[i - 1]) continue;
    after.push(i - last);
    by.push(abs(value[i] - value[i - 1]));
    last = i;
  }
  return { after, by };
}

/** Rows that all changes lie a multiple of apart, of a channel that is no switch and no even slope; 1 where they come as they may. */
function inStep({ after, by }: Changes): number {
  const apart = after.slice(1);
  if (apart.length < stepsNeeded || apart.every((each) => each === apart[0]) || by.every((each) => each === by[0]))
    return 1;
  const step = apart.reduce(commonDivisor);
  return step === min(...apart) ? step : 1;
}

/**
 * How many samples a logger wrote of each one that a sensor gave, where it wrote each of them again until the next one came; 1 of a channel
 * that was written as it came. A coarse channel stands still too, but never steps by several of its divisions out of a standstill.
 */
export function timesWritten(samples: Samples): number {
  const changes = changesOf(samples);
  const written = max(stoodThrough(changes), inStep(changes));
  return written * meanInterval(samples) > longestStanding ? 1 : written;
}

/** Rows that a channel usually stands still for before it steps clearly; 1 of one that does not. */
function stoodThrough({ after, by }: Changes): number {
  // The first change has nothing before it that would tell for how long it stood.
  const smallest = min(...by);
  const stood = after.filter((_, at) => at > 0 && by[at] >= clearStep * smallest).sort((a, b) => a - b);
  if (stood.length < stepsNeeded) return 1;
  const few = stood[Math.floor((1 - share) * stood.length)];
  if (few < 2) return 1;
  // A sensor that rests gives the same figure more than once; what is usual is told by those that come soon after each other.
  const usual = stood.filter((each) => each < 2 * few);
  return max(1, round(usual.reduce((sum, each) => sum + each, 0) / usual.length));
}

/** The samples that a sensor gave, where a logger wrote each of them so many times; of what rests, as many as it would have given. */
export function asGiven({ time, value }: Samples, written: number): Samples {
  const [times, values] = [new Float64Array(time.length), new Float64Array(time.length)];
  let [count, last] = [0, 0];
  for (let i = 0; i < time.length; i++) {
    if (count > 0 && value[i] === value[i - 1] && i - last < written) continue;
    times[count] = time[i];
    values[count++] = value[i];
    last = i;
  }
  return { time: times.subarray(0, count), value: values.subarray(0, count) };
}
