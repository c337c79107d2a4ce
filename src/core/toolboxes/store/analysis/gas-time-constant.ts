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
const modelShare = 0.002;
/** Points that the fit is made on at most, and at least. */
const mostPoints = 800;
const fewestPoints = 24;
/** A stretch has left its top when it fell by this share. */
const begun = 0.02;

/** Blocks of a stretch of a bleed: time, pressure, and ∫√(p − A) dt up to each, with the pump's runs as breaks. */
interface Blocks {
  readonly time: number[];
  readonly pressure: number[];
  readonly flowed: number[];
  /** Number of the stretch between two runs of the pump. */
  readonly part: number[];
}

function blocksOf(bleed: Bleed, to: number): Blocks {
  const { time, pressure, ambient, pumped } = bleed;
  const every = max(1, ceil(to / mostPoints));
  const blocks: Blocks = { time: [], pressure: [], flowed: [], part: [] };
  let [flowed, part] = [0, 0];
  for (let i = 0; i < to; i += every) {
    const until = min(to, i + every);
    let [at, mean] = [0, 0];
    for (let k = i; k < until; k++) {
      at += time[k] / (until - i);
      mean += pressure[k] / (until - i);
    }
    const before = blocks.time.length - 1;
    if (before >= 0)
      flowed += (at - blocks.time[before]) * sqrt(max(0, (mean + blocks.pressure[before]) / 2 - ambient));
    part += pumped.filter(({ start }) => start >= i && start < until).length;
    blocks.time.push(at);
    blocks.pressure.push(mean);
    blocks.flowed.push(flowed);
    blocks.part.push(part);
  }
  return blocks;
}

/** How badly T/p, the gas's volume, keeps to a straight line in what flowed, each stretch between pump runs from a start of its own. */
function misfit(blocks: Blocks, used: readonly number[], temperature: Float64Array) {
  const volume = used.map((i) => temperature[i] / blocks.pressure[i]);
  const parts = new Map<number, { count: number; flowed: number; volume: number }>();
  used.forEach((i, at) => {
    const part = parts.get(blocks.part[i]) ?? { count: 0, flowed: 0, volume: 0 };
    part.count++;
    part.flowed += blocks.flowed[i];
    part.volume += volume[at];
    parts.set(blocks.part[i], part);
  });
  const away = used.map((i, at) => {
    const part = parts.get(blocks.part[i])!;
    return { x: blocks.flowed[i] - part.flowed / part.count, y: volume[at] - part.volume / part.count };
  });
  const [xx, xy] = away.reduce(([a, b], { x, y }) => [a + x * x, b + x * y], [0, 0]);
  const slope = xx > 0 ? xy / xx : 0;
  // Of the middle volume, so that gauges, fluids and time constants are compared alike.
  const middle = volume.reduce((sum, each) => sum + each, 0) / volume.length;
  return { residuals: away.map(({ x, y }) => (y - slope * x) / middle), slope };
}

/**
 * Thermal time constant of a store's gas from a bleed at one opening: gas that loses heat as it should occupies T/p, and at a still
 * valve that grows with ∫√(p − A) dt. Where the trace keeps to that at one time constant it says which; where the hand moved, or the trace is
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
  const fits = grid.map((seconds) =>
    misfit(blocks, used, gasTemperatureAlong(blocks.time, blocks.pressure, seconds, bleed.environment)),
  );
  const spreads = fits.map(({ residuals }) => residuals.reduce((sum, each) => sum + each * each, 0) / residuals.length);
  const best = spreads.indexOf(min(...spreads));
  const own = max(4, independentCount(fits[best].residuals));
  const weights = grid.map((seconds, i) => {
    const chance = -(own / 2) * log((spreads[i] + modelShare ** 2) / (spreads[best] + modelShare ** 2));
    return exp(chance - (log(seconds / sheet) / log(sheetFactor)) ** 2 / 2);
  });
  const all = weights.reduce((sum, each) => sum + each, 0);
  const mean = weights.reduce((sum, each, i) => sum + each * log(grid[i]), 0) / all;
  const variance = weights.reduce((sum, each, i) => sum + each * (log(grid[i]) - mean) ** 2, 0) / all;
  const step = log(grid[1] / grid[0]);
  return { seconds: exp(mean), logStandard: hypot(sqrt(variance), step / sqrt(12), leastLogStandard) };
}

/** Whether a moment lies in a run of the pump or just beside it, s. */
function besideRun({ time }: Bleed, run: Bleed['pumped'][number], at: number): boolean {
  const beside = 0.3;
  const stop = run.stop === null ? time[time.length - 1] : time[run.stop];
  return at > time[run.start] - beside && at < stop + beside;
}
