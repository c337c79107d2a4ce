import { byWatch } from '../../../dials/asked';
import { kneeAsked, named, kneeEntry } from './knee-reading';
import { goneNow } from '../../../procedure/interlock';
import { type Limit, atMost } from '../../../procedure/limit';
import type { StepContext } from '../../../procedure/step-context';
import type { MeasuredStep } from '../../../procedure/step-definition';
import { wait } from '../../../procedure/guide-phase';
import { expectedCharge, predictCharge } from '../model/charge-prediction';
import { joinAnswers } from '../../../procedure/question';
import { analyseCharge } from '../analysis/precharge-analysis';
import { idOf, type StoreKit } from './store-kit';
import type { StoreCircuit } from '../model/store-unit';

/** Charge from empty: precharge and charge time of every circuit. */
export function chargeStep<Unit>(kit: StoreKit<Unit>) {
  const {
    circuits,
    pressures,
    pumps,
    surroundingsOf,
    withOverrun,
    tolerances,
    chargeTimeLimit,
    prechargeLimit,
    bandsOf,
    untilCharged,
  } = kit;
  const charge: MeasuredStep<Unit> = {
    id: 'charge-from-empty',
    kind: 'measured',
    title: 'Charge from empty',
    why: 'From nothing the pressure jumps to the precharge, then climbs against the gas: the knee is the precharge.',
    minutes: 4,
    cautions:
      kit.driven === 'motor' ? ['wakes-by-itself', 'motor-duty', ...kit.cautions] : ['running-engine', ...kit.cautions],
    optional: false,
    characteristics: circuits.flatMap(({ place }) => [idOf('precharge', place), idOf('charge-time', place)]),
    interlock: goneNow('pressure'),
    brings: ['pressure'],
    feeds: {
      log: {
        needs: pressures,
        uses: pumps,
        leastRows: 12,
      },
      live: {
        startsFrom: 'empty',
        guide: (context) => [
          wait({ code: 'rest', seconds: 2 }, {}, 2),
          ...untilCharged(
            context,
            kit.driven === 'motor' ? { code: 'power-on-watch' } : { code: 'start-engine-charge' },
          ),
          wait({ code: 'rest', seconds: 3 }, {}, 3),
        ],
        bands: (context) => bandsOf(context, (store) => [store.cutIn, store.cutOut]),
      },
      dials: kneeEntry<Unit>(circuits, {
        characteristics: () => charge.characteristics,
        once: (context) =>
          circuits.flatMap((circuit) => [
            kneeAsked(kit, circuit, context, {
              title: 'needle jumps to',
              hint: 'Where the needle stops jumping and begins to climb',
            }),
            byWatch(idOf('seconds', circuit.suffix), named(circuits, circuit, 'time to charge'), {
              hint: 'Pump start to pump stop, by the watch',
              expected: { low: 0, high: chargeTimeLimit(circuit.storeOf(context.unit), context).value },
              plausible: [0, 3600],
            }),
          ]),
        beside: (read) => ({
          ...Object.fromEntries(
            circuits.map(({ place, suffix }) => [idOf('charge-time', place), read[idOf('seconds', suffix)]]),
          ),
        }),
      }),
    },
    analyse: (trace, context) =>
      withOverrun(trace, context, joinAnswers(circuits.map((circuit) => analyseCharge(trace, circuit, context)))),
    limits: (_analysis, context) => circuits.flatMap((circuit) => chargeLimits(circuit, context)),
    pictures: [
      {
        kind: 'over-time',
        channels: pressures,
        expected: (context) =>
          circuits.map((circuit) => {
            const store = circuit.storeOf(context.unit);
            return expectedCharge(
              store,
              surroundingsOf(context),
              tolerances(store, context).precharge.value,
              circuit.pressure,
            );
          }),
      },
    ],
  };

  const chargeLimits = (circuit: StoreCircuit<Unit>, context: StepContext<Unit>): Limit[] => {
    const store = circuit.storeOf(context.unit);
    return [
      prechargeLimit(circuit, context),
      atMost(idOf('charge-time', circuit.place), chargeTimeLimit(store, context), {
        expected: predictCharge(store, surroundingsOf(context)).seconds,
      }),
    ];
  };

  return charge;
}
