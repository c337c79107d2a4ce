import { commonDivisor } from './common-divisor';
import { divisionOf, type Samples } from './own-samples';
import { bridgedAt, meanInterval } from './time-mean';

const { abs, floor, round } = Math;

/** So many rows show how a column was written. */
const rowsLookedAt = 8_000;

/** Rounding of three figures moves a second difference by two divisions at most. */
const rounding = 2.5;
/** Less than this share of a division is what is left of a decimal fraction. */
const nothing = 0.25;
/** So many samples must stand out from the lines between them, so clearly, to tell that nothing was measured there. */
const samplesNeeded = 20;
const clear = 1.6;
/** A sample that fell between two rows bends the line in both; a quantity that only moves bends it in row after row. */
const longestBend = 2;
const bendsShare = 0.9;
/**
 * What is drawn from samples further apart than this, s, may as well be a slow quantity, or driven by a clock. Where bends are exactly in
 * step, fewer do if nearly all samples bend; a coarse channel stands still over many of its samples.
 */
const longestApart = 5;
const fewInStep = { least: 8, share: 0.7, apart: longestApart };
const manyInStep = { least: samplesNeeded, share: 0.25, apart: 0.25 };
/** So many of the lines go somewhere, and none of the usual ones is longer than another by more than this. */
const movingShare = 0.8;
const evenly = 2.5;

/** A line between two samples: rows at which it begins and ends. */
interface Line {
  readonly from: number;
  readonly to: number;
}

interface Bends {
  readonly at: readonly number[];
  readonly by: readonly number[];
}

/** Rows at which a column bends by more than this, and by how much. */
function bendsOf({ value }: Pick<Samples, 'value'>, least: number): Bends {
  const [at, by] = [[] as number[], [] as number[]];
  for (let i = 1; i < value.length - 1; i++) {
    const bend = abs(value[i + 1] - 2 * value[i] + value[i - 1]);
    if (bend <= least) continue;
    at.push(i);
    by.push(bend);
  }
  return { at, by };
}

/** Second differences that more than rounding makes. */
export const clearBends = (samples: Pick<Samples, 'value'>) => bendsOf(samples, rounding * divisionOf(samples));

/** First row of each run of rows that bend, and how many rows are in runs that are short. */
function runsOf(at: readonly number[]): { readonly first: number[]; readonly inShort: number } {
  const first: number[] = [];
  let inShort = 0;
  for (let i = 0, begins = 0; i < at.length; i++) {
    if (i + 1 < at.length && at[i + 1] === at[i] + 1) continue;
    first.push(at[begins]);
    if (i - begins < longestBend) inShort += i - begins + 1;
    begins = i + 1;
  }
  return { first, inShort };
}

/** Bends of samples differ as their noise does, by so many times. */
const differently = 1.5;

/** Whether bends are samples': what a clock drives, up and down alike, bends by as much every time. */
export function differ(by: readonly number[]): boolean {
  const sorted = [...by].sort((p, q) => p - q);
  return quantile(sorted, 0.9) > differently * quantile(sorted, 0.1);
}

const quantile = (sorted: readonly number[], share: number) => sorted[floor(share * (sorted.length - 1))];

/** How a column is told to have lines in it: rows to each sample as it shows them, null where it does not; and rows at which its lines meet. */
interface Sign {
  readonly timesOf: (samples: Samples) => number | null;
  readonly meetings: (samples: Samples) => readonly number[];
}

/** Second differences that are more than what is left of a decimal fraction, however small. */
export const anyBends = (samples: Samples) => bendsOf(samples, nothing * divisionOf(samples));

/** All bends, however small, lie in step: none is ever between samples. */
const inStep: Sign = {
  timesOf: (samples) => {
    const { at, by } = anyBends(samples);
    if (at.length < fewInStep.least) return null;
    const times = at.slice(1).reduce((step, row, i) => commonDivisor(row - at[i], step), 0);
    const bending = at.length / ((at[at.length - 1] - at[0]) / times + 1);
    const tells = ({ least, share, apart }: typeof fewInStep) =>
      at.length >= least && bending >= share && times * meanInterval(samples) <= apart;
    return times > 1 && ((tells(fewInStep) && differ(by)) || tells(manyInStep)) ? times : null;
  },
  meetings: (samples) => anyBends(samples).at,
};

/** Samples stand out from the lines between them, evenly apart. */
const evenlyApart: Sign = {
  timesOf: (samples) => {
    const { value } = samples;
    const division = divisionOf(samples);
    const { at, by } = clearBends(samples);
    if (at.length < samplesNeeded || at.length > value.length / 1.5) return null;
    const { first, inShort } = runsOf(at);
    const bends = [...by].sort((p, q) => p - q);
    if (inShort < bendsShare * at.length || quantile(bends, 0.5) < clear * rounding * division || !differ(by))
      return null;
    const lines = first.slice(1).map((to, i): Line => ({ from: first[i], to }));
    const lengths = lines.map(({ from, to }) => to - from).sort((p, q) => p - q);
    const times = quantile(lengths, 0.5);
    if (times < 2 || times * meanInterval(samples) > longestApart) return null;
    if (quantile(lengths, 0.9) > evenly * times || quantile(lengths, 0.1) * evenly < times) return null;
    const moving = lines.filter(({ from, to }) => abs(value[to] - value[from]) > rounding * division);
    return moving.length < movingShare * lines.length ? null : times;
  },
  meetings: (samples) => runsOf(clearBends(samples).at).first,
};

/**
 * Samples of a column between which a tool drew straight lines, where it did, and how many rows it made of each: such a column bends in single
 * rows, evenly apart, and between them goes on as no measured quantity does. Null of a column that was written as it came, or so coarsely that
 * nobody can tell.
 */
export function drawnBetween(samples: Samples): { readonly samples: Samples; readonly times: number } | null {
  const beginning = beginningOf(samples);
  for (const { timesOf, meetings } of [inStep, evenlyApart]) {
    const times = timesOf(beginning);
    if (times === null) continue;
    const rows = samplesAmong(samples, meetings(samples), times);
    const of = (column: Float64Array) => Float64Array.from(rows, (row) => column[row]);
    return { samples: { time: of(samples.time), value: of(samples.value) }, times };
  }
  return null;
}

/** As many samples from the first change on as tell how a column was written. */
function beginningOf({ time, value }: Samples): Samples {
  let from = 0;
  while (from + 2 < value.length && value[from + 2] === value[0]) from++;
  return { time: time.subarray(from, from + rowsLookedAt), value: value.subarray(from, from + rowsLookedAt) };
}

/** What is left of a division is no more than this share of it. */
const onDivision = 0.05;

/**
 * Whether a line was drawn over a gap: at the moments of the samples that are missing it has figures between the divisions that the samples
 * have. A coarse channel on an even slope goes straight on as well, by whole divisions.
 */
function isDrawn({ value }: Samples, { from, to }: Line, times: number, division: number): boolean {
  for (let row = from + times; row < to; row += times) {
    const divisions = (value[row] - value[from]) / division;
    if (abs(divisions - round(divisions)) > onDivision) return true;
  }
  return false;
}

/**
 * Rows that count as sampled: where lines meet, and between them as many as there would have been. A line that goes on for longer than is
 * bridged was drawn over a gap.
 */
function samplesAmong(samples: Samples, meetings: readonly number[], times: number): number[] {
  const { time, value } = samples;
  const bridge = bridgedAt(times * meanInterval(samples));
  const division = divisionOf({ value: Float64Array.from(meetings, (row) => value[row]) });
  const rows: number[] = [];
  const ends = [0, ...meetings, value.length - 1];
  for (let i = 0; i < ends.length - 1; i++) {
    const line = { from: ends[i], to: ends[i + 1] };
    if (rows[rows.length - 1] !== line.from) rows.push(line.from);
    if (time[line.to] - time[line.from] > bridge && isDrawn(samples, line, times, division)) continue;
    for (let row = line.from + times; row < line.to - times / 2; row += times) rows.push(row);
  }
  if (rows[rows.length - 1] !== value.length - 1) rows.push(value.length - 1);
  return rows;
}
