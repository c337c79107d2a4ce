import { differenceComponents, differenceResolution, random, systematic } from '../../instruments/uncertainty';
import { findPull, isPull } from '../../traces/pull';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import { movingMean } from '../../traces/smoothing';
import { absent, beyond, measured, nothingMeasured } from '../../procedure/analysis-result';
import { atMost, limitFrom } from '../../procedure/limit';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep } from '../../procedure/step-definition';
import { fullAngle, pressAngle, type PedalValveUnit } from './geometry';
import { wait } from '../../procedure/guide-phase';
import { lever, live, openOnce } from './step-parts';

type Measured = MeasuredStep<PedalValveUnit>;

/** A circuit is under pressure from this share of its regulated maximum on. */
const builtShare = 0.3;
/** Lag of a long thin line of which nothing is recorded, s: to nine tenths it makes 2.3 times as much. */
const longestLag = 0.2;
const toNineTenths = Math.log(10);
/** What of a recorded lag is not known. */
const recordShare = 0.4;

/** Time from the pedal's start to 90 % of what is held at last, s, of one circuit. */
function riseOf(
  trace: Trace,
  context: StepContext<PedalValveUnit>,
  channel: 'front_pressure' | 'rear_pressure',
  id: 'rise-time' | 'rise-time-2',
): Characteristic {
  const angle = columnOf(trace, lever);
  const column = columnOf(trace, channel);
  if (!angle || !column) return absent(id, { code: 'channel-missing', channel });
  const pull = findPull(trace, angle);
  if (!isPull(pull)) return absent(id, { code: 'no-step' });
  const interval = sampleInterval(trace);
  const smooth = movingMean(column, Math.max(1, Math.round(0.01 / interval)));
  const start = pull.restBefore.to;
  const zero = meanOf(column, pull.restBefore.from, pull.restBefore.to).mean;
  const held = meanOf(
    column,
    Math.max(pull.plateau.from, pull.plateau.to - Math.round(0.5 / interval)),
    pull.plateau.to,
  ).mean;
  const circuitMax = context.unit.regulatedMaximum;
  // A circuit that never built has no rise to be timed.
  if (!(held - zero > builtShare * circuitMax))
    return absent(id, { code: 'not-applied', channel, peak: held - zero, needed: builtShare * circuitMax });
  let begin = start;
  const threshold = (pull.zero ?? 0) + 0.1 * (pull.peak - (pull.zero ?? 0));
  while (begin < angle.length && angle[begin] < threshold) begin++;
  let end = begin;
  while (end < smooth.length && smooth[end] - zero < 0.9 * (held - zero)) end++;
  if (end >= pull.plateau.to) {
    const seconds = trace.time[Math.min(end, trace.time.length - 1)] - trace.time[begin];
    return beyond(id, 'above', { value: seconds, components: [] }, { code: 'no-step' });
  }
  // The stamp itself takes a moment, which nobody does twice alike.
  const seen = trace.time[end] - trace.time[begin];
  const timing = random('timing', Math.hypot(interval / Math.sqrt(6), 0.01));
  const recorded = context.instruments.get(channel)?.lagSeconds;
  if (recorded !== undefined)
    return measured(id, Math.max(0, seen - toNineTenths * recorded), [
      timing,
      systematic('timing', toNineTenths * recordShare * recorded),
    ]);
  // A line makes a rise longer, never shorter: what is quick is the circuit's own, what is slow may be the line's in part.
  const most = toNineTenths * longestLag;
  return seen <= most
    ? beyond(id, 'below', { value: seen, components: [timing] }, { code: 'line-in-rise', channel, seconds: most })
    : measured(id, seen - most / 2, [timing, systematic('timing', most / 2 / Math.sqrt(3))]);
}

export const stepResponse: Measured = {
  id: 'step-response',
  kind: 'measured',
  title: 'Quick application',
  why: 'A plugged orifice does not show in a slow press: stamp, hold, and see how long each circuit takes.',
  minutes: 2,
  cautions: ['fluid-jet', 'running-engine'],
  optional: false,
  characteristics: ['rise-time', 'rise-time-2'],
  ...openOnce,
  needs: [lever, 'front_pressure', 'rear_pressure'],
  uses: [],
  leastRows: 40,
  picture: { kind: 'over-time', channels: ['front_pressure', 'rear_pressure'] },
  startsFrom: 'charged',
  guide: ({ unit }) => {
    const top = pressAngle(unit);
    return [
      wait({ code: 'rest', seconds: 2 }, live, 2),
      {
        instruction: { code: 'stamp', channel: lever, level: top },
        controls: live,
        lever: { to: top, seconds: 0.1 },
        end: { kind: 'input-above', level: 0.9 * top },
      },
      wait({ code: 'hold-there', seconds: 5 }, live, 5, top),
      {
        instruction: { code: 'let-go', channel: lever },
        controls: live,
        lever: { to: 0, seconds: 0.2 },
        end: { kind: 'input-below', level: 0.3 },
      },
      wait({ code: 'rest', seconds: 3 }, live, 3),
    ];
  },
  analyse: (trace, context) => ({
    characteristics: [
      riseOf(trace, context, 'front_pressure', 'rise-time'),
      riseOf(trace, context, 'rear_pressure', 'rise-time-2'),
    ],
    events: [],
    notes: [],
  }),
  limits: (_analysis, { unit, workshopLimits }) => {
    const from = limitFrom(
      { field: 'riseTimeMaxS', value: unit.spec.riseTimeMaxS },
      { key: 'riseTime', value: workshopLimits.riseTime },
    );
    return [atMost('rise-time', from, { expected: 0.15 }), atMost('rise-time-2', from, { expected: 0.15 })];
  },
  bands: ({ unit }) => ({
    front_pressure: [unit.regulatedMaximum * 0.9, unit.regulatedMaximum * 1.1],
    rear_pressure: [unit.regulatedMaximum * 0.9, unit.regulatedMaximum * 1.1],
  }),
};

export const residual: Measured = {
  id: 'residual',
  kind: 'measured',
  title: 'Residual after release',
  why: 'What stays in a brake after release drags it: let go at once and read both circuits after some seconds.',
  minutes: 1,
  cautions: ['fluid-jet', 'running-engine'],
  optional: false,
  characteristics: ['front-residual', 'rear-residual'],
  ...openOnce,
  needs: [lever, 'front_pressure', 'rear_pressure'],
  uses: [],
  leastRows: 40,
  picture: { kind: 'over-time', channels: ['front_pressure', 'rear_pressure'] },
  startsFrom: 'charged',
  guide: ({ unit }) => [
    wait({ code: 'rest', seconds: 2 }, live, 2),
    {
      instruction: { code: 'pull-to-hold', channel: lever, level: fullAngle(unit), seconds: 1 },
      controls: live,
      lever: { to: fullAngle(unit), seconds: 2 },
      end: { kind: 'input-held', level: fullAngle(unit), tolerance: 1, seconds: 1.2 },
    },
    {
      instruction: { code: 'let-go', channel: lever },
      controls: live,
      lever: { to: 0, seconds: 0.2 },
      end: { kind: 'input-below', level: 0.3 },
    },
    wait({ code: 'rest', seconds: 4 }, live, 4),
  ],
  analyse: (trace, context): StepAnalysis => {
    const angle = columnOf(trace, lever);
    const pull = angle && findPull(trace, angle);
    if (!pull || !isPull(pull)) return nothingMeasured(['front-residual', 'rear-residual'], { code: 'no-angle' });
    const left = (
      channel: 'front_pressure' | 'rear_pressure',
      id: 'front-residual' | 'rear-residual',
    ): Characteristic => {
      const column = columnOf(trace, channel);
      if (!column) return absent(id, { code: 'channel-missing', channel });
      const zero = meanOf(column, pull.restBefore.from, pull.restBefore.to).mean;
      const held = meanOf(column, pull.plateau.from, pull.plateau.to).mean - zero;
      // What was never under pressure leaves none behind.
      if (!(held > builtShare * context.unit.regulatedMaximum))
        return absent(id, {
          code: 'not-applied',
          channel,
          peak: held,
          needed: builtShare * context.unit.regulatedMaximum,
        });
      const last = meanOf(column, column.length - Math.round(1 / sampleInterval(trace)));
      const instrument = context.instruments.get(channel);
      return measured(id, last.mean - zero, [
        random('noise', (Math.SQRT2 * last.deviation) / Math.sqrt(last.count)),
        ...(instrument
          ? [differenceResolution(instrument), ...differenceComponents(instrument, zero, last.mean, context.date)]
          : []),
      ]);
    };
    return {
      characteristics: [left('front_pressure', 'front-residual'), left('rear_pressure', 'rear-residual')],
      events: [],
      notes: [],
    };
  },
  limits: (_analysis, { unit, workshopLimits }) => {
    const from = limitFrom(
      {
        field: 'residualMaxKpa',
        value: unit.spec.residualMaxKpa === undefined ? undefined : unit.spec.residualMaxKpa * 1e3,
      },
      { key: 'residual', value: workshopLimits.residual },
    );
    return [atMost('front-residual', from, { expected: 0 }), atMost('rear-residual', from, { expected: 0 })];
  },
  bands: (context) => ({
    front_pressure: [0, context.workshopLimits.residual],
    rear_pressure: [0, context.workshopLimits.residual],
  }),
};
