import { analyseSteadyReading } from '../../toolboxes/analysis/steady-reading';
import { differenceComponents, differenceResolution, random, readingComponents } from '../../instruments/uncertainty';
import { movingMean } from '../../traces/smoothing';
import { fitLine } from '../../fitting/line';
import { scatterOf } from '../../traces/own-samples';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import { absent, measured, nothingMeasured } from '../../procedure/analysis-result';
import { around, atMost, limitFrom } from '../../procedure/limit';
import { findStrokes } from '../../traces/strokes';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { MeasuredStep } from '../../procedure/step-definition';
import { assistForce, type HydraulicBoostUnit } from './geometry';
import { wait } from '../../procedure/guide-phase';
import { lever, engineOn, off } from './step-parts';

type Measured = MeasuredStep<HydraulicBoostUnit>;

const idleSeconds = 5;

/** The line is shut for this long: clear of the five seconds that no pump may stand against its dead end. */
const deadHeadSeconds = 3;

const longestDeadHead = 5;

export const pumpRelief: Measured = {
  id: 'pump-relief',
  kind: 'measured',
  title: 'Pump relief and flow',
  why: 'What the pump can do: flow at idle through the meter, then its relief pressure against a dead end, for seconds only.',
  minutes: 6,
  cautions: ['dead-head', 'fluid-jet', 'running-engine'],
  optional: false,
  characteristics: ['relief-pressure', 'pump-flow'],
  interlock: { kind: 'steps-clear', steps: ['fluid-look', 'hose-look'] },
  needs: ['pump_pressure', 'flow'],
  uses: ['pump_on'],
  leastRows: 20,
  picture: { kind: 'over-time', channels: ['pump_pressure', 'flow'] },
  startsFrom: 'charged',
  guide: () => [
    wait({ code: 'start-engine', seconds: 2 }, engineOn, 2),
    wait({ code: 'flow-at-idle', seconds: idleSeconds }, engineOn, idleSeconds),
    {
      ...wait({ code: 'dead-head', seconds: longestDeadHead }, { ...engineOn, 'dead-head': 1 }, deadHeadSeconds),
      duty: { of: 'dead-head', channel: 'pump_on', seconds: longestDeadHead },
    },
    wait({ code: 'open-dead-head' }, engineOn, 3),
  ],
  analyse: (trace, context): StepAnalysis => {
    const ids = ['relief-pressure', 'pump-flow'] as const;
    const line = columnOf(trace, 'pump_pressure');
    const flow = columnOf(trace, 'flow');
    if (!line || !flow)
      return nothingMeasured(ids, { code: 'channel-missing', channel: line ? 'flow' : 'pump_pressure' });
    const interval = sampleInterval(trace);
    const half = Math.max(1, Math.round(0.1 / interval));
    const smooth = movingMean(line, half);
    let peak = 0;
    for (let i = 0; i < smooth.length; i++) if (smooth[i] > smooth[peak]) peak = i;
    let from = peak;
    while (from > 0 && smooth[from - 1] > 0.97 * smooth[peak]) from--;
    let to = peak;
    while (to < smooth.length && smooth[to] > 0.97 * smooth[peak]) to++;
    const held = meanOf(line, from + Math.floor((to - from) / 3), Math.max(from + 2, to - 2 * half));
    const instrument = context.instruments.get('pump_pressure');
    const seconds = (to - from) * interval;
    const relief: Characteristic =
      seconds < 0.5 || !shutOff(flow, { from, to })
        ? absent(ids[0], { code: 'relief-not-reached', peak: smooth[peak] })
        : measured(ids[0], held.mean, [
            random('noise', held.deviation / Math.sqrt(Math.max(1, held.count))),
            ...(instrument ? readingComponents(instrument, held.mean, context.date) : []),
          ]);
    const idling = idleFlow(trace, flow, smooth, { from, to });
    const meter = context.instruments.get('flow');
    return {
      characteristics: [
        relief,
        idling === null
          ? absent(ids[1], { code: 'never-idled' })
          : measured(ids[1], idling.mean, [
              random('noise', idling.deviation / Math.sqrt(Math.max(1, idling.count))),
              ...(meter ? readingComponents(meter, idling.mean, context.date) : []),
            ]),
      ],
      events: [],
      notes: [
        ...(seconds > longestDeadHead ? [{ code: 'charged-too-long', of: 'dead-head', seconds } as const] : []),
        ...(seconds < 0.5
          ? []
          : reliefManner(trace, line, { from: from + Math.floor((to - from) / 3), to: to - 2 * half }, held.mean)),
      ],
    };
  },
  limits: (_analysis, { unit, workshopLimits }) => {
    const percent = unit.spec.reliefTolerancePercent;
    const from = limitFrom(
      { field: 'reliefTolerancePercent', value: percent === undefined ? undefined : percent / 100 },
      { key: 'boostRatioTolerance', value: workshopLimits.boostRatioTolerance },
    );
    const least = {
      value: unit.pumpFlow * (1 - workshopLimits.pumpSpeedTolerance),
      key: 'pumpSpeedTolerance',
    } as const;
    return [
      around('relief-pressure', unit.relief, from),
      {
        characteristic: 'pump-flow',
        low: least.value,
        high: null,
        expected: unit.pumpFlow,
        standard: 0,
        source: { kind: 'workshop', key: least.key },
      },
    ];
  },
  bands: ({ unit }) => ({
    pump_pressure: [unit.relief * 0.9, unit.relief * 1.1],
    flow: [unit.pumpFlow * 0.8, unit.pumpFlow * 1.2],
  }),
};

/** A line is shut while less than this share of the most that ever flowed goes through its meter. */
const shutBelow = 0.3;

/** Whether the pump's line was shut over a span: nothing much flowed. */
function shutOff(flow: Float64Array, { from, to }: { from: number; to: number }): boolean {
  const most = flow.reduce((highest, value) => (value > highest ? value : highest), 0);
  const third = Math.floor((to - from) / 3);
  return !(meanOf(flow, from + third, Math.max(from + 2, to - third)).mean > shutBelow * most);
}

/** A pump idles below this share of what its relief holds, so long after its start and before its line is shut, s. */
const idleBelow = 0.3;
const idleSettles = 1;
const leastIdle = 1;

/** Flow where the pump idles: before or after its line was shut, its pressure low and the pump turning; null where it never did. */
function idleFlow(trace: Trace, flow: Float64Array, pressure: Float64Array, shut: { from: number; to: number }) {
  const high = idleBelow * pressure[shut.from];
  const kept = flow.map((value, i) => {
    const t = trace.time[i];
    const clear =
      t < trace.time[shut.from] - idleSettles / 2 || t > trace.time[Math.min(shut.to, flow.length - 1)] + idleSettles;
    return clear && pressure[i] < high && t - trace.time[0] > idleSettles ? value : Number.NaN;
  });
  // A pump that is still to start, or has stopped, pumps nothing: only what flows is idling.
  const most = kept.reduce((highest, value) => (value > highest ? value : highest), 0);
  const running = kept.map((value) => (value > most / 4 ? value : Number.NaN));
  const idling = meanOf(running);
  return idling.count * sampleInterval(trace) >= leastIdle ? idling : null;
}

/** A relief that creeps over this share of its pressure while held, or goes to and fro by it, is told of. */
const creepShare = 0.02;
const chatterShare = 0.03;

/** How a relief held: steadily, creeping, or chattering. */
function reliefManner(
  trace: Trace,
  line: Float64Array,
  span: { from: number; to: number },
  level: number,
): AnalysisProblem[] {
  if (span.to - span.from < 10) return [];
  const fit = fitLine(trace.time, line, span);
  if (fit.termination !== 'converged') return [];
  const crept = Math.abs(fit.slope) * (trace.time[span.to - 1] - trace.time[span.from]);
  const chatter = 2 * Math.SQRT2 * fit.residual;
  return [
    ...(crept > creepShare * level ? [{ code: 'relief-creeps', by: crept } as const] : []),
    ...(chatter > chatterShare * level ? [{ code: 'relief-chatters', by: chatter } as const] : []),
  ];
}

export const returnPressure: Measured = {
  id: 'return-pressure',
  kind: 'measured',
  title: 'Return-line pressure',
  why: 'Back pressure in the return line stays in the booster and drags the brakes.',
  minutes: 3,
  cautions: ['running-engine', 'fluid-jet'],
  optional: false,
  characteristics: ['return-pressure'],
  needs: ['return_pressure'],
  uses: ['engine_on'],
  leastRows: 10,
  picture: { kind: 'over-time', channels: ['return_pressure'] },
  startsFrom: 'charged',
  guide: () => [wait({ code: 'rest', seconds: 2 }, off, 2), wait({ code: 'start-engine', seconds: 8 }, engineOn, 8)],
  analyse: (trace, context) =>
    analyseSteadyReading(trace, context, {
      id: 'return-pressure',
      channel: 'return_pressure',
      seconds: 4,
      while: 'engine_on',
    }),
  limits: (_analysis, { unit, workshopLimits }) => [
    atMost(
      'return-pressure',
      limitFrom(
        {
          field: 'returnPressureMaxKpa',
          value: unit.spec.returnPressureMaxKpa === undefined ? undefined : unit.spec.returnPressureMaxKpa * 1e3,
        },
        { key: 'returnPressure', value: workshopLimits.returnPressure },
      ),
    ),
  ],
  bands: ({ workshopLimits }) => ({ return_pressure: [0, workshopLimits.returnPressure] }),
};

/** A brake that asks for less than this share of the relief shows no starving. */
const boostedShare = 0.3;
/** The pump's line rises by this share of the relief when the wheel is held hard over. */
const steeringShows = 0.1;

/** Whether the pump's line rose while the brake was held. */
function steered(trace: Trace, hold: { readonly from: number; readonly to: number }, relief: number): boolean {
  const line = columnOf(trace, 'pump_pressure');
  if (!line) return false;
  const half = Math.max(1, Math.round(0.2 / sampleInterval(trace)));
  const part = movingMean(line.subarray(hold.from, hold.to), half);
  let [low, high] = [Infinity, -Infinity];
  for (const value of part) {
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return high - low > steeringShows * relief || low > (1 - 2 * steeringShows) * relief;
}

export const steeringShare: Measured = {
  id: 'steering-share',
  kind: 'measured',
  title: 'Steering and brake together',
  why: 'At idle neither may starve the other: foot held, wheel turned hard over, and the boost must stand.',
  minutes: 3,
  cautions: ['running-engine', 'vehicle-still'],
  optional: false,
  characteristics: ['boost-sag'],
  needs: ['boost_pressure', lever],
  uses: ['pump_pressure', 'output_pressure'],
  leastRows: 20,
  picture: { kind: 'over-time', channels: ['boost_pressure', 'output_pressure'] },
  startsFrom: 'charged',
  guide: ({ unit }) => {
    const level = holdForce(unit);
    return [
      wait({ code: 'start-engine', seconds: 2 }, engineOn, 2),
      {
        instruction: { code: 'pull-to-hold', channel: lever, level, seconds: 1 },
        controls: engineOn,
        lever: { to: level, seconds: 1.5 },
        end: { kind: 'input-held', level, tolerance: 0.1 * level, seconds: 1.5 },
      },
      wait({ code: 'steer-and-hold', seconds: 4 }, { ...engineOn, steer: 1 }, 4, level),
      wait({ code: 'hold-there', seconds: 1 }, engineOn, 1, level),
      {
        instruction: { code: 'let-go', channel: lever },
        controls: engineOn,
        lever: { to: 0, seconds: 0.5 },
        end: { kind: 'input-below', level: 8 },
      },
    ];
  },
  analyse: (trace, context): StepAnalysis => {
    const boost = columnOf(trace, 'boost_pressure');
    const force = columnOf(trace, lever);
    if (!boost || !force) return nothingMeasured(['boost-sag'], { code: 'channel-missing', channel: 'boost_pressure' });
    const hold = findStrokes(trace, force).at(-1);
    if (!hold) return nothingMeasured(['boost-sag'], { code: 'no-hold', channel: lever, seconds: 4 });
    const half = Math.max(1, Math.round(0.15 / sampleInterval(trace)));
    const smooth = movingMean(boost, half);
    if (!(smooth[Math.min(hold.from + 3 * half, hold.to - 1)] > boostedShare * context.unit.relief))
      return nothingMeasured(['boost-sag'], {
        code: 'too-little-pressure',
        channel: 'boost_pressure',
        pressure: smooth[Math.min(hold.from + 3 * half, hold.to - 1)],
        needed: boostedShare * context.unit.relief,
      });
    const before = meanOf(boost, hold.from, Math.min(hold.to, hold.from + 5 * half)).mean;
    let lowest = Infinity;
    for (let i = hold.from + 2 * half; i < hold.to - half; i++) lowest = Math.min(lowest, smooth[i]);
    const instrument = context.instruments.get('boost_pressure');
    return {
      characteristics: [
        measured('boost-sag', before - lowest, [
          random('noise', (2 * scatterOf({ value: boost })) / Math.sqrt(half)),
          ...(instrument
            ? [differenceResolution(instrument), ...differenceComponents(instrument, lowest, before, context.date)]
            : []),
        ]),
      ],
      events: [],
      notes: [],
      // Nobody who does not steer starves the brake.
      doubts: steered(trace, hold, context.unit.relief) ? [] : [{ code: 'steering-not-seen' }],
    };
  },
  limits: (_analysis, { unit, workshopLimits }) => [
    atMost(
      'boost-sag',
      { value: workshopLimits.boostSag * unit.relief, source: { kind: 'workshop', key: 'boostSag' } },
      { expected: 0 },
    ),
  ],
  bands: ({ unit }) => ({ boost_pressure: [unit.relief * 0.6, unit.relief] }),
};

/** Pedal force that asks for nearly all the pump can give, so that a starved pump shows, N. */
function holdForce(unit: HydraulicBoostUnit): number {
  const assist = assistForce(unit, unit.relief * 0.97);
  const knee = (assist - unit.jumpInForce + unit.servoRatio * unit.cutInForce) / (unit.servoRatio - 1);
  return knee / unit.pedalRatio;
}
