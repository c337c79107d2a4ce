import { kneeAsked, kneeEntry } from '../../toolboxes/store/steps/knee-reading';
import { byWatch, onGauge } from '../../dials/asked';
import { partPlace } from '../../quantities/places';
import { columnOf, type Trace } from '../../traces/trace';
import { analyseStoreSwitch } from '../../toolboxes/store/analysis/store-switch-analysis';
import { joinAnswers, onlyOf, silently } from '../../procedure/question';
import { liveFeed, type MeasuredStep } from '../../procedure/step-definition';
import type { PedalValveUnit } from './geometry';
import { wait } from '../../procedure/guide-phase';
import { live, circuits, store } from './step-parts';

type Measured = MeasuredStep<PedalValveUnit>;

/** A charge from empty, then a bleed to cut-in and the run that follows: one step for the charging valve. */
export const charging: Measured = {
  ...store.charge,
  id: 'charging',
  title: 'Charging valve',
  why: 'From empty each store jumps to its precharge; then the valve’s cut-out, and, bled down, its cut-in.',
  characteristics: ['store-cut-in', 'store-cut-out', 'charge-time', 'precharge', 'precharge@2'],
  feeds: {
    log: store.charge.feeds.log,
    live: {
      ...liveFeed(store.charge),
      guide: (context) => [
        wait({ code: 'rest', seconds: 2 }, {}, 2),
        ...store.untilCharged(context, { code: 'start-engine-charge' }),
        ...store.untilStarted(context),
        ...store.untilCharged(context, { code: 'shut-bleed-watch' }),
        wait({ code: 'rest', seconds: 1 }, live, 1),
      ],
    },
    dials: kneeEntry<PedalValveUnit>(circuits, {
      characteristics: () => ['store-cut-in', 'store-cut-out', 'charge-time', 'precharge', 'precharge@2'],
      once: (context) => [
        ...circuits.map((circuit) =>
          kneeAsked(store, circuit, context, {
            title: 'needle jumps to',
            hint: 'Where the needle stops jumping and begins to climb',
          }),
        ),
        onGauge('stops', circuits[0].pressure, 'Front: pump stops at'),
        byWatch('seconds', 'Front: time to charge', { hint: 'Pump start to pump stop', plausible: [0, 3600] }),
        onGauge('starts', circuits[0].pressure, 'Front: bled down, pump starts at'),
      ],
      beside: (read) => ({
        'store-cut-in': read.starts,
        'store-cut-out': read.stops,
        'charge-time': read.seconds,
      }),
    }),
  },
  analyse: (trace, context) => {
    const charge = store.charge.analyse(trace, context);
    const front = circuits[0];
    // The run from empty says nothing of cut-in.
    const switching = silently(analyseStoreSwitch(afterFirstRun(trace), front, context));
    return joinAnswers([switching, onlyOf(charge, ['charge-time', 'precharge', 'precharge@2'])]);
  },
  limits: (analysis, context) => [
    ...store.pumpSwitch.limits(analysis, context).filter((limit) => partPlace(limit.characteristic).place === null),
    ...store.charge.limits(analysis, context).filter((limit) => limit.characteristic !== 'charge-time@2'),
  ],
};

/** The trace from where the first run of the charging valve has ended. */
function afterFirstRun(trace: Trace): Trace {
  const pump = columnOf(trace, 'pump_on');
  if (!pump) return trace;
  let at = 1;
  while (at < pump.length && !(pump[at] <= 0.5 && pump[at - 1] > 0.5)) at++;
  return {
    time: trace.time.subarray(at),
    columns: Object.fromEntries(
      Object.entries(trace.columns).map(([channel, column]) => [channel, column.subarray(at)]),
    ),
  };
}
