import { timedAsked, timedFigure } from '../../dials/timed';
import { entryFromOnce, entryFromReadings } from '../../dials/from-readings';
import { onGauge } from '../../dials/asked';
import { residualOutput } from '../../toolboxes/analysis/release-analysis';
import {
  findPressed,
  pressedEvidence,
  riseQuestion,
  type Pressed,
  type PressSetup,
} from '../../toolboxes/analysis/rise-analysis';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { answer, joinAnswers, type Question } from '../../procedure/question';
import { atMost, limitFrom } from '../../procedure/limit';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep } from '../../procedure/step-definition';
import { fullAngle, pressAngle, type PedalValveUnit } from './geometry';
import { wait } from '../../procedure/guide-phase';
import { lever, live, openOnce } from './step-parts';

type Measured = MeasuredStep<PedalValveUnit>;

/** A circuit is under pressure from this share of its regulated maximum on. */
const builtShare = 0.3;

type Circuit = 'front_pressure' | 'rear_pressure';
type Context = StepContext<PedalValveUnit>;

const pressOf =
  (channel: Circuit, notPulled: AnalysisProblem) =>
  ({ unit }: Context): PressSetup => ({ lever, channel, notPulled, needed: builtShare * unit.regulatedMaximum });

/** Time from the pedal's start to 90 % of what is held at last, s, of one circuit. */
const riseOf = (channel: Circuit, id: 'rise-time' | 'rise-time@rear') =>
  riseQuestion(id, pressOf(channel, { code: 'no-step' }));

/** What one circuit holds at the end of a trace, above its zero, Pa. */
function residualQuestion(
  channel: Circuit,
  id: 'port-residual' | 'port-residual@rear',
): Question<Context, Pressed, Pressed> {
  const press = pressOf(channel, { code: 'no-angle' });
  return {
    characteristics: [id],
    happened: (trace, context) => findPressed(trace, press(context)),
    shows: (found, context) => pressedEvidence(found, press(context)),
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
    dials: entryFromReadings<PedalValveUnit>({
      characteristics: () => ['rise-time', 'rise-time@rear'],
      once: () => [
        ...timedAsked('front-up', 'Front: from stamping until it stands'),
        ...timedAsked('rear-up', 'Rear: from stamping until it stands'),
      ],
      reckon: ({ once }) => {
        const front = timedFigure(once, 'front-up', 'rise-time');
        const rear = timedFigure(once, 'rear-up', 'rise-time@rear');
        return {
          figures: (moved) => ({ 'rise-time': front.of(moved.once), 'rise-time@rear': rear.of(moved.once) }),
          bounds: { ...front.bounds, ...rear.bounds },
        };
      },
    }),
  },
  analyse: (trace, context) =>
    joinAnswers([
      answer(riseOf('front_pressure', 'rise-time'), trace, context),
      answer(riseOf('rear_pressure', 'rise-time@rear'), trace, context),
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
    dials: entryFromOnce<PedalValveUnit>(
      ['port-residual', 'port-residual@rear'],
      () => [
        onGauge('front-before', 'front_pressure', 'Front before the push'),
        onGauge('rear-before', 'rear_pressure', 'Rear before the push'),
        onGauge('front-after', 'front_pressure', 'Front some seconds after letting go'),
        onGauge('rear-after', 'rear_pressure', 'Rear some seconds after letting go'),
      ],
      (read) => ({
        'port-residual': read['front-after'] - read['front-before'],
        'port-residual@rear': read['rear-after'] - read['rear-before'],
      }),
      {
        'port-residual': ['front-after', '−', 'front-before'],
        'port-residual@rear': ['rear-after', '−', 'rear-before'],
      },
    ),
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
