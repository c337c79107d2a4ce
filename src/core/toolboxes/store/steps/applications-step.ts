import { applicationsEntry } from './applications-entry';
import { goneOnce } from '../../../procedure/interlock';
import { type Limit, around, limitFrom } from '../../../procedure/limit';
import type { StepContext } from '../../../procedure/step-context';
import type { MeasuredStep } from '../../../procedure/step-definition';
import { wait } from '../../../procedure/guide-phase';
import { joinAnswers } from '../../../procedure/question';
import {
  analyseApplications,
  predictApplications,
  storeStaircase,
  strokeSpacing,
  usefulCount,
} from '../analysis/applications';
import { idOf, type StoreKit } from './store-kit';
import type { StoreCircuit, StoreUnit } from '../model/store-unit';

/** Applications of a charge with the pump off, and when the warning comes. */
export function applicationsStep<Unit>(kit: StoreKit<Unit>) {
  const { circuits, lever, pressures, first, tolerances, bandsOf, storesOf } = kit;
  const alarmIdOf = (circuit: StoreCircuit<Unit>) =>
    kit.alarm === 'alarm-pressure' ? ('alarm-pressure' as const) : idOf('lamp-pressure', circuit.place);
  /** One alarm watches the first circuit; lamps are one to a circuit. */
  const alarmed = kit.alarm === 'alarm-pressure' ? circuits.slice(0, 1) : circuits;

  const applications: MeasuredStep<Unit> = {
    id: 'applications',
    kind: 'measured',
    title: 'Applications of a charge',
    why: 'With the pump off: how many strokes the store gives before it is of no more use, and when the warning comes.',
    minutes: 5,
    cautions: ['fluid-jet'],
    optional: false,
    characteristics: [...circuits.map(({ place }) => idOf('assisted-applications', place)), ...alarmed.map(alarmIdOf)],
    interlock: goneOnce('pressure'),
    brings: ['pressure'],
    feeds: {
      log: {
        needs: [...pressures, lever],
        uses: circuits.map((circuit) => circuit.lamp),
        leastRows: 30,
      },
      live: {
        startsFrom: 'charged',
        guide: (context) => {
          const level = kit.strokeLevel(context);
          const strokes = Math.max(...storesOf(context).map((store) => predictedStrokes(store, context).length)) + 2;
          return [
            wait({ code: 'power-off' }, {}, 2),
            {
              instruction: { code: 'stroke-until-lamp', channel: lever, level, every: strokeSpacing },
              controls: {},
              lever: { to: level, seconds: 0.5, every: strokeSpacing },
              end: { kind: 'strokes', level, times: strokes, every: strokeSpacing },
            },
            wait({ code: 'rest', seconds: 1 }, {}, 1),
          ];
        },
        bands: (context) => bandsOf(context, (store) => [store.leastUseful, store.cutOut]),
      },
      dials: applicationsEntry(
        circuits,
        alarmed.map((circuit) => ({
          circuit,
          id: alarmIdOf(circuit),
          title: kit.alarm === 'alarm-pressure' ? 'Alarm' : 'Lamp',
        })),
      ),
    },
    analyse: (trace, context) =>
      joinAnswers(
        circuits.map((circuit) =>
          analyseApplications(trace, circuit, context, {
            lever,
            lampId: alarmed.includes(circuit) ? alarmIdOf(circuit) : null,
          }),
        ),
      ),
    limits: (_analysis, context) => circuits.flatMap((circuit) => applicationLimits(circuit, context)),
    pictures: [
      { kind: 'steps', predict: (context) => storeStaircase(first, context) },
      { kind: 'over-time', channels: pressures },
    ],
  };

  function predictedStrokes(store: StoreUnit, context: StepContext<Unit>) {
    return predictApplications(store, {
      pressure: store.cutOut,
      ambient: context.ambient.pressure,
      environment: context.airTemperature,
      precharge: store.precharge,
      spacing: strokeSpacing,
    });
  }

  function applicationLimits(circuit: StoreCircuit<Unit>, context: StepContext<Unit>): Limit[] {
    const store = circuit.storeOf(context.unit);
    const predicted = usefulCount(predictedStrokes(store, context));
    const least = limitFrom(
      { field: 'assistedApplicationsMin', value: store.assistedApplicationsMin ?? undefined },
      {
        key: 'applicationsShare',
        value: Math.max(1, Math.floor(predicted * context.workshopLimits.applicationsShare)),
      },
    );
    const limits: Limit[] = [
      {
        characteristic: idOf('assisted-applications', circuit.place),
        low: least.value,
        high: null,
        expected: predicted,
        standard: 0,
        source: least.source,
      },
    ];
    if (alarmed.includes(circuit))
      limits.push(around(alarmIdOf(circuit), store.lamp, tolerances(store, context).switching));
    return limits;
  }

  return applications;
}
