import { pedalDropEntry } from '../../toolboxes/servo/pedal-drop-entry';
import { reserveEntry, soakedReserveEntry } from '../../toolboxes/servo/reserve-entry';
import { differenceComponents, differenceResolution, random } from '../../instruments/uncertainty';
import { columnOf, meanOf, sampleInterval } from '../../traces/trace';
import { measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged } from '../../procedure/evidence';
import { answer, joinAnswers } from '../../procedure/question';
import { pedalSinkLimit } from '../../toolboxes/servo/pedal-sink-limit';
import { analysePedalDrop } from '../../toolboxes/servo/pedal-analyses';
import {
  reserveOf,
  reserveQuestion,
  type ReserveOptions,
  type ShownReserve,
} from '../../toolboxes/servo/reserve-analysis';
import { soakQuestion, type Soaked } from '../../toolboxes/servo/soaked-reserve';
import { type Limit, atMost, limitFrom } from '../../procedure/limit';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep } from '../../procedure/step-definition';
import { outputAt, predictReserve, type HydraulicBoostUnit } from './geometry';
import { heldWait, wait } from '../../procedure/guide-phase';
import { lever, engineOn, off, stroke, airOf } from './step-parts';

type Context = StepContext<HydraulicBoostUnit>;
type Measured = MeasuredStep<HydraulicBoostUnit>;

const strokesDrawn = 6;

/** Pedal force that is held while the engine starts, N. */
export const dropForce = (unit: HydraulicBoostUnit) => unit.reserveForce * 0.6;

export const offDrop: Measured = {
  id: 'off-drop',
  kind: 'measured',
  title: 'Pedal drop at the start',
  why: 'Reserve pumped away and the foot held: as the engine starts the pedal must sink, then push back a little.',
  minutes: 3,
  cautions: ['vehicle-still', 'running-engine'],
  optional: false,
  characteristics: ['pedal-sink'],
  feeds: {
    log: {
      needs: [lever, 'pedal_travel'],
      uses: ['engine_on', 'boost_pressure', 'accumulator_pressure'],
      leastRows: 30,
    },
    live: {
      startsFrom: 'charged',
      guide: (context) => {
        const level = dropForce(context.unit);
        const strokes = Math.max(6, predictedStrokes(context) + 4);
        return [
          wait({ code: 'stop-engine', seconds: 1 }, off, 1),
          {
            instruction: { code: 'pump-until-hard', strokes },
            controls: off,
            lever: { to: level * 1.4, seconds: 0.4, every: 2 },
            end: { kind: 'strokes', level: level * 1.4, times: strokes, every: 2 },
          },
          {
            instruction: { code: 'pull-to-hold', channel: lever, level, seconds: 1 },
            controls: off,
            lever: { to: level, seconds: 1 },
            end: { kind: 'input-held', level, tolerance: 0.1 * level, seconds: 1.5 },
          },
          wait({ code: 'start-engine-holding', seconds: 5 }, engineOn, 5, level),
          {
            instruction: { code: 'let-go', channel: lever },
            controls: engineOn,
            lever: { to: 0, seconds: 0.5 },
            end: { kind: 'input-below', level: 8 },
          },
        ];
      },
      bands: () => ({}),
    },
    dials: pedalDropEntry('sound'),
  },
  analyse: analysePedalDrop,
  limits: (_analysis, { workshopLimits }) => [pedalSinkLimit(workshopLimits)],
  pictures: [{ kind: 'over-time', channels: ['pedal_travel', lever] }],
};

function predictedStrokes(context: Context): number {
  const strokes = predictReserve(context.unit, airOf(context), 12);
  const lost = strokes.findIndex((each) => !each.assisted);
  return lost < 0 ? strokes.length : lost;
}

const reserveOptions = (context: Context): ReserveOptions => ({
  lever,
  unassisted: (level) => outputAt(context.unit, level, 0),
  store: { channel: 'accumulator_pressure', full: context.unit.reserve.charged, filledBy: 'engine_on' },
});

/** The first stroke must reach halfway from unassisted to what a sound reserve gives, or none counts. */
function firstIsStrong({ strokes: [first] }: ShownReserve, context: Context): boolean {
  const predicted = predictReserve(context.unit, airOf(context), 1)[0]?.output ?? 0;
  return first.output >= (predicted + outputAt(context.unit, context.unit.reserveForce, 0)) / 2;
}

/** Strokes that were assisted, as `count` says of a reserve that shows itself; what a reserve keeps is in the store, not in vacuum. */
function assistedBy(count: (own: number, strong: boolean) => number) {
  return (shown: Evidence<ShownReserve>, context: Context): StepAnalysis => {
    const found = reserveOf(shown, context, reserveOptions(context));
    const strong = firstIsStrong(shown, context);
    return {
      ...found,
      vacuum: undefined,
      characteristics: found.characteristics
        .filter((each) => each.id === 'assisted-applications')
        .map((each) => {
          if (each.kind !== 'measured') return each;
          const counts = count(each.estimate.value, strong);
          return counts === each.estimate.value && strong ? each : measured(each.id, counts, []);
        }),
    };
  };
}

export const reserve: Measured = {
  id: 'reserve',
  kind: 'measured',
  title: 'Reserve',
  why: 'Engine off: how many strokes the reserve still helps; the first must be strong.',
  minutes: 2,
  cautions: ['vehicle-still'],
  optional: false,
  characteristics: ['assisted-applications'],
  feeds: {
    log: {
      needs: [lever, 'output_pressure'],
      uses: ['accumulator_pressure', 'engine_on'],
      leastRows: 40,
    },
    live: {
      startsFrom: 'charged',
      guide: (context) => [
        wait({ code: 'start-engine', seconds: 6 }, engineOn, 6),
        wait({ code: 'stop-engine', seconds: 2 }, off, 2),
        ...Array.from({ length: predictedStrokes(context) + 3 }, (_, at) =>
          stroke(context.unit.reserveForce, at + 1),
        ).flat(),
      ],
      bands: (context) => ({
        output_pressure: [0, (predictReserve(context.unit, airOf(context), 1)[0]?.output ?? 0) * 1.1],
      }),
    },
    dials: reserveEntry<HydraulicBoostUnit>(
      { channel: 'accumulator_pressure', title: 'Store before it', full: ({ unit }) => unit.reserve.charged },
      { perStroke: false },
    ),
  },
  analyse: (trace, context) =>
    answer(
      reserveQuestion(
        ['assisted-applications'],
        reserveOptions(context),
        assistedBy((own, strong) => (strong ? own : 0)),
      ),
      trace,
      context,
    ),
  limits: (_analysis, context): Limit[] => {
    const predicted = predictedStrokes(context);
    const least = limitFrom(
      { field: 'assistedApplicationsMin', value: context.unit.spec.assistedApplicationsMin },
      {
        key: 'assistedApplications',
        value: Math.min(context.workshopLimits.assistedApplications, Math.max(1, predicted)),
      },
    );
    return [
      {
        characteristic: 'assisted-applications',
        low: least.value,
        high: null,
        expected: predicted,
        standard: 0,
        source: least.source,
      },
    ];
  },
  pictures: [
    {
      kind: 'steps',
      predict: (context) => {
        const strokes = predictReserve(context.unit, airOf(context), strokesDrawn);
        const unassisted = outputAt(context.unit, context.unit.reserveForce, 0);
        return { strokes, threshold: ((strokes[0]?.output ?? unassisted) + unassisted) / 2 };
      },
    },
    { kind: 'over-time', channels: ['output_pressure'] },
  ],
};

export const reserveSoak: Measured = {
  id: 'reserve-soak',
  kind: 'measured',
  title: 'Reserve after a soak',
  why: 'An hour later the first stroke must still be helped, or the reserve’s check valve leaks.',
  minutes: 10,
  cautions: ['vehicle-still', 'stored-pressure'],
  optional: false,
  characteristics: ['assisted-applications', 'store-soak-loss'],
  feeds: {
    log: {
      needs: [lever, 'output_pressure'],
      uses: ['accumulator_pressure'],
      leastRows: 10,
    },
    live: {
      rate: 20,
      startsFrom: 'charged',
      guide: (context) => [
        wait({ code: 'start-engine', seconds: 6 }, engineOn, 6),
        heldWait({ code: 'soak', seconds: context.unit.spec.soakSeconds }, off, context.unit.spec.soakSeconds),
        ...stroke(context.unit.reserveForce, 1),
        ...stroke(context.unit.reserveForce, 2),
      ],
      bands: ({ unit }) => ({ accumulator_pressure: [unit.reserve.charged * 0.7, unit.reserve.charged] }),
    },
    dials: soakedReserveEntry({ channel: 'accumulator_pressure' }, 'store-soak-loss'),
  },
  analyse: (trace, context) => {
    const soak = { ...reserveOptions(context), soakSeconds: context.unit.spec.soakSeconds };
    // After a soak the first stroke itself is in question.
    const assisted = soakQuestion(['assisted-applications'], soak, {
      comesTo: assistedBy((_own, strong) => (strong ? 1 : 0)),
    });
    const loss = soakQuestion<Context>(['store-soak-loss'], soak, { shows: storeShown, comesTo: soakLoss });
    return joinAnswers([answer(assisted, trace, context), answer(loss, trace, context)]);
  },
  limits: (_analysis, context): Limit[] => [
    {
      characteristic: 'assisted-applications',
      low: 1,
      high: null,
      expected: 1,
      standard: 0,
      source: { kind: 'workshop', key: 'assistedApplications' },
    },
    ...(context.instruments.has('accumulator_pressure')
      ? [
          atMost('store-soak-loss', {
            value: context.workshopLimits.soakLossShare * context.unit.reserve.charged,
            source: { kind: 'workshop', key: 'soakLossShare' },
          }),
        ]
      : []),
  ],
  pictures: [{ kind: 'over-time', channels: ['accumulator_pressure', 'output_pressure'] }],
};

/** What a store lost can be told of any that was recorded up to a stroke. */
function storeShown(found: Soaked): Judged<ShownReserve> {
  return columnOf(found.trace, 'accumulator_pressure')
    ? evidence({ ...found, left: found.before?.most ?? null, enough: true, full: 0 })
    : noEvidence({ code: 'channel-missing', channel: 'accumulator_pressure' });
}

function soakLoss({ trace, held: [first] }: Evidence<ShownReserve>, context: Context): StepAnalysis {
  const column = trace.columns.accumulator_pressure;
  const half = Math.max(1, Math.round(1 / sampleInterval(trace)));
  const engine = columnOf(trace, 'engine_on');
  let stop = 0;
  if (engine) while (stop < first.from && !(stop > 0 && engine[stop] <= 0.5 && engine[stop - 1] > 0.5)) stop++;
  const start = meanOf(column, stop, stop + 4 * half);
  const before = Math.max(stop, first.from - 2 * half);
  const end = meanOf(column, Math.max(0, before - 4 * half), before);
  const instrument = context.instruments.get('accumulator_pressure');
  const lost = measured('store-soak-loss', start.mean - end.mean, [
    random('noise', 4e3),
    ...(instrument
      ? [differenceResolution(instrument), ...differenceComponents(instrument, end.mean, start.mean, context.date)]
      : []),
  ]);
  return { characteristics: [lost], events: [], notes: [] };
}
