/* A pump with its reservoir on a vehicle: pV of a vessel that a pump of constant speed draws from, and leaks let into. */

import { goodGauge, writeLog, type Dice, type Signal } from '../logger';
import { ambient, foot, gauge, onOff, vacuumGauge } from '../step-case';
import { log, wholeUnit } from './whole-unit';

const { max, min, round } = Math;

interface Source {
  /** Speed of the pump at the reservoir, m3/s, and the vacuum it would reach, Pa. */
  readonly speed: number;
  readonly reaches: number;
  /** Loss with everything still, Pa/s, and with the source side open, Pa/s. */
  readonly leak: number;
  readonly backwards: number;
  readonly cutIn: number;
  readonly cutOut: number;
  /** What the sensor says above what is there, Pa. */
  readonly sensor: number;
  readonly perStroke: number;
}

/** Reservoir and what is mounted to it, m3. */
const volume = 4_800e-6;

interface Run {
  readonly vacuum: (t: number) => number;
  readonly pump: (t: number) => number;
}

/** The vessel, every hundredth of a second: drawn on while the pump is on, let into by leaks, by a bleed, and by a foot that comes back. */
function vessel(
  source: Source,
  from: number,
  seconds: number,
  how: {
    readonly on: (t: number, sensed: number, was: boolean) => boolean;
    /** Let in by hand while the pump stands, Pa/s. */
    readonly bleed?: number;
    readonly strokes?: readonly number[];
    readonly leak?: number;
  },
): Run {
  const step = 0.01;
  const count = round(seconds / step) + 2;
  const [levels, runs] = [new Float64Array(count), new Float64Array(count)];
  let [level, on] = [from, false];
  for (let i = 0; i < count; i++) {
    const t = i * step;
    on = how.on(t, level + source.sensor, on);
    const drawn = on ? (source.speed / volume) * max(0, source.reaches - level) : 0;
    const taken = (how.strokes ?? []).some((at) => t >= at && t < at + 0.3) ? (source.perStroke * level) / 0.3 : 0;
    const lost = (how.leak ?? source.leak) * min(1, level / 20e3) + (on ? 0 : (how.bleed ?? 0)) * min(1, level / 20e3);
    level = max(0, level + (drawn - lost - taken) * step);
    levels[i] = level;
    runs[i] = on ? 1 : 0;
  }
  const at = (column: Float64Array) => (t: number) => column[min(count - 1, max(0, round(t / step)))];
  return { vacuum: at(levels), pump: at(runs) };
}

const switched =
  ({ cutIn, cutOut }: Source, from = 0) =>
  (t: number, sensed: number, was: boolean) =>
    t > from && (sensed < cutIn || (was && sensed < cutOut));

function written(run: Run, source: Source, seconds: number, luck: Dice, more: Record<string, Signal> = {}) {
  return log(
    writeLog(
      {
        supply_vacuum: { at: run.vacuum, gauging: vacuumGauge(luck) },
        reservoir_vacuum: {
          at: (t) => run.vacuum(t) + source.sensor,
          gauging: { ...goodGauge, white: 80, division: 100 },
        },
        pump_on: { at: run.pump, gauging: onOff },
        ...more,
      },
      { seconds, rate: luck.oneOf([20, 50, 100]), jitter: 0.2 },
      luck,
    ),
  );
}

export const vacuumSource = wholeUnit<Source>({
  family: 'vacuum-supply',
  plan: 'vehicle',
  sound: (luck) => ({
    speed: (95e-3 / 60) * luck.between(0.95, 1.05),
    reaches: ambient * 0.868 * luck.between(0.995, 1.005),
    leak: luck.between(1, 5),
    backwards: luck.between(1, 5),
    cutIn: 54e3 + luck.between(-600, 600),
    cutOut: 68e3 + luck.between(-600, 600),
    sensor: luck.between(-200, 200),
    perStroke: (600e-6 / volume) * luck.between(0.97, 1.03),
  }),
  faults: {
    'pump-worn': (sound, severe) => ({
      ...sound,
      speed: sound.speed * (0.75 - 0.45 * severe),
      reaches: sound.reaches * (0.95 - 0.12 * severe),
    }),
    'supply-leak': (sound, severe) => ({ ...sound, leak: 40 + 400 * severe }),
    'reservoir-check-leak': (sound, severe) => ({ ...sound, backwards: 300 + 2_500 * severe }),
    'switch-cut-in-low': (sound, severe) => ({ ...sound, cutIn: sound.cutIn - 5e3 - 12e3 * severe }),
    'switch-cut-out-high': (sound, severe) => ({ ...sound, cutOut: sound.cutOut + 3e3 + 2.5e3 * severe }),
    'sensor-offset': (sound, severe) => ({ ...sound, sensor: 4e3 + 8e3 * severe }),
    'hose-restricted': (sound, severe) => ({ ...sound, speed: sound.speed * (0.7 - 0.45 * severe) }),
  },
  looks: { 'supply-leak': { hoses: 'unfit' }, 'hose-restricted': { hoses: 'note' } },
  write: (step, source, luck) => {
    const starts = luck.between(1, 3);
    switch (step) {
      case 'source-vacuum': {
        const times = [starts + 16, starts + 20, starts + 24];
        const seconds = starts + 30;
        const run = vessel(source, 0, seconds, { on: switched(source, starts), strokes: times.map((at) => at + 3.2) });
        const pedal = { at: foot(times, 3, () => 150), gauging: gauge(luck, 300) };
        return written(run, source, seconds, luck, { pedal_force: pedal });
      }
      case 'pump-down': {
        const seconds = starts + luck.between(6, 9) * (volume / source.speed);
        return written(vessel(source, 0, seconds, { on: (t) => t > starts }), source, seconds, luck);
      }
      case 'pump-switch': {
        const bled = luck.between(900, 1_600);
        const run = vessel(source, source.cutOut - source.sensor - 300, 100, {
          on: switched(source),
          bleed: bled,
        });
        return written(run, source, 100, luck);
      }
      case 'rest-leak': {
        const from = source.cutOut - source.sensor - 8e3;
        const until = (t: number, sensed: number, was: boolean) => (t < 30 && was && sensed < source.cutOut) || t < 0.5;
        // A pump that stands holds nothing back: its valve does.
        const run = vessel(source, from, 90, { on: until, leak: source.leak + source.backwards });
        return written(run, source, 75, luck);
      }
      case 'demand': {
        const times = [4, 16];
        const run = vessel(source, luck.between(56e3, 66e3), 26, {
          on: () => false,
          strokes: times.map((at) => at + 3),
          leak: source.leak + source.backwards,
        });
        const pedal = { at: foot(times, 3, () => 200), gauging: gauge(luck, 400) };
        return written(run, source, 25, luck, { pedal_force: pedal });
      }
      case 'check-valve': {
        // With the source side shut, then open to the air: what the valve lets back is lost besides.
        const [opened, seconds] = [17, 34];
        const shut = vessel(source, luck.between(56e3, 66e3), opened, { on: () => false });
        const open = vessel(source, shut.vacuum(opened), seconds, { on: () => false, leak: source.backwards });
        const vacuum = (t: number) => (t < opened ? shut.vacuum(t) : open.vacuum(t - opened));
        const side = (t: number) => (t < opened ? vacuum(t) : vacuum(opened) * max(0, 1 - (t - opened) / 0.3));
        return written({ vacuum, pump: () => 0 }, source, seconds, luck, {
          source_vacuum: { at: side, gauging: vacuumGauge(luck) },
        });
      }
      default:
        return null;
    }
  },
});
