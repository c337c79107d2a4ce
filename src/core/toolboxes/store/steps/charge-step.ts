import { goneNow } from '../../../procedure/interlock';
import { shellTemperature } from '../../../procedure/shell-temperature';
import { readingComponents } from '../../../instruments/uncertainty';
import { type Limit, atMost } from '../../../procedure/limit';
import type { Found, StepAnalysis } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import type { MeasuredStep } from '../../../procedure/step-definition';
import type { TypedField, TypedValues } from '../../../procedure/typed-entry';
import { absent, measured } from '../../../procedure/analysis-result';
import { wait } from '../../../procedure/guide-phase';
import { plausibleRange } from '../../../dials/plausible-range';
import { expectedCharge, predictCharge } from '../model/charge-prediction';
import { prechargeTemperature, restatePrecharge } from '../../../physics/gas-law';
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
      dials: {
        fields: (context) =>
          circuits.flatMap((circuit): TypedField[] => {
            const store = circuit.storeOf(context.unit);
            const gas = (store.precharge + context.ambient.pressure) * (context.airTemperature / prechargeTemperature);
            const here = gas - context.ambient.pressure;
            const tolerance = tolerances(store, context).precharge.value;
            const name = circuits.length > 1 ? `${circuit.title}: ` : '';
            return [
              {
                id: idOf('knee', circuit.suffix),
                title: `${name}needle jumps to`,
                hint: 'Where the needle stops jumping and begins to climb',
                as: 'gauge',
                channel: circuit.pressure,
                expected: { low: here * (1 - tolerance), high: here * (1 + tolerance) },
                plausible: plausibleRange('gauge', circuit.pressure, context),
                optional: false,
              },
              {
                id: idOf('seconds', circuit.suffix),
                title: `${name}time to charge`,
                hint: 'Pump start to pump stop, by the watch',
                as: 'time',
                channel: null,
                expected: { low: 0, high: chargeTimeLimit(store, context).value },
                plausible: [0, 3600],
                optional: false,
              },
            ];
          }),
        analyse: typedCharge,
      },
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

  function typedCharge(values: TypedValues, context: StepContext<Unit>): StepAnalysis {
    const precharge: Record<string, Found> = {};
    const shell = shellTemperature(context);
    const characteristics = circuits.flatMap((circuit) => {
      const knee = values[idOf('knee', circuit.suffix)];
      const seconds = values[idOf('seconds', circuit.suffix)];
      const instrument = context.instruments.get(circuit.pressure);
      const ambient = context.ambient.pressure;
      const found =
        knee === undefined
          ? absent(idOf('precharge', circuit.place), { code: 'not-read' })
          : measured(
              idOf('precharge', circuit.place),
              restatePrecharge(knee, shell.value, prechargeTemperature, ambient),
              [
                // A jumping needle is read to a few divisions at best.
                { source: 'timing', standard: knee * 0.01, random: true },
                { source: 'temperature', standard: ((knee + ambient) * shell.standard) / shell.value, random: false },
                ...(instrument ? readingComponents(instrument, knee, context.date) : []),
              ],
            );
      if (found.kind === 'measured')
        precharge[circuit.suffix] = {
          value: found.estimate.value,
          standard: Math.hypot(...found.estimate.components.map((part) => part.standard)),
        };
      return [
        found,
        seconds === undefined
          ? absent(idOf('charge-time', circuit.place), { code: 'not-read' })
          : measured(idOf('charge-time', circuit.place), seconds, [
              { source: 'timing', standard: 0.5 / Math.sqrt(3), random: true },
            ]),
      ];
    });
    return { characteristics, events: [], notes: shell.notes, corrections: { precharge } };
  }

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
