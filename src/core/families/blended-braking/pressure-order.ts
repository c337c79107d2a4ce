import type { Instrument } from '../../instruments/instrument';
import { random, systematic, unreadZero, classError, type Estimate } from '../../instruments/uncertainty';
import { divisionOf, scatterOf, type Samples } from '../../traces/own-samples';
import { meanInterval } from '../../traces/time-mean';
import { clockUnder, onClock, sumOf, windowMeans, type Clocked, type DriveClock } from './drive-clock';
import { differencesLookedAt, wheelChannels, type Drive } from './drive';
import { ownGain, ownZero } from './sensor-doubt';

const { abs, hypot, max, sqrt } = Math;

/** A pressure that lasts is a mean over this, s. */
const lastingWindow = 0.2;

/** A pressure sensor: the workshop's own where it named one, else the vehicle's; and its noise, Pa. */
interface Sensor {
  readonly instrument: Instrument | undefined;
  readonly noise: number;
}

/**
 * Uncertainty of a pressure that is itself what is in question, Pa: a vehicle's sensor that reads wrong is the finding and no excuse for it;
 * a gauge that the workshop put there has an uncertainty of its own.
 */
function questionedParts(sensor: Sensor, pressure: number, date: string, count: number) {
  const parts = pressureParts(sensor, pressure, date, count);
  const named = sensor.instrument && !sensor.instrument.ofStandIn;
  return named ? parts : parts.map((part) => (part.random ? part : { ...part, standard: 0 }));
}

/** What two columns may be apart because they were asked at other moments, Pa: what the pressure moves by in an interval. */
function askedApart(one: ReadPressure, pressure: Clocked, at: number, { step }: DriveClock) {
  const last = Math.min(pressure.value.length - 1, at + Math.round(lastingWindow / step));
  const rate = abs(pressure.value[last] - pressure.value[at]) / lastingWindow;
  return [
    systematic('timing', (rate * meanInterval(one.samples)) / sqrt(12)),
    systematic('resolution', (Math.SQRT2 * divisionOf(one.samples)) / sqrt(12)),
  ];
}

/** Uncertainty of one mean of a pressure, Pa: zero and gain of its sensor, noise. */
function pressureParts({ instrument, noise }: Sensor, pressure: number, date: string, count: number) {
  const named = instrument && !instrument.ofStandIn ? instrument : null;
  const zero = named ? unreadZero(named, date) : ownZero;
  const gain = named ? classError(named, pressure, date) / sqrt(3) : ownGain * pressure;
  return [systematic('gauge-zero', zero), systematic('gauge-gain', gain), random('noise', noise / sqrt(max(1, count)))];
}

/** A pressure channel with what reads it. */
export interface ReadPressure {
  readonly samples: Samples;
  readonly instrument: Instrument | undefined;
}

const sensorOf = ({ samples, instrument }: ReadPressure): Sensor => ({
  instrument,
  noise: scatterOf(samples, differencesLookedAt),
});

export interface Extreme {
  readonly estimate: Estimate;
  /** What the two pressures were then, Pa. */
  readonly of: readonly [number, number];
  /** s */
  readonly at: number;
}

function extreme(
  means: Clocked,
  clock: DriveClock,
  better: (a: number, b: number) => boolean,
): { readonly step: number; readonly at: number } | null {
  let best = -1;
  for (let i = 0; i < clock.count; i++)
    if (means.known[i] === 1 && (best < 0 || better(means.value[i], means.value[best]))) best = i;
  return best < 0 ? null : { step: best, at: clock.start + best * clock.step };
}

function together(parts: readonly ReturnType<typeof pressureParts>[]) {
  return parts[0].map((part, at) => ({ ...part, standard: hypot(...parts.map((each) => each[at].standard)) }));
}

/** Largest lasting difference of two master cylinder sensors without its sign, Pa; null where they were never recorded together. */
export function masterDifference(one: ReadPressure, other: ReadPressure, date: string): Extreme | null {
  const clock = clockUnder([one.samples, other.samples]);
  const [a, b] = [one, other].map(({ samples }) => onClock(samples, clock, 'straight'));
  const difference = sumOf(
    [
      { of: a, times: 1 },
      { of: b, times: -1 },
    ],
    clock.count,
  );
  const means = windowMeans(difference, clock, lastingWindow);
  const found = extreme(means, clock, (x, y) => abs(x) > abs(y));
  if (!found) return null;
  const parts = [one, other].map((each, at) =>
    questionedParts(sensorOf(each), [a, b][at].value[found.step], date, lastingWindow / clock.step),
  );
  return {
    at: found.at,
    of: [a.value[found.step], b.value[found.step]],
    estimate: {
      value: abs(means.value[found.step]),
      components: [...together(parts), ...askedApart(one, a, found.step, clock)],
    },
  };
}

/** Margin of the store over the highest wheel, known while somebody brakes. */
function marginOver(store: Clocked, { clock, braking, wheels }: Pick<Drive, 'clock' | 'braking' | 'wheels'>): Clocked {
  const value = new Float64Array(clock.count);
  const known = new Uint8Array(clock.count);
  for (let i = 0; i < clock.count; i++) {
    if (braking[i] === 0 || store.known[i] === 0) continue;
    let highest = -Infinity;
    for (const wheel of wheels) highest = max(highest, wheel.value[i]);
    value[i] = store.value[i] - highest;
    known[i] = 1;
  }
  return { value, known };
}

/** Smallest lasting margin of the store over the highest wheel while somebody brakes, Pa; null where the store was not recorded meanwhile. */
export function storeMargin(
  store: ReadPressure,
  drive: Pick<Drive, 'clock' | 'braking' | 'wheels' | 'noise'>,
  instruments: ReadonlyMap<string, Instrument>,
  date: string,
): Extreme | null {
  const { clock, wheels, noise } = drive;
  const own = onClock(store.samples, clock, 'straight');
  const means = windowMeans(marginOver(own, drive), clock, lastingWindow);
  const found = extreme(means, clock, (x, y) => x < y);
  if (!found) return null;
  const pressures = wheels.map(({ value }) => value[found.step]);
  const highest = pressures.indexOf(max(...pressures));
  const count = lastingWindow / clock.step;
  const wheel = { instrument: instruments.get(wheelChannels[highest]), noise: noise.wheels[highest] };
  const parts = [
    pressureParts(sensorOf(store), own.value[found.step], date, count),
    pressureParts(wheel, pressures[highest], date, count),
  ];
  return {
    at: found.at,
    of: [own.value[found.step], pressures[highest]],
    estimate: { value: means.value[found.step], components: together(parts) },
  };
}
