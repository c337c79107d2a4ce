import { asDials } from '@/core/dials/default-dial';
import type { AnyKind } from '@/core/contract/kind';
import { entryOf } from '@/core/dials/characteristic-entry';
import type { Instrument } from '@/core/instruments/instrument';
import { randomSource } from '@/core/physics/random';
import type { StepAnalysis } from '@/core/procedure/step-analysis';
import type { StepContext } from '@/core/procedure/step-context';
import { leverByItself } from '@/core/procedure/guide';
import { liveFeed, type MeasuredStep } from '@/core/procedure/step-definition';
import type { TypedField, TypedValues } from '@/core/procedure/typed-entry';
import { findPull, isPull } from '@/core/traces/pull';
import { findStrokes } from '@/core/traces/strokes';
import { runByItself } from '@/core/rig/run-by-itself';
import { rigForStep, simulateStep, type StandInSetting } from '@/core/rig/run-step';
import { movingMean } from '@/core/traces/smoothing';
import { columnOf, indexAtTime, meanOf, sampleInterval, type Trace } from '@/core/traces/trace';

/** A thumb on a watch is late by so much at the end of a time, one sigma, s. */
const reaction = 0.15;
/** What moves more quickly than this is over before a thumb has moved, s. */
const tooQuick = 0.4;

/** Steps of a curve that are pressed one after the other, each held until the needles stand. */
const pressedInSteps = new Set([
  'assist-curve',
  'unassisted-curve',
  'metering-curve',
  'modulation-curve',
  'simulator-curve',
  'proportioning',
  'sensor-tracks',
]);
const stairs = 18;
/** A person takes so many times as long as the rig. */
const unhurried = 2;

/** The run that a person makes of a step: curves are pressed a little at a time, the needles left to stand. */
export function runByHand(
  kind: AnyKind,
  step: MeasuredStep<unknown>,
  context: StepContext<unknown>,
  setting: StandInSetting,
): Trace {
  if (!pressedInSteps.has(step.id)) return simulateStep(kind, step, context, setting);
  const phases = liveFeed(step).guide(context);
  const top = Math.max(...phases.map(({ lever }) => lever.to));
  const stair = top / stairs;
  return runByItself(rigForStep(kind, step, context, setting), phases, {
    longest: 1_000,
    lever: (all, state) => {
      const level = leverByItself(all, { ...state, elapsed: state.elapsed / unhurried });
      const back = (all[state.phase]?.lever.to ?? 0) < state.leverFrom;
      // Where it begins to help it is felt for in smaller steps.
      const own = !back && level < 5 * stair ? stair / 4 : stair;
      return (back ? Math.ceil(level / own - 1e-6) : Math.floor(level / own + 1e-6)) * own;
    },
  });
}

/**
 * Somebody at the bench with dials, a rule, a watch and a foot: reads of a trace what a needle shows at a moment, to half a division,
 * times by a thumb and strokes by how they felt. Knows nothing of fits; of what happened, only what anybody sees.
 */
export function readByHand(
  step: MeasuredStep<unknown>,
  trace: Trace,
  context: StepContext<unknown>,
  seed: number,
): TypedValues {
  const random = randomSource(seed);
  const dials = asDials(context.instruments);
  const end = trace.time[trace.time.length - 1];
  const rounded = (value: number, division: number) => (division > 0 ? Math.round(value / division) * division : value);
  /** What a needle shows at a moment, to half of its division. */
  const needle = (channel: string | null, time: number): number => {
    const column = channel === null ? undefined : columnOf(trace, channel);
    if (!column) return Number.NaN;
    const { mean } = meanOf(
      column,
      indexAtTime(trace, time - 0.15),
      Math.min(column.length, indexAtTime(trace, time + 0.15) + 1),
    );
    return rounded(mean, (dials.get(channel ?? '')?.resolution ?? 0) / 2);
  };
  const watch = (seconds: number) => Math.max(0.1, rounded(seconds + reaction * random.normal(), 0.1));
  const pullOf = (channel: string) => {
    const column = columnOf(trace, channel);
    const pull = column && findPull(trace, column);
    return pull && isPull(pull) ? pull : null;
  };
  /** Moments at the end of each stair, up to the top and, of every third, on the way back. */
  const alongStairs = (channel: string, withBack: boolean): number[] => {
    const column = columnOf(trace, channel);
    if (!column) return [];
    const half = Math.max(1, Math.round(0.1 / sampleInterval(trace)));
    const smooth = movingMean(column, half);
    const top = smooth.reduce((best, value, at) => (value > smooth[best] ? at : best), 0);
    const least = 0.2 * (smooth[top] / stairs);
    const ends: number[] = [];
    let held = 0;
    for (let i = half; i < smooth.length - half; i++) {
      if (Math.abs(smooth[i + half] - smooth[i - half]) < least) held++;
      else {
        if (held * sampleInterval(trace) > 0.3 && smooth[i - half] > least) ends.push(i - half);
        held = 0;
      }
    }
    const up = ends.filter((at) => at <= top + half);
    const back = withBack ? ends.filter((at) => at > top + half).filter((_, at) => at % 3 === 1) : [];
    return [...up, ...back].map((at) => trace.time[at] - 0.1);
  };
  const entry = entryOf(step);
  const columnsOf = () => entry.fields(context, {}).filter((field) => field.row?.at === 1);
  const table = (times: readonly number[], other: (field: TypedField, time: number) => number = () => Number.NaN) =>
    Object.fromEntries(
      times.flatMap((time, at) =>
        columnsOf().map((field) => {
          const id = field.id.replace('#1', `#${at + 1}`);
          return [id, field.channel === null ? other(field, time) : needle(field.channel, time)] as const;
        }),
      ),
    );
  const strokesOf = (lever: string) => {
    const column = columnOf(trace, lever);
    return column ? findStrokes(trace, column) : [];
  };
  const timed = (id: string, seconds: number | undefined): Record<string, number> =>
    seconds === undefined ? {} : seconds < tooQuick ? { [`${id}-quick`]: 0 } : { [id]: watch(seconds) };
  const found = (analysis: StepAnalysis, id: string) => {
    const each = analysis.characteristics.find((one) => one.id === id);
    return each?.kind === 'measured' ? each.estimate.value : undefined;
  };
  const seen: StepAnalysis = step.analyse(trace, context);
  const lever =
    ['rod_force', 'pedal_force', 'input_pressure', 'pedal_angle'].find((each) => columnOf(trace, each)) ?? '';

  const values = ((): Record<string, number> => {
    switch (step.id) {
      case 'assist-curve':
        return table(alongStairs(lever, true));
      case 'unassisted-curve':
        return table(alongStairs(lever, false));
      case 'metering-curve':
      case 'modulation-curve':
        return table(alongStairs(lever, true));
      case 'simulator-curve':
        return table(alongStairs('pedal_force', false));
      case 'proportioning':
        return table(alongStairs('front_pressure', false));
      case 'sensor-tracks': {
        const rows = [trace.time[0] + 1, ...alongStairs('rod_travel', false)];
        return table(rows);
      }
      case 'release': {
        const away = pullOf(lever);
        const before = away ? trace.time[Math.max(0, away.restBefore.to - 5)] - 0.3 : 0.5;
        return {
          ...Object.fromEntries(
            entry
              .fields(context, {})
              .filter(({ channel }) => channel !== null)
              .map(({ id, channel }) => [id, needle(channel, id.endsWith('before') ? before : end - 0.3)]),
          ),
          ...timed('let-go', found(seen, 'release-time') ?? found(seen, 'wheel-release-time')),
        };
      }
      case 'residual':
        return Object.fromEntries(
          entry
            .fields(context, {})
            .map(({ id, channel }) => [id, needle(channel, id.endsWith('before') ? 0.5 : end - 0.3)]),
        );
      case 'vacuum-draw':
        return {
          ...timed('drawn-after', found(seen, 'draw-time')),
          'supply-stands': needle('supply_vacuum', end - 0.5),
          'control-stands': needle('control_vacuum', end - 0.5),
        };
      case 'vacuum-gauge-agreement':
        return {
          'supply-shows': needle('supply_vacuum', end - 0.5),
          'control-shows': needle('control_vacuum', end - 0.5),
        };
      case 'supply-check': {
        const current = columnOf(trace, 'motor_current');
        const smooth = current ? movingMean(current, Math.round(0.25 / sampleInterval(trace))) : null;
        const most = smooth ? smooth.reduce((best, value, at) => (value > smooth[best] ? at : best), 0) : 0;
        const loaded = trace.time[most];
        const pump = columnOf(trace, 'pump_on');
        const stop = pump ? pump.findLastIndex((value) => value > 0.5) : most;
        const lowest = columnOf(trace, 'supply_voltage');
        return {
          'volts-at-rest': needle('supply_voltage', 1),
          'volts-loaded': lowest ? needle('supply_voltage', trace.time[Math.max(0, stop - 12)]) : Number.NaN,
          'battery-rest': needle('battery_voltage', 0.5),
          'unit-rest': needle('supply_voltage', 0.5),
          'battery-loaded': needle('battery_voltage', loaded),
          'unit-loaded': needle('supply_voltage', loaded),
          'ground-loaded': needle('ground_voltage', loaded),
          clamp: needle('motor_current', pump ? trace.time[Math.max(0, stop - 12)] : loaded),
        };
      }
      case 'base-pair':
      case 'same-force-pair': {
        const held = strokesOf('pedal_force');
        const [first, last] = [held[0], held[held.length - 1]];
        if (!first || first === last) return {};
        const middle = (span: { from: number; to: number }) => trace.time[Math.floor((span.from + 3 * span.to) / 4)];
        const channel = step.id === 'base-pair' ? 'master_pressure' : 'output_pressure';
        return {
          'foot-known': 0,
          foot: needle('pedal_force', middle(first)),
          off: needle(channel, middle(first)),
          on: needle(channel, middle(last)),
        };
      }
      case 'combination-valve': {
        const held = strokesOf('pedal_force').at(-1);
        if (!held) return {};
        const time = trace.time[Math.floor((held.from + 3 * held.to) / 4)];
        return {
          front: needle('front_pressure', time),
          rear: needle('rear_pressure', time),
          'red-lamp': needle('lamp_red', time) > 0.5 ? 1 : 0,
        };
      }
      case 'pump-down': {
        const column = columnOf(trace, 'supply_vacuum')!;
        const from =
          trace.time[
            Math.max(
              0,
              column.findIndex((value) => value > 1_500),
            )
          ];
        const times = [1, 2, 3, 5, 7, 10, 14, 20, 28, 40, 55].filter((after) => from + after < end - 0.3);
        return table(
          times.map((after) => from + after),
          (_field, time) => watch(time - from),
        );
      }
      case 'isolation-hold': {
        const held = columnOf(trace, 'pedal_force')!;
        const peak = Math.max(...held);
        const from = trace.time[held.findIndex((value) => value > 0.9 * peak)] + 6;
        const until = trace.time[held.findLastIndex((value) => value > 0.9 * peak)] - 0.5;
        return table(
          [0, 1 / 3, 2 / 3, 1].map((share) => from + share * (until - from)),
          (_field, time) => watch(time - from + 6),
        );
      }
      case 'tracking': {
        const target = columnOf(trace, 'target_pressure_fl');
        if (!target) return {};
        // Moments at which what is asked for has stood for a while.
        const moments: number[] = [];
        for (let time = trace.time[0] + 1.5; time < end; time += 0.25) {
          const [from, to] = [indexAtTime(trace, time - 1.2), indexAtTime(trace, time)];
          const part = target.subarray(from, to);
          const spread = Math.max(...part) - Math.min(...part);
          const level = part[part.length - 1];
          const taken = moments.some((each) => Math.abs(target[indexAtTime(trace, each)] - level) < 2e5);
          if (spread < 5e4 && level > 3e5 && !taken) moments.push(time);
        }
        return table(moments);
      }
      case 'neutral-leak': {
        const flow = meanOf(columnOf(trace, 'flow')!, 0).mean;
        const seconds = watch(60);
        return { 'caught-in': seconds, caught: rounded(flow * 60, 2e-6) };
      }
      case 'pump-relief':
        return {
          meter: needle('flow', 2 + 4),
          relief:
            found(seen, 'relief-pressure') === undefined
              ? Number.NaN
              : rounded(found(seen, 'relief-pressure')!, (dials.get('pump_pressure')?.resolution ?? 0) / 2),
        };
      case 'steering-share': {
        const held = strokesOf('pedal_force')[0];
        const boost = columnOf(trace, 'boost_pressure');
        if (!held || !boost) return {};
        const smooth = movingMean(boost, Math.round(0.15 / sampleInterval(trace)));
        const sooner = smooth.subarray(0, indexAtTime(trace, trace.time[held.from] + 3));
        const highest = sooner.reduce((best, value, at) => (value > sooner[best] ? at : best), 0);
        const later = smooth.subarray(highest, held.to);
        const before = trace.time[highest];
        const low = trace.time[highest + later.reduce((best, value, at) => (value < later[best] ? at : best), 0)];
        return { 'foot-held': needle('boost_pressure', before), steered: needle('boost_pressure', low) };
      }
      case 'step-response':
      case 'panic': {
        const time = found(seen, 'rise-time');
        return {
          ...timed('pressed-up', time),
          ...timed('front-up', time),
          ...timed('rear-up', found(seen, 'rise-time@rear')),
        };
      }
      default:
        return {};
    }
  })();
  return Object.fromEntries(Object.entries(values).filter(([, value]) => Number.isFinite(value)));
}

/** Divisions of a dial that a person would call good. */
const goodDivisions = 250;

/** Dials whose ranges suit what is read on them, 1 % of the reading and fine enough: what somebody with good tools screws on. */
export function withGoodDials(trace: Trace, context: StepContext<unknown>): StepContext<unknown> {
  const fitted = [...context.instruments].map(([channel, instrument]): [string, Instrument] => {
    const column = columnOf(trace, channel);
    if (!column || !instrument.ofStandIn) return [channel, instrument];
    const highest = column.reduce((most, value) => Math.max(most, Math.abs(value) || 0), 0);
    const range = Math.min(instrument.range, Math.max(1.25 * highest, instrument.range / 50));
    return [
      channel,
      {
        channel,
        name: 'A good dial',
        range,
        resolution: Math.max(instrument.resolution, range / goodDivisions),
        classFraction: 0.01,
        classOf: 'reading',
        calibratedOn: null,
        dueOn: null,
      },
    ];
  });
  return { ...context, instruments: new Map(fitted) };
}
