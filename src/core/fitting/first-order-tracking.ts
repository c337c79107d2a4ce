import { Matrix, inverse, solve } from 'ml-matrix';
import type { Termination } from './termination';

const { abs, exp, log, max, min, sqrt } = Math;
const { isFinite } = Number;

/** A channel at its own times (s, rising). */
interface Samples {
  readonly time: Float64Array;
  readonly value: Float64Array;
}

/** How an output follows a command: dp/dt = (offset + gain·u(t − deadTime) − p)/timeConstant, no faster than its rate limit. */
export interface FollowingLaw {
  /** s */
  readonly deadTime: number;
  readonly timeConstant: number;
  readonly gain: number;
  /** In the unit of the output. */
  readonly offset: number;
  /** Per second; Infinity where none shows. */
  readonly rateLimit: number;
}

export interface TrackingFit extends FollowingLaw {
  readonly termination: Termination;
  /** One sigma, s. */
  readonly deadTimeStandard: number;
  readonly timeConstantStandard: number;
  /** Standard deviation of what is left. */
  readonly residual: number;
  readonly count: number;
}

/** A stretch of time, s. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

const failed = (termination: Termination, count: number): TrackingFit => ({
  termination,
  deadTime: Number.NaN,
  timeConstant: Number.NaN,
  gain: Number.NaN,
  offset: Number.NaN,
  rateLimit: Infinity,
  deadTimeStandard: Number.NaN,
  timeConstantStandard: Number.NaN,
  residual: Number.NaN,
  count,
});

/** When a command changes and to what: it stands at each value until the next. */
interface Commands {
  readonly time: Float64Array;
  readonly value: Float64Array;
}

function intervalOf({ time }: Samples): number {
  const intervals = time.slice(1).map((at, i) => at - time[i]);
  return intervals.sort()[intervals.length >> 1] ?? 0;
}

/** A command's changes: samples that say again what was said before are left out. */
function changesOf({ time, value }: Samples): Commands {
  const kept: number[] = [];
  for (let i = 0; i < value.length; i++) if (i === 0 || value[i] !== value[i - 1]) kept.push(i);
  return { time: Float64Array.from(kept, (i) => time[i]), value: Float64Array.from(kept, (i) => value[i]) };
}

/** State after `dt` s towards `aim`: straight at the rate limit while it is further away than that allows, then first order. Exact. */
function moved(p: number, aim: number, dt: number, { timeConstant, rateLimit }: FollowingLaw): number {
  const away = aim - p;
  const reach = rateLimit * timeConstant;
  if (abs(away) <= reach) return aim - away * exp(-dt / timeConstant);
  const straight = (abs(away) - reach) / rateLimit;
  const direction = away > 0 ? 1 : -1;
  if (dt <= straight) return p + direction * rateLimit * dt;
  return aim - direction * reach * exp(-(dt - straight) / timeConstant);
}

/** What a law makes of a command (held between its samples) at given times (s, rising), from `start` at the first of them. Exact. */
export function follow(commands: Commands, at: Float64Array, start: number, law: FollowingLaw): Float64Array {
  const out = new Float64Array(at.length);
  const { time, value } = commands;
  let next = 0;
  while (next < time.length && time[next] + law.deadTime <= at[0]) next++;
  let aim = law.offset + law.gain * value[max(0, next - 1)];
  let p = start;
  let now = at[0];
  for (let i = 0; i < at.length; i++) {
    while (next < time.length && time[next] + law.deadTime <= at[i]) {
      const then = time[next] + law.deadTime;
      p = moved(p, aim, then - now, law);
      now = then;
      aim = law.offset + law.gain * value[next++];
    }
    p = moved(p, aim, at[i] - now, law);
    now = at[i];
    out[i] = p;
  }
  return out;
}

/** Dead times and time constants that a search begins from, s. */
const deadTimes = [0, 0.01, 0.02, 0.04, 0.07, 0.11, 0.16, 0.22, 0.3];
const timeConstants = [0.006, 0.012, 0.025, 0.05, 0.1, 0.2, 0.4];
/** A command is not led by more than this, nor followed later, s. */
const earliest = -0.1;
const latest = 0.6;
/** No more samples than this are fitted. */
const mostSamples = 20_000;
/** With fewer samples of steps nothing is fitted. */
const fewest = 12;
/** A search for where to begin looks at so many samples. */
const searched = 1500;
/** A slope is read over so long, s, or three samples; below this share of its law's a record is held back by something. */
const slopeSeconds = 0.01;
const heldBack = 0.93;
/** A rate limit is believed where it makes the fit so much better, as a change of the Bayesian criterion. */
const convincing = 20;
/** Residuals of one block hang together; what they scatter beyond their own noise is taken where it is so many times as much. */
const muchMore = 2.25;
/** No chance of a few steps makes it so many times what the noise alone would: the steps themselves come unevenly. */
const farMore = 12;

/**
 * Fits first order with dead time to all stretches of a record at once (`command` is held between its own samples; `response` in the
 * same unit), offset and gain free, and where the record shows one, a rate limit. One clock is assumed for both. Least squares by
 * Gauss–Newton with damping (Levenberg 1944; Marquardt 1963) from a grid; the covariance is that of the linearised problem, or where what
 * is left hangs together from sample to sample, that of its blocks (White 1980; Newey & West 1987).
 */
export function fitTracking(
  command: Samples,
  response: Samples,
  stretches: readonly Stretch[],
  guess: Pick<FollowingLaw, 'gain' | 'offset'>,
): TrackingFit {
  const chosen: number[] = [];
  const block: number[] = [];
  let within = 0;
  for (let i = 0; i < response.time.length && within < stretches.length; i++) {
    while (within < stretches.length && response.time[i] > stretches[within].to) within++;
    if (within < stretches.length && response.time[i] >= stretches[within].from) {
      chosen.push(i);
      block.push(within);
    }
  }
  if (chosen.length < fewest) return failed('too-few-points', chosen.length);
  // More samples than this only cost time.
  const stride = Math.ceil(chosen.length / mostSamples);
  if (stride > 1)
    for (const list of [chosen, block]) list.splice(0, list.length, ...list.filter((_, i) => i % stride === 0));
  const at = Float64Array.from(chosen, (i) => response.time[i]);
  const seen = Float64Array.from(chosen, (i) => response.value[i]);
  const interval = intervalOf(command);
  const problem: Problem = { interval, commands: changesOf(command), at, seen, start: seen[0], block };

  const thin = thinned(problem);
  let begin: FollowingLaw | null = null;
  let least = Infinity;
  for (const deadTime of deadTimes)
    for (const timeConstant of timeConstants) {
      const law = { ...guess, deadTime, timeConstant, rateLimit: Infinity };
      const sum = squares(thin, law);
      if (sum < least) [least, begin] = [sum, law];
    }
  if (!begin) return failed('non-finite', chosen.length);
  const plain = descend(problem, begin, false);
  const steepestSeen = steepest(problem, seen);
  const made = follow(problem.commands, at, problem.start, plain.law);
  // Where the record is nowhere less steep than its law, nothing holds it back.
  if (steepestSeen > heldBack * steepest(problem, made)) return finished(problem, plain);
  const limited = descend(problem, { ...plain.law, rateLimit: steepestSeen }, true);
  const n = at.length;
  const better = n * log(plain.sum / limited.sum) - log(n);
  return finished(problem, better > convincing ? limited : plain);
}

interface Problem {
  /** Median interval of the command's samples, s. */
  readonly interval: number;
  readonly commands: Commands;
  readonly at: Float64Array;
  readonly seen: Float64Array;
  readonly start: number;
  /** Stretch of each sample. */
  readonly block: readonly number[];
}

interface Descent {
  readonly law: FollowingLaw;
  readonly sum: number;
  readonly limited: boolean;
  readonly termination: Termination;
}

function squares(problem: Problem, law: FollowingLaw): number {
  const made = follow(problem.commands, problem.at, problem.start, law);
  let sum = 0;
  for (let i = 0; i < made.length; i++) sum += (problem.seen[i] - made[i]) ** 2;
  return sum;
}

/** Every so many samples: a search that only looks for where to begin needs no more of them. */
function thinned(problem: Problem): Problem {
  const stride = max(1, Math.floor(problem.at.length / searched));
  if (stride === 1) return problem;
  const every = <T extends Float64Array | readonly number[]>(of: T) => of.filter((_, i) => i % stride === 0) as T;
  return { ...problem, at: every(problem.at), seen: every(problem.seen), block: every(problem.block) };
}

/** Steepest rise or fall of a record over a stretch that noise does not rule, per second. */
function steepest({ at, block }: Problem, of: Float64Array): number {
  let [most, from] = [0, 0];
  for (let i = 0; i < at.length; i++) {
    while (block[from] !== block[i] || (at[i] - at[from] > slopeSeconds && i - from > 2)) from++;
    if (i - from >= 2 && at[i] > at[from]) most = max(most, abs(of[i] - of[from]) / (at[i] - at[from]));
  }
  return most;
}

/** A law by its free parameters: dead time, logarithm of the time constant, gain, offset, logarithm of the rate limit. */
const parametersOf = (law: FollowingLaw, limited: boolean) => [
  law.deadTime,
  log(law.timeConstant),
  law.gain,
  law.offset,
  ...(limited ? [log(law.rateLimit)] : []),
];
function lawOf(parameters: readonly number[]): FollowingLaw {
  const [deadTime, logTime, gain, offset, logRate] = parameters;
  return {
    deadTime: min(latest, max(earliest, deadTime)),
    timeConstant: exp(min(2, max(-9, logTime))),
    gain,
    offset,
    rateLimit: logRate === undefined ? Infinity : exp(logRate),
  };
}

function derivatives(problem: Problem, law: FollowingLaw, limited: boolean): Float64Array[] {
  const middle = parametersOf(law, limited);
  const scale = problem.seen.reduce((most, value) => max(most, abs(value)), 1e-9);
  const steps = [2e-5, 1e-4, 1e-4, 1e-4 * scale, 1e-4];
  return middle.map((_, k) => {
    const moved = (by: number) =>
      follow(
        problem.commands,
        problem.at,
        problem.start,
        lawOf(middle.map((value, j) => (j === k ? value + by : value))),
      );
    const [high, low] = [moved(steps[k]), moved(-steps[k])];
    return high.map((value, i) => (value - low[i]) / (2 * steps[k]));
  });
}

function descend(problem: Problem, from: FollowingLaw, limited: boolean): Descent {
  let law = from;
  let sum = squares(problem, law);
  let damping = 1e-3;
  for (let round = 0; round < 60; round++) {
    const columns = derivatives(problem, law, limited);
    const made = follow(problem.commands, problem.at, problem.start, law);
    const size = columns.length;
    const normal = Matrix.zeros(size, size);
    const right = Matrix.zeros(size, 1);
    for (let i = 0; i < made.length; i++) {
      const miss = problem.seen[i] - made[i];
      for (let a = 0; a < size; a++) {
        right.set(a, 0, right.get(a, 0) + columns[a][i] * miss);
        for (let b = 0; b <= a; b++) normal.set(a, b, normal.get(a, b) + columns[a][i] * columns[b][i]);
      }
    }
    for (let a = 0; a < size; a++) for (let b = 0; b < a; b++) normal.set(b, a, normal.get(a, b));
    let improved = false;
    for (let attempt = 0; attempt < 12 && !improved; attempt++) {
      const damped = normal.clone();
      for (let a = 0; a < size; a++) damped.set(a, a, normal.get(a, a) * (1 + damping) + 1e-300);
      let step: number[];
      try {
        step = solve(damped, right).to1DArray();
      } catch {
        return { law, sum, limited, termination: 'singular' };
      }
      const next = lawOf(parametersOf(law, limited).map((value, k) => value + step[k]));
      const there = squares(problem, next);
      if (there <= sum) {
        const gained = (sum - there) / max(sum, Number.MIN_VALUE);
        [law, sum, improved] = [next, there, true];
        damping = max(1e-9, damping / 5);
        if (gained < 1e-9) return { law, sum, limited, termination: 'converged' };
      } else damping *= 4;
    }
    if (!improved) return { law, sum, limited, termination: 'converged' };
  }
  return { law, sum, limited, termination: 'max-iterations' };
}

/** Variance of what scatters from sample to sample: by the median of second differences, which steps do not move. */
function noiseVariance(of: Float64Array): number {
  const second = new Float64Array(max(1, of.length - 2));
  for (let i = 1; i + 1 < of.length; i++) second[i - 1] = abs(of[i + 1] - 2 * of[i] + of[i - 1]);
  second.sort();
  // A second difference has √6 times the deviation, the median of |x| of a normal deviate is 0.6745 of it.
  return (second[second.length >> 1] / 0.6745) ** 2 / 6;
}

function finished(problem: Problem, { law, sum, limited, termination }: Descent): TrackingFit {
  const n = problem.at.length;
  const columns = derivatives(problem, law, limited);
  const size = columns.length;
  const made = follow(problem.commands, problem.at, problem.start, law);
  const normal = Matrix.zeros(size, size);
  const scores = new Map<number, Float64Array>();
  let [lagged, before] = [0, 0];
  for (let i = 0; i < n; i++) {
    const miss = problem.seen[i] - made[i];
    lagged += miss * before;
    before = miss;
    // A block is as long as what moves hangs together: a few time constants of one stretch.
    const key = problem.block[i] * 1e6 + Math.floor(problem.at[i] / max(0.01, law.timeConstant));
    const score = scores.get(key) ?? new Float64Array(size);
    for (let a = 0; a < size; a++) {
      score[a] += columns[a][i] * miss;
      for (let b = 0; b < size; b++) normal.set(a, b, normal.get(a, b) + columns[a][i] * columns[b][i]);
    }
    scores.set(key, score);
  }
  let inverted: Matrix;
  try {
    inverted = inverse(normal);
  } catch {
    return failed('singular', n);
  }
  const r = sum > 0 ? min(0.95, max(0, lagged / sum)) : 0;
  const variance = (sum / max(1, n - size)) * ((1 + r) / (1 - r));
  const meat = Matrix.zeros(size, size);
  for (const score of scores.values())
    for (let a = 0; a < size; a++) for (let b = 0; b < size; b++) meat.set(a, b, meat.get(a, b) + score[a] * score[b]);
  const sandwich = inverted.mmul(meat).mmul(inverted);
  const own = (k: number) => inverted.get(k, k) * variance;
  const uneven = (k: number) => sandwich.get(k, k) > muchMore * own(k);
  const standardOf = (k: number) => sqrt(uneven(k) ? sandwich.get(k, k) : own(k));
  // Steps that come unevenly early were asked for between two samples of the command: half an interval before it says so, on average.
  const noise = noiseVariance(problem.seen);
  const unseen = sandwich.get(0, 0) > farMore * inverted.get(0, 0) * noise ? problem.interval : 0;
  const fit: TrackingFit = {
    ...law,
    deadTime: law.deadTime + unseen / 2,
    termination,
    deadTimeStandard: Math.hypot(standardOf(0), unseen / sqrt(12)),
    timeConstantStandard: standardOf(1) * law.timeConstant,
    residual: sqrt(sum / max(1, n - size)),
    count: n,
  };
  const finite = [fit.deadTime, fit.timeConstant, fit.gain, fit.offset, fit.deadTimeStandard, fit.timeConstantStandard];
  return finite.every(isFinite) ? fit : failed('non-finite', n);
}
