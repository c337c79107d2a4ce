import { makeTrace, type Trace } from '@/core/traces/trace';
import type { Dice } from './logger';

/*
 * Drives of a vehicle that brakes with motor and friction, as another writes them: two milliseconds at a time out of the road, the foot and
 * two lags; what is true of them is worked out here, on those ticks, by the words of each definition. Nothing of it comes from the
 * application.
 */

/** s */
const tick = 2e-3;
const perSecond = Math.round(1 / tick);
const wheels = ['fl', 'fr', 'rl', 'rr'] as const;

/** The vehicle: N·m to each pascal of a wheel. */
export interface DrivenVehicle {
  readonly frontTorque: number;
  readonly rearTorque: number;
  readonly mass: number;
  readonly tyreRadius: number;
}

/** What is the matter with a drive. */
export interface DriveTrouble {
  /** Friction that the brakes give of what they are asked for. */
  readonly frictionGain: number;
  /** Depth of a dip in every handover, N·m, and how long it lasts, s. */
  readonly dip: number;
  readonly dipSeconds: number;
  /** A panic is not noticed: the motor goes on for so long, s. */
  readonly panicLate: number;
}

export const noTrouble: DriveTrouble = { frictionGain: 1, dip: 0, dipSeconds: 0.3, panicLate: 0 };

/** How a tool writes what it was told. */
export interface DriveTool {
  /** Hz of the log's rows; columns may be slower. */
  readonly rate: number;
  readonly wheelRate: number;
  readonly pressureNoise: number;
  readonly pressureDivision: number;
  readonly torqueNoise: number;
  readonly regenSign: 1 | -1;
  /** Errors of the vehicle's own sensors: share and Pa, one of each wheel; share of the motor's torque. */
  readonly gains: readonly number[];
  readonly zeros: readonly number[];
  readonly regenGain: number;
}

export function drawTool(luck: Dice): DriveTool {
  return {
    rate: luck.oneOf([20, 50, 100]),
    wheelRate: luck.oneOf([20, 50, 100]),
    pressureNoise: luck.between(2e3, 15e3),
    pressureDivision: luck.oneOf([1e3, 10e3, 25e3]),
    torqueNoise: luck.between(1, 8),
    regenSign: luck.oneOf([1, -1]),
    gains: wheels.map(() => 0.01 * luck.normal()),
    zeros: wheels.map(() => 50e3 * luck.normal()),
    regenGain: 0.02 * luck.normal(),
  };
}

/** A drive tick by tick, as it is. */
export interface TrueDrive {
  readonly time: Float64Array;
  readonly speed: Float64Array;
  readonly requested: Float64Array;
  readonly regen: Float64Array;
  readonly friction: Float64Array;
  /** m */
  readonly pedal: Float64Array;
  /** Times of the panics, s. */
  readonly panics: readonly number[];
}

interface Stop {
  readonly from: number;
  readonly until: number;
  readonly deceleration: number;
  readonly press: number;
  readonly panic: boolean;
}

const handover = { high: 15 / 3.6, low: 5 / 3.6 };

function drawStops(luck: Dice, count: number, panics: boolean): readonly Stop[] {
  return Array.from({ length: count }, (): Stop => {
    const panic = panics && luck.chance(0.3);
    return {
      from: luck.between(8, 24),
      until: luck.chance(0.7) ? 0 : luck.between(5, 7),
      deceleration: panic ? luck.between(5.5, 7) : luck.between(0.9, 2.6),
      press: panic ? luck.between(0.07, 0.13) : luck.between(0.35, 1),
      panic,
    };
  });
}

/** A column that is written tick by tick. */
function growing() {
  let values = new Float64Array(1 << 16);
  let count = 0;
  return {
    put(value: number) {
      if (count === values.length) {
        const larger = new Float64Array(2 * count);
        larger.set(values);
        values = larger;
      }
      values[count++] = value;
    },
    whole: () => values.slice(0, count),
  };
}

/** Drives through some stops. */
export function driveThrough(
  luck: Dice,
  vehicle: DrivenVehicle,
  {
    stops: count,
    panics,
    trouble,
  }: { readonly stops: number; readonly panics: boolean; readonly trouble: DriveTrouble },
): TrueDrive {
  const stops = drawStops(luck, count, panics);
  const columns = [0, 1, 2, 3, 4, 5].map(() => growing());
  const [times, speeds, requests, regens, frictions, pedals] = columns;
  const panicsAt: number[] = [];
  const [motorLag, frictionLag, regenMost, power] = [
    luck.between(0.02, 0.05),
    luck.between(0.05, 0.11),
    luck.between(900, 1600),
    luck.between(25e3, 60e3),
  ];
  let [v, regen, friction, t] = [stops[0].from, 0, 0, luck.between(0, 50)];
  const step = (requested: number, pedal: number, sincePanic: number, inHandover: number) => {
    const taper = Math.min(1, Math.max(0, (v - handover.low) / (handover.high - handover.low)));
    const motorMay = Math.min(regenMost, (power * vehicle.tyreRadius) / Math.max(v, 0.5)) * taper;
    const gone = sincePanic >= trouble.panicLate ? 0 : motorMay;
    const motorAsked = Math.min(requested, sincePanic < Infinity ? gone : motorMay);
    const dips = inHandover >= 0 && inHandover < trouble.dipSeconds ? trouble.dip : 0;
    const smoothDip = dips * Math.sin((Math.PI * Math.max(0, inHandover)) / trouble.dipSeconds) ** 2;
    regen += ((motorAsked - regen) * tick) / motorLag;
    friction += ((Math.max(0, requested - motorAsked) * trouble.frictionGain - friction) * tick) / frictionLag;
    const given = Math.max(0, friction - smoothDip);
    times.put(t);
    speeds.put(v);
    requests.put(requested);
    regens.put(regen);
    frictions.put(given);
    pedals.put(pedal);
    t += tick;
    v = Math.max(0, v - ((regen + given) / vehicle.tyreRadius / vehicle.mass + 0.08) * tick);
  };
  for (const stop of stops) {
    for (let rest = luck.between(1.2, 2); rest > 0; rest -= v < stop.from ? 0 : tick) {
      step(0, 0, Infinity, -1);
      v = Math.min(stop.from, v + 6 * tick);
    }
    const full = stop.deceleration * vehicle.mass * vehicle.tyreRadius;
    const travel = stop.panic ? luck.between(0.05, 0.08) : luck.between(0.02, 0.05);
    if (stop.panic) panicsAt.push(t);
    let handedAt = -1;
    for (let since = 0; since < 25 && (since < stop.press || v > stop.until); since += tick) {
      const share = Math.min(1, since / stop.press);
      if (handedAt < 0 && v <= handover.high - 0.4) handedAt = since;
      step(full * share, travel * share, stop.panic ? since : Infinity, handedAt < 0 ? -1 : since - handedAt);
      if (v === 0 && since > stop.press) break;
    }
    for (let off = 0; off < 0.3; off += tick)
      step(full * Math.max(0, 1 - off / 0.3), travel * Math.max(0, 1 - off / 0.3), Infinity, -1);
  }
  const [time, speed, requested, regenGiven, frictionGiven, pedal] = columns.map((column) => column.whole());
  return { time, speed, requested, regen: regenGiven, friction: frictionGiven, pedal, panics: panicsAt };
}

/** The log that a tool writes of a drive: rows at its rate, slower columns with empty cells between. */
export function writeDrive(luck: Dice, drive: TrueDrive, vehicle: DrivenVehicle, tool: DriveTool): Trace {
  const every = Math.round(1 / tool.rate / tick);
  const rows = Math.floor(drive.time.length / every);
  const slower = Math.max(1, Math.round(tool.rate / tool.wheelRate));
  const at = (row: number) => row * every;
  const division = (value: number, of: number) => Math.round(value / of) * of;
  const column = (of: (i: number, row: number) => number) =>
    Float64Array.from({ length: rows }, (_, row) => of(at(row), row));
  const torqueToEach = 2 * (vehicle.frontTorque + vehicle.rearTorque);
  const pressures = wheels.map((wheel, at4) => [
    `wheel_pressure_${wheel}`,
    column((i, row) => {
      if (row % slower !== at4 % slower) return Number.NaN;
      const p = drive.friction[i] / torqueToEach;
      const seen = p * (1 + tool.gains[at4]) + tool.zeros[at4] + tool.pressureNoise * luck.normal();
      return division(seen, tool.pressureDivision);
    }),
  ]);
  return makeTrace(
    column((i) => drive.time[i]),
    {
      ...Object.fromEntries(pressures),
      requested_torque: column((i) => division(drive.requested[i], 2)),
      regen_torque: column(
        (i) => tool.regenSign * division(drive.regen[i] * (1 + tool.regenGain) + tool.torqueNoise * luck.normal(), 2),
      ),
      vehicle_speed: column((i) => division(drive.speed[i] + 0.02 * luck.normal(), 0.01)),
      pedal_travel: column((i) => division(drive.pedal[i] + 0.1e-3 * luck.normal(), 0.1e-3)),
    },
  );
}

/** Mean over a window from each tick on. */
function means(values: Float64Array, seconds: number): Float64Array {
  const n = Math.round(seconds / tick);
  const sums = new Float64Array(values.length + 1);
  values.forEach((value, i) => (sums[i + 1] = sums[i] + value));
  return Float64Array.from({ length: Math.max(0, values.length - n + 1) }, (_, i) => (sums[i + n] - sums[i]) / n);
}

export interface TrueClosure {
  readonly delay: number;
  readonly bias: number;
  readonly rms: number;
  readonly worst: number;
  readonly largest: number;
  readonly dip: number | null;
}

/** What is true of a drive, by the definitions. */
export function trueClosure(drive: TrueDrive): TrueClosure {
  const largest = Math.max(...stride(means(drive.requested, 0.2), 5));
  const floor = 0.05 * largest;
  const counts = drive.requested.map((value, i) =>
    value > floor && !drive.panics.some((at) => drive.time[i] >= at && drive.time[i] < at + 1) ? 1 : 0,
  );
  const last = drive.time.length - 1;
  const errorLater = (ticks: number, i: number) => {
    const later = Math.min(last, i + ticks);
    return drive.requested[i] - drive.regen[later] - drive.friction[later];
  };
  const errorAt = (delay: number, i: number) => errorLater(Math.round(delay / tick), i);
  const square = (delay: number) => {
    const ticks = Math.round(delay / tick);
    let sum = 0;
    for (let i = 0; i < counts.length; i += 5) if (counts[i] === 1) sum += errorLater(ticks, i) ** 2;
    return sum;
  };
  const delays = Array.from({ length: 31 }, (_, at) => at / 100);
  const squares = delays.map(square);
  const delay = delays[squares.indexOf(Math.min(...squares))];
  const error = Float64Array.from(counts, (counted, i) => (counted === 1 ? errorAt(delay, i) : Number.NaN));
  const braking = error.filter((value) => !Number.isNaN(value));
  const mean = (values: Float64Array) => values.reduce((sum, value) => sum + value, 0) / values.length;
  // A mean over a stretch that is not all counted is none; a sum that met one is lost, so stretches are taken one by one.
  const stretches = splitAtGaps(error);
  return {
    delay,
    bias: mean(braking),
    rms: Math.sqrt(mean(braking.map((value) => value * value))),
    worst: Math.max(0, ...stretches.flatMap((each) => [...stride(means(each, 0.2).map(Math.abs), 2)])),
    largest,
    dip: deepestDip(drive, errorAt, delay, floor),
  };
}

function stride(values: Float64Array, by: number): Float64Array {
  return values.filter((_, i) => i % by === 0);
}

function splitAtGaps(values: Float64Array): readonly Float64Array[] {
  const parts: Float64Array[] = [];
  let from = -1;
  for (let i = 0; i <= values.length; i++) {
    const there = i < values.length && !Number.isNaN(values[i]);
    if (there && from < 0) from = i;
    if (!there && from >= 0) {
      parts.push(values.subarray(from, i));
      from = -1;
    }
  }
  return parts;
}

function deepestDip(
  drive: TrueDrive,
  errorAt: (delay: number, i: number) => number,
  delay: number,
  floor: number,
): number | null {
  let deepest: number | null = null;
  for (let i = 1; i < drive.time.length; i++) {
    if (!(drive.speed[i - 1] > handover.high && drive.speed[i] <= handover.high)) continue;
    let end = i;
    while (end < drive.time.length && drive.speed[end] > handover.low && drive.requested[end] > floor) end++;
    if (end >= drive.time.length || drive.requested[end] <= floor) continue;
    const earlier = Array.from({ length: perSecond }, (_, k) => i - perSecond + k).filter(
      (k) => k >= 0 && drive.requested[k] > floor,
    );
    if (earlier.length < perSecond / 2) continue;
    const held = earlier.reduce((sum, k) => sum + errorAt(delay, k), 0) / earlier.length;
    const inIt = means(
      Float64Array.from({ length: end - i }, (_, k) => errorAt(delay, i + k)),
      0.1,
    );
    const dip = Math.max(...inIt) - held;
    if (deepest === null || dip > deepest) deepest = dip;
  }
  return deepest;
}
