import { goneOnce } from '../../../procedure/interlock';
import { makeTrace, type Trace } from '../../../traces/trace';
import { type Limit, limitFrom } from '../../../procedure/limit';
import { random } from '../../../instruments/uncertainty';
import { evidence, noEvidence } from '../../../procedure/evidence';
import { answer, joinAnswers, withoutCorrections, type Answered, type Question } from '../../../procedure/question';
import type { Found } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import type { MeasuredStep } from '../../../procedure/step-definition';
import type { TypedField, TypedValues } from '../../../procedure/typed-entry';
import { measured } from '../../../procedure/analysis-result';
import { heldWait } from '../../../procedure/guide-phase';
import { plausibleRange } from '../../../dials/plausible-range';
import { analyseLeakDown } from '../analysis/leak-down';
import { idOf, type StoreKit } from './store-kit';
import type { StoreCircuit } from '../model/store-unit';

/** Samples of a watch that lasts hours, Hz. */
const sampleOfHours = 0.2;

/** A figure of a clock: hours from the start of a soak. */
function hours(id: string, title: string, optional: boolean): TypedField {
  return {
    id,
    title,
    hint: '',
    as: 'long-time',
    channel: null,
    expected: null,
    plausible: [600, 60 * 86_400],
    optional,
  };
}

/** Oil lost at cut-out (m3/s) with the levelling open, and shut off. */
interface TwoSoaks {
  readonly open?: Found;
  readonly shut?: Found;
}

/** Soak over hours, with the levelling open or shut off; watched by the stand-in for `seconds`. */
export function soakStep<Unit>(kit: StoreKit<Unit>, id: 'soak' | 'soak-isolated', seconds: number) {
  const { circuits, pressures, bandsOf } = kit;
  return soak();

  function soak(): MeasuredStep<Unit> {
    const isolated = id === 'soak-isolated';
    const levelled = circuits[circuits.length - 1];
    return {
      id,
      kind: 'measured',
      title: isolated ? 'Soak with the levelling shut off' : 'Soak',
      why: isolated
        ? 'The same once more without the levelling: the difference is the levelling’s own leak.'
        : 'Valves that fit metal to metal leak a little by design; how fast is the question. Two readings over hours are enough.',
      minutes: 10,
      cautions: ['stored-pressure'],
      optional: isolated,
      characteristics: [
        ...circuits.flatMap(({ place }) => [idOf('half-life', place), idOf('internal-leak-flow', place)]),
        ...(isolated ? (['levelling-leak-flow'] as const) : []),
      ],
      interlock: goneOnce('pressure'),
      brings: ['pressure'],
      feeds: {
        log: {
          needs: pressures,
          uses: ['air_temperature'],
          leastRows: 2,
          neededRate: 0,
        },
        live: {
          rate: sampleOfHours,
          startsFrom: 'charged',
          guide: () => [
            heldWait(
              isolated ? { code: 'soak-isolated', seconds } : { code: 'soak-watch', seconds },
              isolated ? { 'levelling-shut': 1 } : {},
              seconds,
            ),
          ],
          bands: (context) => bandsOf(context, (store) => [store.precharge, store.cutOut]),
        },
        dials: {
          fields: (context) => [
            ...circuits.flatMap((circuit): TypedField[] => {
              const store = circuit.storeOf(context.unit);
              const name = circuits.length > 1 ? `${circuit.title}: ` : '';
              const gauge = (base: string, title: string, low: number, optional: boolean): TypedField => ({
                id: idOf(base, circuit.suffix),
                title: `${name}${title}`,
                hint: base === 'start' ? 'Ten minutes after the pump has stopped' : '',
                as: 'gauge',
                channel: circuit.pressure,
                expected: { low, high: store.cutOut },
                plausible: plausibleRange('gauge', circuit.pressure, context),
                optional,
              });
              return [
                gauge('start', 'at the start', store.cutIn, false),
                gauge('between', 'in between', store.precharge, true),
                gauge('end', 'at the end', store.precharge, false),
              ];
            }),
            hours('hours', 'Hours from start to end', false),
            hours('hours-between', 'Hours from start to in between', true),
          ],
          analyse: (values, context) => analyseSoak(soakTrace(values), context),
        },
      },
      analyse: (trace, context) => analyseSoak(trace, context),
      limits: (_analysis, context) => circuits.map((circuit) => halfLifeLimit(circuit, context)),
      pictures: [{ kind: 'over-time', channels: pressures }],
    };

    function analyseSoak(trace: Trace, context: StepContext<Unit>): Answered {
      const soaks = joinAnswers(circuits.map((circuit) => analyseLeakDown(trace, circuit, context)));
      if (!isolated) return soaks;
      // What was found with the levelling open stands; this soak is only compared with it.
      return joinAnswers([withoutCorrections(soaks), answer(levellingLeak(soaks), trace, context)]);
    }

    /** What the levelling itself leaks: what was lost with it open less what is lost with it shut off, m3/s at cut-out. */
    function levellingLeak(shutOff: Answered): Question<StepContext<Unit>, TwoSoaks, Required<TwoSoaks>> {
      return {
        characteristics: ['levelling-leak-flow'],
        happened: (_trace, context) => ({
          open: context.corrections.soakLeak[levelled.suffix],
          shut: shutOff.corrections?.soakLeak?.[levelled.suffix],
        }),
        shows: ({ open, shut }) => (open && shut ? evidence({ open, shut }) : noEvidence({ code: 'not-read' })),
        comesTo: ({ open, shut }) => ({
          characteristics: [
            measured('levelling-leak-flow', open.value - shut.value, [
              random('fit', Math.hypot(open.standard, shut.standard)),
            ]),
          ],
          events: [],
          notes: [],
        }),
      };
    }

    function soakTrace(values: TypedValues): Trace {
      const end = values.hours ?? Number.NaN;
      const between = values['hours-between'];
      const time = between > 0 && between < end ? [0, between, end] : [0, end];
      const columns = Object.fromEntries(
        circuits.map((circuit) => {
          const [start, middle, last] = (['start', 'between', 'end'] as const).map(
            (id) => values[idOf(id, circuit.suffix)] ?? Number.NaN,
          );
          return [circuit.pressure, Float64Array.from(time.length === 3 ? [start, middle, last] : [start, last])];
        }),
      );
      return makeTrace(Float64Array.from(time), columns);
    }
  }

  function halfLifeLimit(circuit: StoreCircuit<Unit>, context: StepContext<Unit>): Limit {
    const { value, source } = limitFrom(
      { field: 'halfLifeMinH', value: circuit.storeOf(context.unit).halfLifeMin ?? undefined },
      { key: 'halfLife', value: context.workshopLimits.halfLife },
    );
    return {
      characteristic: idOf('half-life', circuit.place),
      low: value,
      high: null,
      expected: null,
      standard: 0,
      source,
    };
  }
}
