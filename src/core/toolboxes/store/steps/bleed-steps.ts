import { kneeAsked, named, kneeEntry } from './knee-reading';
import { onGauge } from '../../../dials/asked';
import { goneOnce } from '../../../procedure/interlock';
import { type GuidePhase, home, wait } from '../../../procedure/guide-phase';
import type { MeasuredStep } from '../../../procedure/step-definition';
import { analyseStoreSwitch } from '../analysis/store-switch-analysis';
import { joinAnswers } from '../../../procedure/question';
import { analyseBleedDown } from '../analysis/precharge-analysis';
import { bleedTimes, idOf, slowBleed, type StoreKit } from './store-kit';

/** Slow bleed-down to the knee, and where the pump starts and stops. */
export function bleedSteps<Unit>(kit: StoreKit<Unit>) {
  const {
    circuits,
    live,
    pressures,
    pumps,
    first,
    dead,
    motorLimit,
    withOverrun,
    prechargeLimit,
    switchLimit,
    bandsOf,
    untilStarted,
    untilCharged,
  } = kit;
  const bleedDown: MeasuredStep<Unit> = {
    id: 'bleed-down',
    kind: 'measured',
    title: 'Slow bleed-down',
    why: 'The same knee from above: where the pressure collapses the gas has given all it held. The pump’s start is read on the way.',
    minutes: 5,
    cautions: ['fluid-jet', ...(kit.driven === 'motor' ? (['wakes-by-itself'] as const) : [])],
    optional: false,
    characteristics: circuits.flatMap(({ place }) => [idOf('precharge', place), idOf('store-cut-in', place)]),
    interlock: goneOnce('pressure'),
    brings: ['pressure'],
    feeds: {
      log: {
        needs: pressures,
        uses: pumps,
        leastRows: 12,
        neededRate: 2,
      },
      live: {
        startsFrom: 'charged',
        guide: (context) => {
          const store = first.storeOf(context.unit);
          return [
            wait({ code: 'rest', seconds: 2 }, live, 2),
            {
              instruction: { code: 'bleed-slowly-live' },
              controls: { ...live, bleed: slowBleed },
              lever: home,
              end: { kind: 'switched', channel: first.pump, to: 1, times: 1, ...bleedTimes },
              duty: motorLimit(context),
            },
            {
              instruction: { code: 'bleed-slowly-off' },
              controls: { bleed: slowBleed },
              lever: home,
              end: {
                kind: 'reading',
                channel: first.pressure,
                side: 'below',
                level: dead(context, store).value * 0.4,
                ...bleedTimes,
              },
            },
            wait({ code: 'read-dead', seconds: 2 }, { bleed: slowBleed }, 2),
          ];
        },
        bands: (context) => bandsOf(context, (store) => [store.precharge, store.cutOut]),
      },
      dials: kneeEntry<Unit>(circuits, {
        characteristics: () => bleedDown.characteristics,
        once: (context) =>
          circuits.flatMap((circuit) => [
            onGauge(idOf('starts', circuit.suffix), circuit.pressure, named(circuits, circuit, 'pump starts at'), {
              hint: 'Bleeding slowly, pump live',
            }),
            kneeAsked(kit, circuit, context, {
              title: 'needle collapses from',
              hint: 'Pump off, still bleeding: where it suddenly falls away',
            }),
          ]),
        beside: (read) => ({
          ...Object.fromEntries(
            circuits.map(({ place, suffix }) => [idOf('store-cut-in', place), read[idOf('starts', suffix)]]),
          ),
        }),
      }),
    },
    analyse: (trace, context) => joinAnswers(circuits.map((circuit) => analyseBleedDown(trace, circuit, context))),
    limits: (_analysis, context) =>
      circuits.flatMap((circuit) => [prechargeLimit(circuit, context), switchLimit('store-cut-in', circuit, context)]),
    pictures: [{ kind: 'over-time', channels: pressures, expected: () => [] }],
  };

  const pumpSwitch: MeasuredStep<Unit> = {
    id: 'pump-switch',
    kind: 'measured',
    title: kit.driven === 'motor' ? 'Pump starts and stops' : 'Pumps cut in and out',
    why: 'Where the switch starts and stops the pump: a shifted or narrow band wears the pump or leaves too little in store.',
    minutes: 3,
    cautions: kit.driven === 'motor' ? ['wakes-by-itself', 'motor-duty'] : ['running-engine'],
    optional: false,
    characteristics: circuits.flatMap(({ place }) => [idOf('store-cut-in', place), idOf('store-cut-out', place)]),
    interlock: goneOnce('pressure'),
    brings: ['pressure'],
    feeds: {
      log: {
        needs: [...pressures, ...pumps],
        uses: [],
        leastRows: 20,
      },
      live: {
        startsFrom: 'charged',
        guide: (context) => {
          const round = (): GuidePhase[] => [
            ...untilStarted(context),
            ...untilCharged(context, { code: 'shut-bleed-watch' }),
          ];
          return [
            wait({ code: 'rest', seconds: 1 }, live, 1),
            ...round(),
            ...round(),
            wait({ code: 'rest', seconds: 1 }, live, 1),
          ];
        },
        bands: (context) => bandsOf(context, (store) => [store.cutIn, store.cutOut]),
      },
    },
    analyse: (trace, context) =>
      withOverrun(trace, context, joinAnswers(circuits.map((circuit) => analyseStoreSwitch(trace, circuit, context)))),
    limits: (_analysis, context) =>
      circuits.flatMap((circuit) => [
        switchLimit('store-cut-in', circuit, context),
        switchLimit('store-cut-out', circuit, context),
      ]),
    pictures: [{ kind: 'over-time', channels: [...pressures, ...pumps] }],
  };

  return { bleedDown, pumpSwitch };
}
