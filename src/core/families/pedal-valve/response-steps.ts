import { residualOutput } from '../../toolboxes/analysis/release-analysis';
import { random, systematic } from '../../instruments/uncertainty';
import { findPull, isPull, type Pull } from '../../traces/pull';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import { movingMean } from '../../traces/smoothing';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { beyond, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, joinAnswers, type Question } from '../../procedure/question';
import { atMost, limitFrom } from '../../procedure/limit';
import type { Characteristic } from '../../procedure/step-analysis';
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

type Circuit = 'front_pressure' | 'rear_pressure';
type Context = StepContext<PedalValveUnit>;

/** A pedal that was pressed and held, and what one circuit did: pressures Pa gauge above its zero. */
interface Pressed {
  readonly trace: Trace;
  readonly pull: Pull;
  readonly zero: number;
  readonly held: number;
}

/** What a circuit did while the pedal was pressed; `lastSeconds` of the hold are read, all of it where left out. */
function findPressed(
  trace: Trace,
  channel: Circuit,
  notPulled: AnalysisProblem,
  lastSeconds = Infinity,
): Pressed | NoEvidence {
  const angle = columnOf(trace, lever);
  const column = columnOf(trace, channel);
  if (!angle || !column) return noEvidence({ code: 'channel-missing', channel: angle ? channel : lever });
  const pull = findPull(trace, angle);
  if (!isPull(pull)) return noEvidence(notPulled);
  const { plateau, restBefore } = pull;
  const zero = meanOf(column, restBefore.from, restBefore.to).mean;
  const from = Math.max(plateau.from, plateau.to - Math.round(lastSeconds / sampleInterval(trace)));
  return { trace, pull, zero, held: meanOf(column, from, plateau.to).mean - zero };
}

/** What was never under pressure has no rise to be timed and leaves nothing behind. */
function pressedEvidence(found: Pressed, channel: Circuit, { unit }: Context): Judged<Pressed> {
  const needed = builtShare * unit.regulatedMaximum;
  return found.held > needed ? evidence(found) : noEvidence({ code: 'not-applied', channel, peak: found.held, needed });
}

/** Time from the pedal's start to 90 % of what is held at last, s, of one circuit. */
function riseQuestion(channel: Circuit, id: 'rise-time' | 'rise-time@rear'): Question<Context, Pressed, Pressed> {
  return {
    characteristics: [id],
    happened: (trace) => findPressed(trace, channel, { code: 'no-step' }, 0.5),
    shows: (found, context) => pressedEvidence(found, channel, context),
    comesTo: (shown, context) => ({
      characteristics: [riseOf(shown, context, channel, id)],
      events: [],
      notes: [],
    }),
  };
}

function riseOf(
  { trace, pull, zero, held }: Evidence<Pressed>,
  context: Context,
  channel: Circuit,
  id: 'rise-time' | 'rise-time@rear',
): Characteristic {
  const angle = trace.columns[lever];
  const interval = sampleInterval(trace);
  const smooth = movingMean(trace.columns[channel], Math.max(1, Math.round(0.01 / interval)));
  let begin = pull.restBefore.to;
  const threshold = (pull.zero ?? 0) + 0.1 * (pull.peak - (pull.zero ?? 0));
  while (begin < angle.length && angle[begin] < threshold) begin++;
  let end = begin;
  while (end < smooth.length && smooth[end] - zero < 0.9 * held) end++;
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

/** What one circuit holds at the end of a trace, above its zero, Pa. */
function residualQuestion(
  channel: Circuit,
  id: 'port-residual' | 'port-residual@rear',
): Question<Context, Pressed, Pressed> {
  return {
    characteristics: [id],
    happened: (trace) => findPressed(trace, channel, { code: 'no-angle' }),
    shows: (found, context) => pressedEvidence(found, channel, context),
    comesTo: ({ trace, zero }, context) => ({
      characteristics: [residualOutput(trace, context, { zero, channel, id })],
      events: [],
      notes: [],
    }),
  };
}

export const stepResponse: Measured = {
  id: 'step-response',
  kind: 'measured',
  title: 'Quick application',
  why: 'A plugged orifice does not show in a slow press: stamp, hold, and see how long each circuit takes.',
  minutes: 2,
  cautions: ['fluid-jet', 'running-engine'],
  optional: false,
  characteristics: ['rise-time', 'rise-time@rear'],
  ...openOnce,
  feeds: {
    log: {
      needs: [lever, 'front_pressure', 'rear_pressure'],
      uses: [],
      leastRows: 40,
    },
    live: {
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
      bands: ({ unit }) => ({
        front_pressure: [unit.regulatedMaximum * 0.9, unit.regulatedMaximum * 1.1],
        rear_pressure: [unit.regulatedMaximum * 0.9, unit.regulatedMaximum * 1.1],
      }),
    },
  },
  analyse: (trace, context) =>
    joinAnswers([
      answer(riseQuestion('front_pressure', 'rise-time'), trace, context),
      answer(riseQuestion('rear_pressure', 'rise-time@rear'), trace, context),
    ]),
  limits: (_analysis, { unit, workshopLimits }) => {
    const from = limitFrom(
      { field: 'riseTimeMaxS', value: unit.spec.riseTimeMaxS },
      { key: 'riseTime', value: workshopLimits.riseTime },
    );
    return [atMost('rise-time', from, { expected: 0.15 }), atMost('rise-time@rear', from, { expected: 0.15 })];
  },
  pictures: [{ kind: 'over-time', channels: ['front_pressure', 'rear_pressure'] }],
};

export const residual: Measured = {
  id: 'residual',
  kind: 'measured',
  title: 'Residual after release',
  why: 'What stays in a brake after release drags it: let go at once and read both circuits after some seconds.',
  minutes: 1,
  cautions: ['fluid-jet', 'running-engine'],
  optional: false,
  characteristics: ['port-residual', 'port-residual@rear'],
  ...openOnce,
  feeds: {
    log: {
      needs: [lever, 'front_pressure', 'rear_pressure'],
      uses: [],
      leastRows: 40,
    },
    live: {
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
      bands: (context) => ({
        front_pressure: [0, context.workshopLimits.residual],
        rear_pressure: [0, context.workshopLimits.residual],
      }),
    },
  },
  analyse: (trace, context) =>
    joinAnswers([
      answer(residualQuestion('front_pressure', 'port-residual'), trace, context),
      answer(residualQuestion('rear_pressure', 'port-residual@rear'), trace, context),
    ]),
  limits: (_analysis, { unit, workshopLimits }) => {
    const from = limitFrom(
      {
        field: 'residualMaxKpa',
        value: unit.spec.residualMaxKpa === undefined ? undefined : unit.spec.residualMaxKpa * 1e3,
      },
      { key: 'residual', value: workshopLimits.residual },
    );
    return [atMost('port-residual', from, { expected: 0 }), atMost('port-residual@rear', from, { expected: 0 })];
  },
  pictures: [{ kind: 'over-time', channels: ['front_pressure', 'rear_pressure'] }],
};
