import { pressureOfFoot } from '../../calculators/brake-force';
import { fitLine, lineAt } from '../../fitting/line';
import { random, readingComponents, systematic } from '../../instruments/uncertainty';
import { absent, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { wait } from '../../procedure/guide-phase';
import type { Limit } from '../../procedure/limit';
import { answer, type Question } from '../../procedure/question';
import type { StepAnalysis } from '../../procedure/step-analysis';
import { findPull, isPull } from '../../traces/pull';
import { ownSamples, samplesBetween } from '../../traces/own-samples';
import { together } from '../../traces/together';
import { columnOf, type Trace } from '../../traces/trace';
import { wheels } from './geometry';
import { feedOff, lever, provedSafe, unplugged, type Context, type Measured } from './step-parts';

const { hypot, max, min, sqrt } = Math;

/** The line is drawn through what lies this share around the force. */
const around = 0.1;
const fewestPoints = 6;
/** Pressed more quickly than this, s, the brakes are still filling. */
const slowEnough = 2;
/** The feed is off below this share of its voltage. */
const offShare = 0.2;
/** Pushed so far beyond the force that is judged, as a share of it. */
const beyondForce = 1.15;

const axles = [
  ['fl', 'fr'],
  ['rl', 'rr'],
] as const;

/** Brakes fill, and lines follow, up to so much later than a foot presses, s. */
const latest = 0.1;

/** Pedal force (N) and both axles' pressures (Pa gauge) while the pedal was pressed. */
interface ByFoot {
  readonly time: Float64Array;
  readonly force: Float64Array;
  readonly axles: readonly { readonly pressure: Float64Array; readonly channels: readonly string[] }[];
  readonly peak: number;
  readonly seconds: number;
  /** V at the unit's terminals; null where nobody recorded it. */
  readonly voltage: number | null;
  readonly keyOn: boolean | null;
  readonly missing: readonly string[];
}

function findByFoot(trace: Trace): ByFoot | NoEvidence {
  if (!columnOf(trace, lever)) return noEvidence({ code: 'channel-missing', channel: lever });
  const recorded = wheels.map((wheel) => `wheel_pressure_${wheel}`).filter((channel) => columnOf(trace, channel));
  if (recorded.length === 0) return noEvidence({ code: 'channel-missing', channel: 'wheel_pressure_rl' });
  const rows = together(trace, [lever, ...recorded]);
  const pull = findPull(rows, rows.columns[lever]);
  if (!isPull(pull)) return noEvidence({ code: 'no-pull', channel: lever });
  const { restBefore, plateau } = pull;
  const [from, to] = [restBefore.to, plateau.to];
  const zero = pull.zero ?? 0;
  // On its own samples: a slow column's holes are not its noughts.
  const over = (channel: string) => {
    const column = columnOf(trace, channel);
    if (!column) return null;
    const { value } = samplesBetween(ownSamples(trace, column), rows.time[from], rows.time[to - 1]);
    return value.length === 0 ? null : value.reduce((sum, each) => sum + each, 0) / value.length;
  };
  const key = over('ignition_on');
  return {
    time: rows.time.subarray(from, to),
    force: rows.columns[lever].subarray(from, to).map((value) => value - zero),
    axles: axles.flatMap((pair) => {
      const channels = pair.map((wheel) => `wheel_pressure_${wheel}`).filter((channel) => recorded.includes(channel));
      if (channels.length === 0) return [];
      const columns = channels.map((channel) => rows.columns[channel].subarray(from, to));
      return [
        {
          channels,
          pressure: columns[0].map((_, i) => columns.reduce((sum, each) => sum + each[i], 0) / columns.length),
        },
      ];
    }),
    peak: pull.peak - zero,
    seconds: rows.time[min(plateau.from, rows.time.length - 1)] - rows.time[from],
    voltage: over('supply_voltage'),
    keyOn: key === null ? null : key > 0.5,
    missing: wheels.map((wheel) => `wheel_pressure_${wheel}`).filter((channel) => !recorded.includes(channel)),
  };
}

function byFootEvidence(found: ByFoot, { unit }: Context): Judged<ByFoot> {
  const { voltage, keyOn, peak, seconds } = found;
  const live = voltage === null ? keyOn === true : voltage > offShare * unit.ratedVoltage && keyOn !== false;
  if (live)
    return noEvidence({ code: 'supply-not-off', channel: 'supply_voltage', left: voltage ?? unit.ratedVoltage });
  if (peak < unit.fallbackForce)
    return noEvidence({ code: 'reference-not-reached', reference: unit.fallbackForce, peak });
  if (seconds < slowEnough) return noEvidence({ code: 'pulled-too-quickly', seconds, needed: slowEnough });
  const doubts = [
    ...(voltage === null && keyOn === null ? [{ code: 'power-not-seen' } as const] : []),
    ...found.missing.map((channel) => ({ code: 'channel-missing', channel }) as const),
  ];
  return evidence(found, [], doubts);
}

/** How quickly the foot went from one force to another, N/s. */
function speedBetween({ time, force }: ByFoot, from: number, to: number): number {
  const [begins, ends] = [force.findIndex((each) => each >= from), force.findIndex((each) => each >= to)];
  const last = ends < 0 ? force.length - 1 : ends;
  const seconds = time[last] - time[max(0, begins)];
  return seconds > 0 ? (force[last] - force[max(0, begins)]) / seconds : 0;
}

function pressureOf(shown: Evidence<ByFoot>, context: Context): StepAnalysis {
  const { unit } = context;
  const at = unit.fallbackForce;
  const [from, to] = [at * (1 - around), at * (1 + around)];
  const lines = shown.axles.map(({ pressure, channels }) => {
    const line = fitLine(shown.force, pressure, { keep: (i) => shown.force[i] >= from && shown.force[i] <= to });
    return { line, channels, ...lineAt(line, at) };
  });
  const short = lines.find(({ line }) => line.count < fewestPoints || line.termination !== 'converged');
  const none = (problem: Parameters<typeof absent>[1]) => ({
    characteristics: [absent('fallback-pressure', problem)],
    events: [],
    notes: [],
  });
  if (short)
    return none({
      code: 'too-few-samples',
      channel: short.channels[0],
      samples: short.line.count,
      needed: fewestPoints,
    });
  const lower = lines.reduce((p, q) => (q.value < p.value ? q : p));
  const gauge = context.instruments.get(lower.channels[0]);
  const cell = context.instruments.get(lever);
  const slope = lower.line.slope;
  const ofGauge = gauge
    ? hypot(...readingComponents(gauge, lower.value, context.date).map((part) => part.standard))
    : 0;
  const ofCell = cell ? hypot(...readingComponents(cell, at, context.date).map((part) => part.standard)) : 0;
  const parts = [
    random('fit', sqrt(lower.variance)),
    systematic('gauge-gain', ofGauge / sqrt(lower.channels.length)),
    systematic('gauge-gain', slope * ofCell),
    systematic('timing', (slope * speedBetween(shown, from, to) * latest) / sqrt(3)),
  ];
  // More than a foot can give without any loss at all was helped.
  const lossless = (at * unit.pedalRatio) / unit.masterArea;
  if (lower.value - 2 * hypot(...parts.map((part) => part.standard)) > lossless)
    return none({ code: 'more-than-the-foot', pressure: lower.value, most: lossless });
  return { characteristics: [measured('fallback-pressure', lower.value, parts)], events: [], notes: [] };
}

const question: Question<Context, ByFoot, ByFoot> = {
  characteristics: ['fallback-pressure'],
  happened: findByFoot,
  shows: byFootEvidence,
  comesTo: pressureOf,
};

/** What the foot alone reaches at the wheels once everything else is gone. */
export const fallback: Measured = {
  id: 'fallback',
  kind: 'measured',
  title: 'By the foot alone',
  why: 'Power gone, the pedal’s circuit is joined to the wheels again: what then stops the vehicle is measured.',
  minutes: 3,
  cautions: ['fluid-jet', 'service-mode'],
  optional: false,
  characteristics: ['fallback-pressure'],
  interlock: provedSafe.interlock,
  feeds: {
    log: {
      needs: [lever],
      uses: [...wheels.map((wheel) => `wheel_pressure_${wheel}`), 'supply_voltage', 'ignition_on', 'master_pressure'],
      leastRows: 40,
    },
    live: {
      startsFrom: 'empty',
      guide: ({ unit }) => {
        const level = unit.fallbackForce * beyondForce;
        return [
          feedOff,
          {
            instruction: { code: 'pull-slowly-past', channel: lever, level },
            controls: unplugged,
            lever: { to: level * 1.02, seconds: 12 },
            end: { kind: 'input-above', level },
          },
          {
            instruction: { code: 'let-back-slowly', channel: lever },
            controls: unplugged,
            lever: { to: 0, seconds: 4 },
            end: { kind: 'input-below', level: 10 },
          },
          wait({ code: 'rest', seconds: 1.5 }, unplugged, 1.5),
        ];
      },
      bands: (context, readings) => {
        const force = readings[lever];
        if (force === undefined) return {};
        const pressure = pressureOfFoot(context.unit, max(0, force));
        return Object.fromEntries(
          wheels.map((wheel) => [`wheel_pressure_${wheel}`, [pressure * 0.85, pressure * 1.15 + 50e3]] as const),
        );
      },
    },
  },
  analyse: (trace, context) => answer(question, trace, context),
  limits: (_analysis, { unit, workshopLimits }): Limit[] => {
    const expected = pressureOfFoot(unit, unit.fallbackForce);
    const least = unit.fallbackLeast;
    return [
      {
        characteristic: 'fallback-pressure',
        low: least ? least.value : expected * (1 - workshopLimits.fallbackShortfall),
        high: null,
        expected,
        standard: 0,
        source: least ? { kind: 'sheet', field: least.field } : { kind: 'workshop', key: 'fallbackShortfall' },
      },
    ];
  },
  pictures: [{ kind: 'over-time', channels: ['wheel_pressure_fl', 'wheel_pressure_rl'] }],
};
