import { pressureOfFoot } from '../../calculators/brake-force';
import { expandedUncertainty, scaleComponents, systematic, type Estimate } from '../../instruments/uncertainty';
import { measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { around } from '../../procedure/limit';
import { answer, type Question } from '../../procedure/question';
import { columnOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
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
  readonly pushes: readonly [HeldPush, HeldPush];
}

interface ShownPair extends Pair {
  readonly low: Estimate;
  readonly high: Estimate;
}

function findPair(trace: Trace): Pair | NoEvidence {
  const gauge = gauges.find((channel) => columnOf(trace, channel));
  if (!gauge) return noEvidence({ code: 'channel-missing', channel: gauges[0] });
  if (!columnOf(trace, pedal)) return noEvidence({ code: 'channel-missing', channel: pedal });
  const pushes = heldPushes(trace, pedal);
  if (pushes.length < 2) return noEvidence({ code: 'too-few-strokes', strokes: pushes.length, needed: 2 });
  return { trace, gauge, pushes: [pushes[0], pushes[pushes.length - 1]] };
}

function pairEvidence({ trace, gauge, pushes }: Pair, context: Context): Judged<ShownPair> {
  const [first, last] = pushes;
  const differ = Math.abs(first.force - last.force) / Math.max(first.force, last.force);
  if (differ > samePush) return noEvidence({ code: 'foot-not-still', share: differ });
  const zero = restOf(trace, gauge, first);
  const pressures = pushes.map((push) => heldPressure(trace, gauge, push, zero, context));
  const [low, high] = pressures.toSorted((a, b) => a.value - b.value);
  if (!(low.value > 0)) return noEvidence({ code: 'unassisted-too-small', pressure: low.value });
  const most =
    mostOfFoot * pressureOfFoot({ ...context.unit.master, linkageEfficiency: 1, masterEfficiency: 1 }, first.force);
  const beyondFoot = low.value - expandedUncertainty(low) > most;
  const notes: AnalysisProblem[] = beyondFoot ? [{ code: 'more-than-the-foot', pressure: low.value, most }] : [];
  const engine = columnOf(trace, 'engine_on');
  const unseen: AnalysisProblem[] = engine ? [] : [{ code: 'supply-missing' }];
  const alike: AnalysisProblem[] = high.value < apart * low.value ? [{ code: 'nothing-assisted' }] : [];
  return evidence({ trace, gauge, pushes, low, high }, alike, [...notes, ...(alike.length > 0 ? unseen : [])]);
}

const question: Question<Context, Pair, ShownPair> = {
  characteristics: ['unassisted-pressure', 'assisted-pressure', 'vehicle-ratio'],
  happened: findPair,
  shows: pairEvidence,
  comesTo: ({ pushes, low, high }) => {
    const ratio = high.value / low.value;
    const force = pushes[0].force;
    return {
      characteristics: [
        measured('unassisted-pressure', low.value, low.components),
        measured('assisted-pressure', high.value, high.components),
        measured('vehicle-ratio', ratio, [
          systematic('force-match', (ratio * Math.abs(pushes[1].force - force)) / force),
          ...scaleComponents(high.components, 1 / low.value),
          ...scaleComponents(low.components, ratio / low.value),
        ]),
      ],
      events: [],
      notes: [],
      pedalForce: force,
    };
  },
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
  },
  analyse: (trace, context) => answer(question, trace, context),
  limits: ({ pedalForce = firmFoot }, { unit, workshopLimits }) => [
    around('unassisted-pressure', pressureOfFoot(unit.master, pedalForce), {
      value: workshopLimits.basePressure,
      source: { kind: 'workshop', key: 'basePressure' },
    }),
    {
      characteristic: 'vehicle-ratio',
      low: unit.ratioLeast,
      high: unit.ratioMost,
      expected: null,
      standard: 0,
      source: { kind: 'sheet', field: 'vehicleRatioMin' },
    },
  ],
  pictures: [{ kind: 'over-time', channels: [pedal, 'master_pressure'] }],
};
