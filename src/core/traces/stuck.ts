import { divisionOf, scatterOf, type Samples } from './own-samples';

const { abs, max } = Math;

/** A stretch in which a channel cannot have been measuring. */
export interface Stuck {
  /** `clipped` at an end stop of the gauge or its logger, `frozen` anywhere else. */
  readonly kind: 'frozen' | 'clipped';
  /** s */
  readonly from: number;
  readonly to: number;
  readonly value: number;
}

/** So many same values in a row, over so long (s), are worth a second look. */
const fewestAlike = 20;
const shortest = 1.5;
/** A channel is alive where it reads to and fro this often, and stuck where it stands so much longer than it ever did. */
const fewestReversals = 5;
const timesLonger = 8;
/** So many samples beside a stretch tell that a channel is noisier than its division, by this factor. */
const fewestBeside = 12;
const noisier = 1.2;
/** A reading this close to the end of its gauge's range stands at its stop. */
const atStop = 0.995;

/**
 * Where a channel stood still although it should not have: the same figure again and again where it otherwise reads to and fro, or a reading at the end of the gauge's range (SI; null where it is not known). Null where nothing of
 * the kind is seen: a quiet, coarsely divided channel may well stand still.
 */
export function findStuck(samples: Samples, range: number | null): Stuck | null {
  const { time, value } = samples;
  const n = value.length;
  if (n < 2) return null;
  let [from, to] = [0, 0];
  for (let i = 1, begins = 0; i <= n; i++) {
    if (i < n && value[i] === value[begins]) continue;
    if (time[i - 1] - time[begins] > time[to] - time[from]) [from, to] = [begins, i - 1];
    begins = i;
  }
  const stands = value[from];
  const stretch = { from: time[from], to: time[to], value: stands };
  const top = range !== null && abs(stands) >= atStop * range;
  if (top && to - from >= 2) return { kind: 'clipped', ...stretch };
  if (to - from + 1 < fewestAlike || time[to] - time[from] < shortest) return null;
  // It must have been alive elsewhere: reading to and fro by single divisions, never so long at one figure.
  if (reversals(value, from, to) < fewestReversals && !noisyBeside(value, from, to)) return null;
  if (to - from + 1 < timesLonger * longestRun(value, from, to)) return null;
  const furthest = value.reduce((most, each) => max(most, abs(each)), 0);
  return { kind: abs(stands) >= furthest ? 'clipped' : 'frozen', ...stretch };
}

/** Whether a channel moved at all in a trace: what never did was frozen, or never connected. */
export function neverMoved({ value }: Pick<Samples, 'value'>): boolean {
  return value.length > 0 && value.every((each) => each === value[0]);
}

/** Turning back by a single division and forth again is rounding at its edge, which a quiet channel does and then stands. */
const beyondRounding = 2.5;

/** How often a channel turns back by a division or two or by its own scatter, outside a stretch. */
function reversals(value: Float64Array, from: number, to: number): number {
  const division = divisionOf({ value });
  const scatter = max(scatterOf({ value: value.subarray(0, from) }), scatterOf({ value: value.subarray(to + 1) }));
  const small = max(2.5 * division, 5 * scatter);
  let count = 0;
  let before = 0;
  for (let i = 1; i < value.length; i++) {
    const step = value[i] - value[i - 1];
    if ((i > from && i <= to) || abs(step) > small) before = 0;
    else if (step !== 0) {
      if (step * before < 0 && abs(step) + abs(before) > beyondRounding * division) count++;
      before = step;
    }
  }
  return count;
}

/** Whether a channel, outside a stretch, is noisier than its division makes it: such a one does not stand still of itself. */
function noisyBeside(value: Float64Array, from: number, to: number): boolean {
  const [before, after] = [value.subarray(0, from), value.subarray(to + 1)];
  const beside = before.length >= after.length ? before : after;
  return beside.length >= fewestBeside && scatterOf({ value: beside }) > noisier * divisionOf({ value });
}

/** Longest run of one figure outside a stretch, samples. */
function longestRun(value: Float64Array, from: number, to: number): number {
  let longest = 0;
  for (let i = 1, begins = 0; i <= value.length; i++) {
    if (i < value.length && value[i] === value[begins]) continue;
    if (begins !== from || i - 1 !== to) longest = max(longest, i - begins);
    begins = i;
  }
  return longest;
}
