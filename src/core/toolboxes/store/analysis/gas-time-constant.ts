import { gasTemperatureAlong } from '../../../physics/gas-law';
import { independentCount } from '../../../traces/independent-count';

const { ceil, exp, hypot, log, max, min, sqrt } = Math;

/** A bleed from settled through one opening. */
export interface Bleed {
  /** s, [n] */
  readonly time: Float64Array;
  /** Pa absolute, [n], gas settled at the first sample. */
  readonly pressure: Float64Array;
  /** Pa absolute. */
  readonly ambient: number;
  /** Of the shell, K. */
  readonly environment: number;
  /** Where the pump ran on the way, indices of samples. */
  readonly pumped: readonly { readonly start: number; readonly stop: number | null }[];
}

/** A thermal time constant with its doubt: standard deviation of its logarithm. */
export interface GasTimeConstant {
  /** s */
  readonly seconds: number;
  readonly logStandard: number;
}

/** What a sheet says of a gas's heat holds within this factor, one sigma: oil, foam and a small bottle change it. */
const sheetFactor = 2;
/** Time constants that are tried reach so far to both sides of the sheet's, in so many steps. */
const furthest = 10;
const tried = 33;
/** No gas has one time constant: within a tenth it is none better known. */
const leastLogStandard = 0.1;
/** What a plain opening and a gas of one temperature leave out: lines that give way, a valve that wears in, as a share of the volume. */
const modelShare = 0.001;
/** A trace that keeps no closer than this share of its volume to any still opening says nothing of its gas. */
const keepsTo = 0.004;
/** Points that the fit is made on at most, and at least. */
const mostPoints = 800;
const fewestPoints = 24;
/** A stretch has left its top when it fell by this share. */
const begun = 0.02;

/**
 * What flows through an opening goes with its pressure to the power of a half (an orifice) up to one (a long fine crack): all are tried, and a
 * valve that is opened on purpose is near an orifice, by one sigma.
 */
const powers = [0.5, 0.55, 0.6, 0.7, 0.8, 0.9, 1] as const;
const nearOrifice = 0.15;

/** Blocks of a stretch of a bleed: time and pressure of each, with the pump's runs as breaks. */
interface Blocks {
  readonly time: number[];
  readonly pressure: number[];
  /** Number of the stretch between two runs of the pump. */
  readonly part: number[];
}

function blocksOf(bleed: Bleed, to: number): Blocks {
  const { time, pressure, pumped } = bleed;
  const every = max(1, ceil(to / mostPoints));
  const blocks: Blocks = { time: [], pressure: [], part: [] };
  let part = 0;
  for (let i = 0; i < to; i += every) {
    const until = min(to, i + every);
    let [at, sum, count] = [0, 0, 0];
    for (let k = i; k < until; k++) {
      if (pressure[k] !== pressure[k]) continue;
      at += time[k];
      sum += pressure[k];
      count++;
    }
    part += pumped.filter(({ start }) => start >= i && start < until).length;
    if (count === 0) continue;
    blocks.time.push(at / count);
    blocks.pressure.push(sum / count);
    blocks.part.push(part);
  }
  return blocks;
}

/** ∫(p − A)^power dt up to each block: what flowed through an opening that nobody moved, but for a factor. */
function flowedThrough({ time, pressure }: Blocks, ambient: number, power: number): readonly number[] {
  let flowed = 0;
  return time.map((at, i) => {
    if (i > 0) flowed += (at - time[i - 1]) * max(0, (pressure[i] + pressure[i - 1]) / 2 - ambient) ** power;
    return flowed;
  });
}

/** Values about the mean of their stretch between two runs of the pump: each stretch begins where it likes. */
function aboutStretch(values: readonly number[], parts: readonly number[]): readonly number[] {
  const sums = new Map<number, { count: number; sum: number }>();
  values.forEach((value, at) => {
    const { count, sum } = sums.get(parts[at]) ?? { count: 0, sum: 0 };
    sums.set(parts[at], { count: count + 1, sum: sum + value });
  });
  return values.map((value, at) => {
    const { count, sum } = sums.get(parts[at])!;
    return value - sum / count;
  });
}

const product = (a: readonly number[], b: readonly number[]) => a.reduce((sum, each, i) => sum + each * b[i], 0);

/**
 * How badly T/p, the gas's volume, keeps to a straight line in what flowed and, for lines that give way a little, in the pressure; as
 * shares of the middle volume, so that gauges, fluids and time constants are compared alike.
 */
function misfit(volume: readonly number[], flowed: readonly number[], pressure: readonly number[], middle: number) {
  const [ff, fp, pp] = [product(flowed, flowed), product(flowed, pressure), product(pressure, pressure)];
  const [fv, pv] = [product(flowed, volume), product(pressure, volume)];
  const determinant = ff * pp - fp * fp;
  const [a, b] =
    determinant > 1e-12 * ff * pp
      ? [(fv * pp - pv * fp) / determinant, (pv * ff - fv * fp) / determinant]
      : [ff > 0 ? fv / ff : 0, 0];
  return volume.map((each, i) => (each - a * flowed[i] - b * pressure[i]) / middle);
}

/**
 * Thermal time constant of a store's gas from a bleed at one opening: gas that loses heat as it should occupies T/p, and at a still
 * valve that grows with ∫(p − A)^n dt, n from a half to one. Where the trace keeps to that at one time constant it says which; where the hand moved, or the trace is
 * too short to tell, what the sheet says is left within a factor of two. Posterior over its logarithm, the sheet as prior.
 *
 * @param bleed the trace; `to` is where the gas let the bladder sit down (index of the knee, exclusive)
 * @param sheet what the sheet says, s
 */
export function gasTimeConstant(bleed: Bleed, to: number, sheet: number): GasTimeConstant {
  const unknown = { seconds: sheet, logStandard: log(sheetFactor) };
  if (!(sheet > 0) || !Number.isFinite(sheet)) return { seconds: sheet, logStandard: 0 };
  const blocks = blocksOf(bleed, to);
  const top = blocks.pressure[0];
  const from = blocks.pressure.findIndex((value) => value < (1 - begun) * top);
  // Beside a run of the pump its start and end stand between two blocks.
  const used = blocks.time
    .map((_, i) => i)
    .filter((i) => i >= max(1, from) && !bleed.pumped.some((run) => besideRun(bleed, run, blocks.time[i])));
  if (from < 0 || used.length < fewestPoints) return unknown;
  const grid = Array.from({ length: tried }, (_, i) => sheet * furthest ** ((2 * i) / (tried - 1) - 1));
  const of = (values: ArrayLike<number>) => used.map((i) => values[i]);
  const parts = of(blocks.part);
  const pressure = aboutStretch(of(blocks.pressure), parts);
  const flowed = powers.map((power) => aboutStretch(of(flowedThrough(blocks, bleed.ambient, power)), parts));
  const tries = grid.flatMap((seconds) => {
    const temperature = gasTemperatureAlong(blocks.time, blocks.pressure, seconds, bleed.environment);
    const volume = used.map((i) => temperature[i] / blocks.pressure[i]);
    const middle = volume.reduce((sum, each) => sum + each, 0) / volume.length;
    return flowed.map((each, n) => {
      const residuals = misfit(aboutStretch(volume, parts), each, pressure, middle);
      return {
        seconds,
        power: powers[n],
        residuals,
        spread: residuals.reduce((sum, one) => sum + one * one, 0) / residuals.length,
      };
    });
  });
  const best = tries.reduce((least, each) => (each.spread < least.spread ? each : least));
  if (sqrt(best.spread) > keepsTo) return unknown;
  const own = max(4, independentCount(best.residuals));
  const weights = tries.map(({ seconds, power, spread }) => {
    const chance = -(own / 2) * log((spread + modelShare ** 2) / (best.spread + modelShare ** 2));
    const away = (log(seconds / sheet) / log(sheetFactor)) ** 2 + ((power - powers[0]) / nearOrifice) ** 2;
    return exp(chance - away / 2);
  });
  const all = weights.reduce((sum, each) => sum + each, 0);
  const mean = weights.reduce((sum, each, i) => sum + each * log(tries[i].seconds), 0) / all;
  const variance = weights.reduce((sum, each, i) => sum + each * (log(tries[i].seconds) - mean) ** 2, 0) / all;
  const step = log(grid[1] / grid[0]);
  return { seconds: exp(mean), logStandard: hypot(sqrt(variance), step / sqrt(12), leastLogStandard) };
}

/** Whether a moment lies in a run of the pump or just beside it, s. */
function besideRun({ time }: Bleed, run: Bleed['pumped'][number], at: number): boolean {
  const beside = 0.3;
  const stop = run.stop === null ? time[time.length - 1] : time[run.stop];
  return at > time[run.start] - beside && at < stop + beside;
}
