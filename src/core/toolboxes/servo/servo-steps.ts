import { assistCurveEntry } from './assist-curve-entry';
import { unassistedCurveEntry } from './unassisted-curve-entry';
import { servoPicture } from './servo-curve';
import { analyseUnassistedCurve } from './unassisted-curve-analysis';
import { fedWith } from '../../procedure/question';
import { readingComponents } from '../../instruments/uncertainty';
import { findPull, isPull } from '../../traces/pull';
import { columnOf, meanOf, type Trace } from '../../traces/trace';
import { type GuidePhase, wait } from '../../procedure/guide-phase';
import type { BenchControls } from '../../physics/bench-controls';
import { type Limit, around, atMost, limitFrom } from '../../procedure/limit';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep } from '../../procedure/step-definition';
import type { ReadingBands } from '../../procedure/expected';
import { analyseAssistCurve, assistCurveCharacteristics } from './assist-curve-analysis';
import { masterPressure, pressureSlope } from './servo-law';
import {
  type PressureServo,
  type ServoSetup,
  servoOutput,
  servoKnee,
  servoPush,
  tolerancesOf,
  servoBand,
} from './pressure-servo';

/**
 * Shares of what a feed should be: below the first a push says nothing of the assist (what is being used of it must reach less than
 * what there is), above the last it is not one without.
 */
const leastSupply = { supply: 0.3, boost: 0.15 } as const;
const noSupply = 0.05;
/** Share of a feed that nobody recorded that it may be off, one sigma. */
const unrecorded = 0.15;

/** Assist curve and unassisted curve of a servo that is fed by a pressure: the same steps for every family that has them. */
export function servoSteps<Unit extends PressureServo>(setup: ServoSetup<Unit>) {
  type Context = StepContext<Unit>;
  const { lever } = setup;
  const pushTo = (level: number, seconds: number, controls: Partial<BenchControls>): GuidePhase => ({
    instruction: { code: 'pull-slowly-past', channel: lever, level },
    controls,
    lever: { to: level * 1.02, seconds },
    end: { kind: 'input-above', level },
  });
  const letBack = (seconds: number, controls: Partial<BenchControls>): GuidePhase => ({
    instruction: { code: 'let-back-slowly', channel: lever },
    controls,
    lever: { to: 0, seconds },
    end: { kind: 'input-below', level: 10 },
  });

  /** Feed pressure while the lever was held at its highest, which the knee belongs to. */
  function fedAt(trace: Trace): number | undefined {
    const force = columnOf(trace, lever);
    const feed = columnOf(trace, setup.feed);
    if (!force || !feed || setup.feedShows === 'boost') return undefined;
    const pull = findPull(trace, force);
    if (!isPull(pull)) return undefined;
    const { from, to } = setup.feedAtTop ? pull.plateau : pull.apply;
    const { mean, count } = meanOf(feed, from, to);
    return count > 0 ? mean : undefined;
  }

  const assistCurve: MeasuredStep<Unit> = {
    id: 'assist-curve',
    kind: 'measured',
    title: 'Assist curve',
    why: 'One even push finds cut-in, jump-in, slope, run-out and the way back.',
    minutes: 3,
    cautions: ['fluid-jet', ...setup.cautions],
    optional: false,
    characteristics: assistCurveCharacteristics,
    ...(setup.guards ? { interlock: setup.guards.powered, brings: setup.guards.brings } : {}),
    feeds: {
      log: {
        needs: [lever, 'output_pressure'],
        uses: [setup.feed],
        leastRows: 60,
        bandwidth: 20,
      },
      live: {
        startsFrom: setup.startsFrom,
        guide: (context) => {
          const top = servoPush(setup, context.unit, setup.supply(context));
          return [
            wait({ code: 'rest', seconds: 3 }, setup.controls, 3, 0),
            pushTo(top, 28, setup.controls),
            wait({ code: 'hold-there', seconds: 2 }, setup.controls, 2, top * 1.02),
            letBack(22, setup.controls),
            wait({ code: 'rest', seconds: 2.5 }, setup.controls, 2.5, 0),
          ];
        },
        bands: (context, readings): ReadingBands => {
          const lowest = setup.feedShows === 'boost' ? 0 : 0.75;
          const fed: ReadingBands = { [setup.feed]: [setup.supply(context) * lowest, setup.supply(context) * 1.05] };
          const force = readings[lever];
          if (force === undefined) return fed;
          const seen = setup.feedShows === 'supply' ? readings[setup.feed] : undefined;
          const pressure = seen ?? setup.supply(context);
          const at = { lever: Math.max(0, force), pressure };
          const [low, high] = servoBand(setup, context.unit, at, context.workshopLimits);
          return {
            ...fed,
            output_pressure: [low, Math.max(high, servoOutput(setup, context.unit, at.lever, pressure, 'way-back'))],
          };
        },
      },
      dials: assistCurveEntry<Unit>({
        lever,
        supply:
          setup.feedShows === 'supply'
            ? { channel: setup.feed, least: (context) => leastSupply.supply * setup.supply(context), set: setup.supply }
            : null,
        vacuumFed: false,
        unassistedSlope: (unit) => pressureSlope(unit, 1) * setup.leverage(unit),
        cutIn: (unit) => unit.cutInForce / setup.leverage(unit),
        knee: (context, supply) => servoKnee(setup, context.unit, supply ?? setup.supply(context)),
        band: (context, force, supply) => {
          const at = { lever: Math.max(0, force), pressure: supply ?? setup.supply(context) };
          const [low, high] = servoBand(setup, context.unit, at, context.workshopLimits);
          return [low, Math.max(high, servoOutput(setup, context.unit, at.lever, at.pressure, 'way-back'))];
        },
      }),
    },
    analyse: (trace, context) => {
      const fed = fedAt(trace);
      const analysis = analyseAssistCurve(trace, context, {
        lever,
        supply: { channel: setup.feed, least: leastSupply[setup.feedShows] * setup.supply(context) },
        vacuumFed: false,
        unassistedSlope: pressureSlope(context.unit, 1) * setup.leverage(context.unit),
        cutInForce: context.unit.cutInForce / setup.leverage(context.unit),
        runOutForce: () => servoKnee(setup, context.unit, fed ?? setup.supply(context)),
      });
      return fed === undefined ? analysis : fedWith(analysis, fed);
    },
    limits: (analysis, context): Limit[] => {
      const { unit, workshopLimits: shop } = context;
      const leverage = setup.leverage(unit);
      const tolerances = tolerancesOf(unit, shop);
      const pressure = analysis.vacuum ?? setup.supply(context);
      const knee = servoKnee(setup, unit, pressure);
      const instrument = context.instruments.get(setup.feed);
      // Force of run-out to each unit of the feed, at the feed that there was.
      const step = 0.02 * pressure;
      const perFeed =
        (setup.assist(unit, pressure) - setup.assist(unit, pressure - step)) / step / (unit.servoRatio - 1) / leverage;
      const unread = analysis.vacuum === undefined && setup.feedShows === 'supply';
      const feedStandard = unread
        ? unrecorded * pressure
        : instrument
          ? Math.hypot(...readingComponents(instrument, pressure, context.date).map((part) => part.standard))
          : 0;
      return [
        around('cut-in-force', unit.cutInForce / leverage, tolerances.cutIn),
        around('jump-in-output', masterPressure(unit, unit.jumpInForce), tolerances.jumpIn),
        around('force-slope', pressureSlope(unit, unit.servoRatio) * leverage, tolerances.slope),
        ...(knee === null ? [] : [around('run-out-force', knee, tolerances.runOut, perFeed * feedStandard)]),
        ...(unit.hysteresis > 0 || unit.spec.hysteresisMaxN !== undefined
          ? [
              atMost(
                'force-hysteresis',
                limitFrom(
                  {
                    field: 'hysteresisMaxN',
                    value: unit.spec.hysteresisMaxN === undefined ? undefined : unit.spec.hysteresisMaxN / leverage,
                  },
                  { key: 'hysteresisFactor', value: (shop.hysteresisFactor * unit.hysteresis) / leverage },
                ),
                { expected: unit.hysteresis / leverage },
              ),
            ]
          : []),
      ];
    },
    pictures: [servoPicture(setup)],
  };

  const unassistedTop = (context: Context) => {
    const { unit } = context;
    return Math.max(900, -setup.assist(unit, 0) + 800) / setup.leverage(unit);
  };

  const unassistedCurve: MeasuredStep<Unit> = {
    id: 'unassisted-curve',
    kind: 'measured',
    title: 'Curve without power',
    why: 'With nothing in store the foot alone must still reach the master cylinder: what stops the vehicle when all else is lost.',
    minutes: 2,
    cautions: ['fluid-jet'],
    optional: false,
    characteristics: ['unassisted-slope'],
    ...(setup.guards ? { interlock: setup.guards.unpowered } : {}),
    feeds: {
      log: {
        needs: [lever, 'output_pressure'],
        uses: [setup.feed],
        leastRows: 40,
        bandwidth: 20,
      },
      live: {
        startsFrom: 'empty',
        guide: (context) => [
          setup.feedOff ?? wait({ code: 'rest', seconds: 1.5 }, {}, 1.5, 0),
          pushTo(unassistedTop(context), 14, {}),
          letBack(4, {}),
          wait({ code: 'rest', seconds: 1.5 }, {}, 1.5, 0),
        ],
        bands: (context, readings): ReadingBands => {
          const force = readings[lever];
          if (force === undefined) return {};
          const expected = servoOutput(setup, context.unit, Math.max(0, force), 0);
          return { output_pressure: [expected * 0.85, expected * 1.15] };
        },
      },
      dials: unassistedCurveEntry<Unit>({
        lever,
        expectedAt: ({ unit }, force) => servoOutput(setup, unit, Math.max(0, force), 0),
      }),
    },
    analyse: (trace, context) =>
      analyseUnassistedCurve(trace, context, {
        lever,
        expectedAt: (force) => servoOutput(setup, context.unit, force, 0),
        off: { channel: setup.feed, most: noSupply * setup.supply(context) },
      }),
    limits: (_analysis, context): Limit[] => [
      around(
        'unassisted-slope',
        pressureSlope(context.unit, 1) * setup.leverage(context.unit),
        tolerancesOf(context.unit, context.workshopLimits).slope,
      ),
    ],
    pictures: [{ kind: 'over-time', channels: [lever, 'output_pressure'] }],
  };

  return { assistCurve, unassistedCurve };
}
