import { givenOf, type Given } from '../../traces/as-sampled';
import { ownSamples, scatterOf, type Samples } from '../../traces/own-samples';
import { meanInterval } from '../../traces/time-mean';
import { oncePerTrace } from '../../traces/once-per-trace';
import { columnOf, type Trace } from '../../traces/trace';
import type { BlendedUnit } from './geometry';
import { clockUnder, onClock, stretchesOf, sumOf, windowMeans, type Clocked, type DriveClock } from './drive-clock';

const { max } = Math;

export const wheelChannels = [
  'wheel_pressure_fl',
  'wheel_pressure_fr',
  'wheel_pressure_rl',
  'wheel_pressure_rr',
] as const;

/** Channels without which nobody can tell how the torque closes. */
export const closureChannels = ['requested_torque', 'regen_torque', ...wheelChannels] as const;

/** Below this share of the largest request nobody brakes. */
const brakingShare = 0.05;

/** Columns more slowly sampled than ten times a second, and a little, tell nothing of a handover, s. */
const longestInterval = 0.12;

/** Requests are judged by means over this, s: a spike is no request. */
const requestWindow = 0.2;

/** Of a drive of hours so many steps say which way a channel counts. */
const stepsLookedAt = 100_000;

/** Of a drive of hours so many samples say how noisy a channel is. */
export const differencesLookedAt = 20_000;

/** Torque that was requested, and what motor and friction gave, on one clock; N·m at the wheels, summed, braking positive. */
export interface Drive {
  readonly clock: DriveClock;
  readonly requested: Clocked;
  readonly regen: Clocked;
  readonly friction: Clocked;
  /** Pressures of the wheels in the order of `wheelChannels`, Pa gauge. */
  readonly wheels: readonly Clocked[];
  /** Scatter of one sample of what was requested, of the motor's torque and of each wheel's pressure about its neighbours, SI. */
  readonly noise: { readonly requested: number; readonly regen: number; readonly wheels: readonly number[] };
  /** Longest own interval of the columns that it is made of, s. */
  readonly interval: number;
  /** Motor and friction together. */
  readonly given: Clocked;
  /** Largest request, N·m. */
  readonly largest: number;
  /** Steps in which somebody brakes and all is known, and the stretches of them. */
  readonly braking: Uint8Array;
  readonly stretches: readonly (readonly [number, number])[];
  /** Whether any wheel was ever pressed with its friction brake. */
  readonly frictionUsed: boolean;
  /** Channels that the log counts the other way round. */
  readonly turned: readonly string[];
  /** Time in which something that is needed was not recorded, s. */
  readonly leftOut: number;
}

export type DriveRead =
  | { readonly kind: 'drive'; readonly drive: Drive }
  | { readonly kind: 'missing'; readonly channels: readonly string[] }
  /** A channel is sampled more slowly (s) than torque that comes and goes in tenths of a second can be told from. */
  | { readonly kind: 'too-slow'; readonly channel: string; readonly interval: number }
  /** A wheel's pressure that never moves while the other one of its axle does. */
  | { readonly kind: 'still'; readonly channel: string }
  | { readonly kind: 'nobody-brakes' };

/** Whether every row has a time of its own, later than the one before. */
const timeRises = oncePerTrace(({ time }: Trace): boolean => {
  for (let i = 1; i < time.length; i++) if (!(time[i] > time[i - 1])) return false;
  return true;
});

/** Whether every row has a number of a column, at a time of its own. */
function isWhole(trace: Trace, column: Float64Array): boolean {
  for (let i = 0; i < column.length; i++) if (column[i] !== column[i]) return false;
  return timeRises(trace);
}

/** Samples of a channel of a drive, and how many rows the logger made of each of them; null where it made one. */
export interface DriveSamples extends Samples {
  readonly over: Pick<Given, 'between' | 'times'> | null;
}

const samplesKnown = new WeakMap<Trace, Map<string, DriveSamples>>();

/**
 * What a channel's sensor gave, sharing memory with the log where all of it is that; null where the log has none. What a logger wrote
 * again until the next sample came, or drew between two of them, is no sample. Sought once in each log.
 */
export function samplesOf(trace: Trace, channel: string): DriveSamples | null {
  const known = samplesKnown.get(trace) ?? new Map<string, DriveSamples>();
  samplesKnown.set(trace, known);
  const before = known.get(channel);
  if (before) return before;
  const column = columnOf(trace, channel);
  if (!column) return null;
  const recorded = isWhole(trace, column) ? { time: trace.time, value: column } : ownSamples(trace, column);
  const given = givenOf(recorded);
  const samples = { ...(given?.samples ?? recorded), over: given && { between: given.between, times: given.times } };
  known.set(channel, samples);
  return samples;
}

/** Friction torque to each pascal of each wheel, in the order of `wheelChannels`, N·m/Pa. */
export function torquePerPascal({ vehicle }: BlendedUnit): readonly number[] {
  return [vehicle.frontTorque, vehicle.frontTorque, vehicle.rearTorque, vehicle.rearTorque];
}

function largestOf({ value, known }: Clocked): number {
  let largest = 0;
  for (let i = 0; i < value.length; i++) if (known[i] === 1) largest = max(largest, value[i]);
  return largest;
}

const strideOver = (count: number) => max(1, Math.floor(count / stepsLookedAt));

/** A request that goes down so clearly where the brakes go up is counted the other way. */
const opposed = -0.2;

/**
 * Whether what is requested is counted the other way: it falls where the friction brakes are pressed, or where they never are, it is hardly
 * ever positive.
 */
function requestTurned(requested: Clocked, friction: Clocked): boolean {
  let [n, x, y, xx, yy, xy] = [0, 0, 0, 0, 0, 0];
  let [highest, lowest] = [0, 0];
  const stride = strideOver(requested.value.length);
  for (let i = 0; i < requested.value.length; i += stride) {
    if (requested.known[i] === 0 || friction.known[i] === 0) continue;
    const [a, b] = [friction.value[i], requested.value[i]];
    n++;
    x += a;
    y += b;
    xx += a * a;
    yy += b * b;
    xy += a * b;
    highest = max(highest, b);
    lowest = Math.min(lowest, b);
  }
  const together = (n * xy - x * y) / Math.sqrt((n * xx - x * x) * (n * yy - y * y));
  return together < opposed || highest < brakingShare * -lowest;
}

/** Whether the motor's torque is counted the other way: while somebody brakes, it is negative on the whole. */
function countedTheOtherWay(requested: Clocked, regen: Clocked, floor: number): boolean {
  let sum = 0;
  for (let i = 0; i < requested.value.length; i += strideOver(requested.value.length))
    if (requested.known[i] === 1 && regen.known[i] === 1 && requested.value[i] > floor) sum += regen.value[i];
  return sum < 0;
}

function unknownSteps(requested: Clocked, given: Clocked): number {
  let unknown = 0;
  for (let i = 0; i < requested.known.length; i++) if (requested.known[i] === 0 || given.known[i] === 0) unknown++;
  return unknown;
}

/** The channel that is sampled most slowly, with its mean interval, s. */
function slowestOf(columns: readonly { readonly channel: string; readonly samples: Samples | null }[]) {
  return columns
    .map(({ channel, samples }) => ({ channel, interval: samples ? meanInterval(samples) : Infinity }))
    .reduce((slowest, each) => (each.interval > slowest.interval ? each : slowest));
}

/** A wheel that was pressed at all moves by so much, Pa; one that moves by less than this share of the other of its axle is not alive. */
export const pressedFrom = 50e3;
const alive = 0.02;

/** How far a column goes, highest less lowest; 0 of none. */
export function rangeOf(value: Float64Array, counts?: Uint8Array): number {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < value.length; i++) {
    if (counts && counts[i] === 0) continue;
    const one = value[i];
    if (one < low) low = one;
    if (one > high) high = one;
  }
  return high > low ? high - low : 0;
}

/** The wheel whose pressure stands still while the other one of its axle moves; −1 where none does. An axle may rest as a whole. */
function stillWheel(ranges: readonly number[]): number {
  // Left and right stand side by side in `wheelChannels`.
  return ranges.findIndex((range, at) => ranges[at ^ 1] > pressedFrom && range < alive * ranges[at ^ 1]);
}

/** Reads what closes, or does not, out of a drive's log. A pressure below zero is a gauge’s zero and counts as it is. */
export function readDrive(trace: Trace, unit: BlendedUnit): DriveRead {
  const found = closureChannels.map((channel) => ({ channel, samples: samplesOf(trace, channel) }));
  const missing = found.flatMap(({ channel, samples }) => (samples ? [] : [channel]));
  const columns = found.flatMap(({ samples }) => (samples ? [samples] : []));
  if (missing.length > 0) return { kind: 'missing', channels: missing };
  const slowest = slowestOf(found);
  if (slowest.interval > longestInterval) return { kind: 'too-slow', ...slowest };
  const clock = clockUnder(columns);
  const [asLogged, logged, ...wheels] = columns.map((samples) => onClock(samples, clock, 'straight'));
  const ranges = wheels.map(({ value, known }) => rangeOf(value, known));
  const still = stillWheel(ranges);
  if (still >= 0) return { kind: 'still', channel: wheelChannels[still] };
  const perPascal = torquePerPascal(unit);
  const friction = sumOf(
    wheels.map((of, at) => ({ of, times: perPascal[at] })),
    clock.count,
  );
  const otherWay = (of: Clocked) => sumOf([{ of, times: -1 }], clock.count);
  const turnsRequest = requestTurned(asLogged, friction);
  const requested = turnsRequest ? otherWay(asLogged) : asLogged;
  const largest = largestOf(windowMeans(requested, clock, requestWindow));
  if (!(largest > 0)) return { kind: 'nobody-brakes' };
  const floor = brakingShare * largest;
  const turnsRegen = countedTheOtherWay(requested, logged, floor);
  const regen = turnsRegen ? otherWay(logged) : logged;
  const given = sumOf(
    [regen, friction].map((of) => ({ of, times: 1 })),
    clock.count,
  );
  const braking = new Uint8Array(clock.count);
  for (let i = 0; i < clock.count; i++)
    braking[i] = requested.known[i] === 1 && given.known[i] === 1 && requested.value[i] > floor ? 1 : 0;
  const stretches = stretchesOf(braking);
  if (stretches.length === 0) return { kind: 'nobody-brakes' };
  const noises = columns.map((each) => scatterOf(each, differencesLookedAt));
  return {
    kind: 'drive',
    drive: {
      clock,
      requested,
      regen,
      friction,
      wheels,
      noise: { requested: noises[0], regen: noises[1], wheels: noises.slice(2) },
      interval: slowest.interval,
      given,
      largest,
      braking,
      stretches,
      frictionUsed: max(...ranges) > pressedFrom,
      turned: [...(turnsRequest ? ['requested_torque'] : []), ...(turnsRegen ? ['regen_torque'] : [])],
      leftOut: clock.step * unknownSteps(requested, given),
    },
  };
}
