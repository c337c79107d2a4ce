import { sourceVacuumEntry } from '../../../toolboxes/vacuum/source-vacuum-entry';
import { pedalDropEntry } from '../../../toolboxes/servo/pedal-drop-entry';
import { soakedReserveEntry } from '../../../toolboxes/servo/reserve-entry';
import { footRange } from '../../../dials/foot';
import { forcePairEntry } from '../../../toolboxes/foundation/force-pair-entry';
import { absent, estimateOf, measured } from '../../../procedure/analysis-result';
import type { Evidence } from '../../../procedure/evidence';
import { answer } from '../../../procedure/question';
import { pedalSinkLimit } from '../../../toolboxes/servo/pedal-sink-limit';
import { analysePedalDrop, analyseSameForcePair } from '../../../toolboxes/servo/pedal-analyses';
import { analyseSourceVacuum, leastVacuumLimits } from '../../../toolboxes/vacuum/source-vacuum-analysis';
import { differenceComponents, differenceResolution, random, systematic } from '../../../instruments/uncertainty';
import { movingMean } from '../../../traces/smoothing';
import { columnOf, indexAtTime, meanOf, type Trace } from '../../../traces/trace';
import { reserveOf, type ShownReserve } from '../../../toolboxes/servo/reserve-analysis';
import { soakQuestion } from '../../../toolboxes/servo/soaked-reserve';
import type { GuidePhase } from '../../../procedure/guide-phase';
import type { Characteristic, StepAnalysis } from '../../../procedure/step-analysis';
import type { ReadingBands } from '../../../procedure/expected';
import { outputAt } from '../unit/quasi-static';
import { predictedStaircase, reserveOptions, strokesToExhaust } from './shared-steps';
import {
  engineOn,
  holdThere,
  home,
  letBack,
  pushTo,
  reserveLevel,
  rest,
  stroke,
  vacuumNow,
  type Context,
  type Measured,
} from './step-parts';

const pedal = 'pedal_force';
const engineOff: GuidePhase['controls'] = {};
/** Pedal force of the steps that need a moderate foot, N. */
export const moderate = 150;

const idle = (seconds: number): GuidePhase => ({
  instruction: { code: 'start-engine', seconds },
  controls: engineOn,
  lever: home,
  end: { kind: 'seconds', seconds },
});

const stopEngine = (seconds: number): GuidePhase => ({
  instruction: { code: 'stop-engine', seconds },
  controls: engineOff,
  lever: home,
  end: { kind: 'seconds', seconds },
});

export const sourceVacuum: Measured = {
  id: 'source-vacuum',
  kind: 'measured',
  title: 'Source vacuum',
  why: 'At the unit, engine idling: enough at rest, and after two strokes still enough while the pedal is held.',
  minutes: 3,
  cautions: ['running-engine'],
  optional: false,
  characteristics: ['idle-vacuum', 'held-vacuum'],
  feeds: {
    log: {
      needs: ['supply_vacuum'],
      uses: [pedal, 'engine_on'],
      leastRows: 10,
    },
    live: {
      startsFrom: 'vented',
      guide: (context) => [
        idle(10),
        ...stroke(pedal, reserveLevel(context), 1, engineOn),
        ...stroke(pedal, reserveLevel(context), 2, engineOn),
        pushTo(pedal, moderate, 1, engineOn),
        holdThere(moderate, 6, engineOn),
        letBack(pedal, 0.6, engineOn),
        rest(2, engineOn),
      ],
      bands: (context) => {
        const [{ low }] = leastVacuumLimits(['idle-vacuum'], context.unit.spec.sourceKind, context);
        return { supply_vacuum: [low ?? 0, context.ambient.pressure * 0.86] };
      },
    },
    dials: sourceVacuumEntry((context) => leastVacuumLimits(['idle-vacuum'], context.unit.spec.sourceKind, context)),
  },
  analyse: (trace, context) => analyseSourceVacuum(trace, context, pedal),
  limits: (_analysis, context) =>
    leastVacuumLimits(['idle-vacuum', 'held-vacuum'], context.unit.spec.sourceKind, context),
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', pedal] }],
};

export const pedalDrop: Measured = {
  id: 'pedal-drop',
  kind: 'measured',
  title: 'Pedal drop',
  why: 'Pumped hard and held, the pedal must sink a little when the engine brings assist, and stay.',
  minutes: 3,
  cautions: ['running-engine'],
  optional: false,
  characteristics: ['pedal-sink'],
  feeds: {
    log: {
      needs: [pedal, 'pedal_travel'],
      uses: ['engine_on', 'supply_vacuum', 'output_pressure'],
      leastRows: 40,
    },
    live: {
      startsFrom: 'evacuated',
      guide: (context) => {
        const strokes = strokesToExhaust(context);
        const pumping = Array.from({ length: strokes }, (_, at) =>
          stroke(pedal, reserveLevel(context), at + 1, engineOff),
        ).flat();
        return [
          stopEngine(2),
          ...pumping,
          pushTo(pedal, moderate, 0.6, engineOff),
          holdThere(moderate, 2, engineOff),
          {
            instruction: { code: 'start-engine-holding', seconds: 6 },
            controls: engineOn,
            lever: { to: moderate, seconds: 0 },
            end: { kind: 'seconds', seconds: 6 },
          },
          letBack(pedal, 0.6, engineOn),
          rest(1, engineOn),
        ];
      },
      bands: () => ({}),
    },
    dials: pedalDropEntry('fault'),
  },
  analyse: analysePedalDrop,
  limits: (_analysis, { workshopLimits }) => [pedalSinkLimit(workshopLimits)],
  pictures: [{ kind: 'over-time', channels: ['pedal_travel', pedal] }],
};

/** Air just drawn is colder than its shell by about this, K. */
const drawnColder = 2;

/** Vacuum lost between the engine's stop and the first stroke, Pa. */
function soakLoss({ trace, strokes: [first] }: ShownReserve, context: Context): Characteristic {
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply || Number.isNaN(first.vacuum)) return absent('soak-loss', { code: 'supply-missing' });
  const left = leftBehind(trace, supply);
  const instrument = context.instruments.get('supply_vacuum');
  const warming = ((context.ambient.pressure - left.mean) * drawnColder) / context.airTemperature / Math.sqrt(3);
  return measured('soak-loss', left.mean - first.vacuum, [
    random('noise', left.deviation / Math.sqrt(left.count)),
    // What was drawn just before warms to its shell, and that takes some vacuum with it.
    systematic('gas-heat', warming),
    ...(instrument
      ? [differenceResolution(instrument), ...differenceComponents(instrument, first.vacuum, left.mean, context.date)]
      : []),
  ]);
}

/** Vacuum that the engine left behind: around where it was highest before the first stroke, over a second each way. */
function leftBehind(trace: Trace, supply: Float64Array) {
  const smooth = movingMean(supply, 40);
  const highest = smooth.reduce((best, value, at) => (value > smooth[best] ? at : best), 0);
  const time = trace.time[highest];
  return meanOf(supply, indexAtTime(trace, time - 1), indexAtTime(trace, time + 1) + 1);
}

/** After a soak the first stroke itself is in question: it is held against the prediction, not against itself. */
function afterSoak(shown: Evidence<ShownReserve>, context: Context): StepAnalysis {
  const found = reserveOf(shown, context, reserveOptions(context));
  const own = found.characteristics.find((each) => each.id === 'assisted-applications');
  const { threshold } = predictedStaircase(context, null);
  const lost = shown.strokes.findIndex((stroke) => stroke.output < threshold);
  const assisted =
    own?.kind === 'measured'
      ? measured('assisted-applications', lost < 0 ? shown.strokes.length : lost, own.estimate.components)
      : (own ?? absent('assisted-applications', { code: 'not-read' }));
  return {
    ...found,
    characteristics: [assisted, soakLoss(shown, context)],
    // Two strokes are not meant to use it up.
    notes: found.notes.filter((note) => note.code !== 'reserve-not-used-up'),
  };
}

export const reserveSoak: Measured = {
  id: 'reserve-soak',
  kind: 'measured',
  title: 'Reserve after a soak',
  why: 'After five minutes without the engine the first stroke must still be assisted, or something leaks.',
  minutes: 7,
  cautions: ['running-engine'],
  optional: false,
  characteristics: ['assisted-applications', 'soak-loss'],
  feeds: {
    log: {
      needs: ['output_pressure', pedal],
      uses: ['supply_vacuum', 'engine_on'],
      leastRows: 10,
    },
    live: {
      startsFrom: 'vented',
      guide: (context) => {
        const seconds = context.workshopLimits.soakSeconds;
        return [
          idle(8),
          {
            instruction: { code: 'soak', seconds },
            hold: 'counted',
            controls: engineOff,
            lever: home,
            end: { kind: 'seconds', seconds },
          },
          ...stroke(pedal, reserveLevel(context), 1, engineOff),
          ...stroke(pedal, reserveLevel(context), 2, engineOff),
        ];
      },
      bands: (context) => ({ supply_vacuum: [vacuumNow(context) * 0.7, vacuumNow(context)] }),
    },
    dials: soakedReserveEntry({ channel: 'supply_vacuum' }, 'soak-loss'),
  },
  analyse: (trace, context) =>
    answer(
      soakQuestion(
        ['assisted-applications', 'soak-loss'],
        { ...reserveOptions(context), soakSeconds: context.workshopLimits.soakSeconds },
        { comesTo: afterSoak },
      ),
      trace,
      context,
    ),
  limits: (analysis) =>
    estimateOf(analysis, 'assisted-applications') === undefined
      ? []
      : [
          {
            characteristic: 'assisted-applications',
            low: 1,
            high: null,
            expected: 1,
            standard: 0,
            source: { kind: 'workshop', key: 'assistedApplications' },
          },
        ],
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', 'output_pressure'] }],
};

export const sameForcePair: Measured = {
  id: 'same-force-pair',
  kind: 'measured',
  title: 'Same force, without and with',
  why: 'Output at one pedal force without vacuum, then with it: the boost the driver really gets.',
  minutes: 3,
  cautions: ['running-engine', 'fluid-jet'],
  optional: false,
  characteristics: ['vehicle-ratio'],
  feeds: {
    log: {
      needs: [pedal, 'output_pressure'],
      uses: ['supply_vacuum', 'engine_on'],
      leastRows: 40,
    },
    live: {
      startsFrom: 'vented',
      guide: () => [
        rest(1.5, engineOff),
        pushTo(pedal, moderate, 1, engineOff),
        holdThere(moderate, 2, engineOff),
        letBack(pedal, 0.5, engineOff),
        idle(8),
        pushTo(pedal, moderate, 1, engineOn),
        holdThere(moderate, 2, engineOn),
        letBack(pedal, 0.5, engineOn),
        rest(1, engineOn),
      ],
      bands: (context, readings): ReadingBands => {
        const force = readings.pedal_force;
        if (force === undefined) return {};
        const rod = Math.max(0, force) * context.unit.leverage;
        const supply = readings.supply_vacuum ?? 0;
        const expected = outputAt(context.unit, rod, supply);
        return { output_pressure: [expected * 0.8, expected * 1.2] };
      },
    },
    dials: forcePairEntry('output_pressure', { ratio: 'vehicle-ratio' }),
  },
  analyse: analyseSameForcePair,
  limits: ({ pedalForce = moderate, pedalForceStandard = 0 }, context) => [
    {
      characteristic: 'vehicle-ratio',
      // Of a foot that is not known well, the least that any it may have been would have to give.
      low: Math.min(...footRange(pedalForce, pedalForceStandard).map((force) => leastPair(context, force))),
      high: null,
      expected: pedalForce === null ? null : expectedPair(context, pedalForce),
      standard: 0,
      source: { kind: 'workshop', key: 'vehicleRatio' },
    },
  ],
  pictures: [{ kind: 'over-time', channels: [pedal, 'output_pressure'] }],
};

/** The workshop's least ratio is of a moderate foot: of a firmer one, which may run the unit out, as much output by that push alone. */
function leastPair(context: Context, pedalForce: number): number {
  const least = context.workshopLimits.vehicleRatio;
  const unassisted = (force: number) => outputAt(context.unit, force * context.unit.leverage, 0);
  return pedalForce <= moderate ? least : Math.max(1, (least * unassisted(moderate)) / unassisted(pedalForce));
}

/** What a sound unit gives with its vacuum over what it gives without, at a pedal force (N). */
function expectedPair(context: Context, pedalForce: number): number | null {
  const rod = pedalForce * context.unit.leverage;
  const without = outputAt(context.unit, rod, 0);
  return without > 0 ? outputAt(context.unit, rod, vacuumNow(context)) / without : null;
}
