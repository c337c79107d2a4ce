import { footRange } from '../../dials/foot';
import { forcePairEntry } from '../../toolboxes/foundation/force-pair-entry';
import { pressureOfFoot } from '../../calculators/brake-force';
import { expandedUncertainty, scaleComponents, systematic, type Estimate } from '../../instruments/uncertainty';
import { absent, beyond, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { around } from '../../procedure/limit';
import { answer, type Question } from '../../procedure/question';
import { columnOf, meanOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { FoundationUnit } from './geometry';
import { heldPressure, heldPushes, restOf, type HeldPush } from './held-pushes';
import {
  engineOff,
  engineOn,
  firmFoot,
  pedal,
  pressAndHold,
  startEngine,
  stopEngine,
  type Context,
  type Measured,
} from './step-parts';

/** Feet that differ by more than this share make no pair. */
const samePush = 0.05;
/** Two pressures that differ by less than this are one and the same: nothing assisted either. */
const apart = 1.15;
/** Where the pressure is read: at the master cylinder, else at the front axle. */
const gauges = ['master_pressure', 'front_pressure'] as const;
/** A foot gives no more than its levers make of it, and so much more that was read wrong. */
const mostOfFoot = 1.1;

interface Pair {
  readonly trace: Trace;
  readonly gauge: (typeof gauges)[number];
  /** Where its gauge stood before the foot came, Pa gauge. */
  readonly zero: number;
  /** Without assist, with it. */
  readonly pushes: readonly [HeldPush, HeldPush];
  /** Whether the log says with which of them the engine ran. */
  readonly engine: 'recorded' | 'not-recorded';
}

interface ShownPair extends Pair {
  /** More than any foot makes by itself: the low push was helped as well, and is neither. */
  readonly helped: AnalysisProblem | null;
  readonly low: Estimate;
  readonly high: Estimate;
}

function findPair(trace: Trace): Pair | NoEvidence {
  const gauge = gauges.find((channel) => columnOf(trace, channel));
  if (!gauge) return noEvidence({ code: 'channel-missing', channel: gauges[0] });
  if (!columnOf(trace, pedal)) return noEvidence({ code: 'channel-missing', channel: pedal });
  const pushes = heldPushes(trace, pedal);
  if (pushes.length < 2) return noEvidence({ code: 'too-few-strokes', strokes: pushes.length, needed: 2 });
  const found = { trace, gauge, zero: restOf(trace, gauge, pushes[0]) };
  const engine = columnOf(trace, 'engine_on');
  return engine ? pairByEngine(found, pushes, engine) : pairByPressure(found, pushes);
}

type PairOf = Pick<Pair, 'trace' | 'gauge' | 'zero'>;

/** The last push of either kind: what is left of the vacuum is used up by the ones before it. */
function pairByEngine(of: PairOf, pushes: readonly HeldPush[], engine: Float64Array): Pair | NoEvidence {
  const runs = ({ from, to }: HeldPush) => meanOf(engine, from, to).mean > 0.5;
  const [off, on] = [pushes.filter((push) => !runs(push)).at(-1), pushes.filter(runs).at(-1)];
  if (!on) return noEvidence({ code: 'engine-not-started' });
  if (!off) return noEvidence({ code: 'engine-not-stopped' });
  return { ...of, pushes: [off, on], engine: 'recorded' };
}

/** The pushes that gave least and most for the foot that was on them. */
function pairByPressure(of: PairOf, pushes: readonly HeldPush[]): Pair {
  const column = of.trace.columns[of.gauge];
  const gives = ({ from, to, force }: HeldPush) => (meanOf(column, from, to).mean - of.zero) / force;
  const sorted = pushes.toSorted((a, b) => gives(a) - gives(b));
  return { ...of, pushes: [sorted[0], sorted[sorted.length - 1]], engine: 'not-recorded' };
}

function pairEvidence(pair: Pair, context: Context): Judged<ShownPair> {
  const { trace, gauge, zero, pushes } = pair;
  const [first, last] = pushes;
  const differ = Math.abs(first.force - last.force) / Math.max(first.force, last.force);
  if (differ > samePush) return noEvidence({ code: 'foot-not-still', share: differ });
  const [low, high] = pushes.map((push) => heldPressure(trace, gauge, push, zero, context));
  if (!(low.value > 0)) return noEvidence({ code: 'unassisted-too-small', pressure: low.value });
  const most =
    mostOfFoot * pressureOfFoot({ ...context.unit.master, linkageEfficiency: 1, masterEfficiency: 1 }, first.force);
  const beyondFoot = low.value - expandedUncertainty(low) > most;
  const helped: AnalysisProblem | null = beyondFoot ? { code: 'more-than-the-foot', pressure: low.value, most } : null;
  const alike: AnalysisProblem[] = high.value < apart * low.value ? [{ code: 'nothing-assisted' }] : [];
  return evidence({ ...pair, helped, low, high }, alike, helped ? [helped] : []);
}

/**
 * What the ratio may be at a foot (N), by what the sheet allows at its own: assist that grows with the foot gives no less at more of it,
 * and no more at less, whatever its jump-in and run-out are; what the foot makes by itself is known at both.
 */
export function ratioWindow(
  unit: FoundationUnit,
  pedalForce: number,
): { readonly low: number; readonly high: number | null } {
  const own = pressureOfFoot(unit.master, unit.ratioForce) / pressureOfFoot(unit.master, pedalForce);
  return {
    low: Math.max(1, unit.ratioLeast * Math.min(1, own)),
    // A foot that only takes up the springs makes nothing that anything could be a multiple of.
    high: Number.isFinite(own) ? unit.ratioMost * Math.max(1, own) : null,
  };
}

/** What lies within any of some windows. */
function widest(windows: readonly ReturnType<typeof ratioWindow>[]): ReturnType<typeof ratioWindow> {
  const highs = windows.map(({ high }) => high);
  return {
    low: Math.min(...windows.map(({ low }) => low)),
    high: highs.some((high) => high === null) ? null : Math.max(...highs.map((high) => high ?? 0)),
  };
}

/**
 * What the unit made of the foot. Where the low push was helped too, or nobody recorded with which of them the engine ran, a ratio that is
 * too small may be one of two pushes alike: then it is at least so much, and no finding.
 */
function ratioOf({ pushes: [off, on], engine, low, high, helped }: ShownPair, least: number) {
  const ratio = high.value / low.value;
  const components = [
    systematic('force-match', (ratio * Math.abs(on.force - off.force)) / off.force),
    ...scaleComponents(high.components, 1 / low.value),
    ...scaleComponents(low.components, ratio / low.value),
  ];
  const value = { value: ratio, components };
  if (helped) return beyond('vehicle-ratio', 'above', value, helped);
  return engine === 'not-recorded' && ratio - expandedUncertainty(value) < least
    ? beyond('vehicle-ratio', 'above', value, { code: 'engine-not-recorded' })
    : measured('vehicle-ratio', ratio, components);
}

const question: Question<Context, Pair, ShownPair> = {
  characteristics: ['unassisted-pressure', 'assisted-pressure', 'vehicle-ratio'],
  happened: findPair,
  shows: pairEvidence,
  comesTo: (pair, { unit }) => ({
    characteristics: [
      pair.helped
        ? absent('unassisted-pressure', pair.helped)
        : measured('unassisted-pressure', pair.low.value, pair.low.components),
      measured('assisted-pressure', pair.high.value, pair.high.components),
      ratioOf(pair, ratioWindow(unit, pair.pushes[0].force).low),
    ],
    events: [],
    notes: [],
    pedalForce: pair.pushes[0].force,
  }),
};

export const basePair: Measured = {
  id: 'base-pair',
  kind: 'measured',
  title: 'Pressure without and with assist',
  why: 'One firm push without the engine, the same with it. Without, only what the foot makes; with, several times that: the pair says on which side of the booster the trouble is.',
  minutes: 4,
  cautions: ['running-engine', 'vehicle-still', 'fluid-jet'],
  optional: false,
  characteristics: ['unassisted-pressure', 'assisted-pressure', 'vehicle-ratio'],
  feeds: {
    log: {
      needs: [pedal],
      anyOf: gauges.map((gauge) => [gauge]),
      uses: [...gauges, 'engine_on'],
      leastRows: 40,
    },
    live: {
      startsFrom: 'empty',
      guide: () => [
        stopEngine(2),
        ...pressAndHold(firmFoot, 2, engineOff),
        startEngine(5),
        ...pressAndHold(firmFoot, 2, engineOn),
      ],
      bands: ({ unit }) => {
        const foot = pressureOfFoot(unit.master, firmFoot);
        return { master_pressure: [foot * 0.85, foot * unit.ratioMost] };
      },
    },
    dials: forcePairEntry('master_pressure', {
      off: 'unassisted-pressure',
      on: 'assisted-pressure',
      ratio: 'vehicle-ratio',
    }),
  },
  analyse: (trace, context) => answer(question, trace, context),
  limits: ({ pedalForce = firmFoot, pedalForceStandard = 0 }, { unit, workshopLimits }) => [
    // What a foot makes by itself is only known of a foot that is.
    ...(pedalForce === null
      ? []
      : [
          around(
            'unassisted-pressure',
            pressureOfFoot(unit.master, pedalForce),
            { value: workshopLimits.basePressure, source: { kind: 'workshop', key: 'basePressure' } },
            (pressureOfFoot(unit.master, pedalForce + pedalForceStandard) -
              pressureOfFoot(unit.master, pedalForce - pedalForceStandard)) /
              2,
          ),
        ]),
    {
      characteristic: 'vehicle-ratio',
      ...widest(footRange(pedalForce, pedalForceStandard).map((force) => ratioWindow(unit, force))),
      expected: null,
      standard: 0,
      source: { kind: 'sheet', field: 'vehicleRatioMin' },
    },
  ],
  pictures: [{ kind: 'over-time', channels: [pedal, 'master_pressure'] }],
};
