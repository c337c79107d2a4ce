import { makeTrace, type Trace } from '../../../traces/trace';
import { type Limit, limitFrom } from '../../../procedure/limit';
import type { StepAnalysis } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import type { MeasuredStep } from '../../../procedure/step-definition';
import type { TypedField, TypedValues } from '../../../procedure/typed-entry';
import { absent, measured } from '../../../procedure/analysis-result';
import { wait } from '../../../procedure/guide-phase';
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
        ...circuits.flatMap(({ suffix }) => [idOf('half-life', suffix), idOf('internal-leak-flow', suffix)]),
        ...(isolated ? (['levelling-leak-flow'] as const) : []),
      ],
      interlock: { kind: 'dead-once' },
      pressure: 'charges',
      needs: pressures,
      uses: ['air_temperature'],
      leastRows: 2,
      sampleRate: sampleOfHours,
      picture: { kind: 'over-time', channels: pressures },
      startsFrom: 'charged',
      guide: () => [
        wait(
          isolated ? { code: 'soak-isolated', seconds } : { code: 'soak-watch', seconds },
          isolated ? { 'levelling-shut': 1 } : {},
          seconds,
        ),
      ],
      analyse: (trace, context) => analyseSoak(trace, context),
      entry: {
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
      limits: (_analysis, context) => circuits.map((circuit) => halfLifeLimit(circuit, context)),
      bands: (context) => bandsOf(context, (store) => [store.precharge, store.cutOut]),
    };

    function analyseSoak(trace: Trace, context: StepContext<Unit>): StepAnalysis {
      const parts = circuits.map((circuit) => ({ circuit, ...analyseLeakDown(trace, circuit, context) }));
      const leaks = Object.fromEntries(
        parts.flatMap(({ circuit, leak }) => (leak ? [[circuit.suffix, leak] as const] : [])),
      );
      const characteristics = parts.flatMap((part) => part.characteristics);
      if (!isolated)
        return {
          characteristics,
          events: [],
          notes: parts.flatMap((part) => part.notes),
          corrections: { soakLeak: leaks },
        };
      const open = context.corrections.soakLeak[levelled.suffix];
      const shut = leaks[levelled.suffix];
      return {
        characteristics: [
          ...characteristics,
          open && shut
            ? measured('levelling-leak-flow', open.value - shut.value, [
                { source: 'fit', standard: Math.hypot(open.standard, shut.standard), random: true },
              ])
            : absent('levelling-leak-flow', { code: 'not-read' }),
        ],
        events: [],
        notes: parts.flatMap((part) => part.notes),
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
      characteristic: idOf('half-life', circuit.suffix),
      low: value,
      high: null,
      expected: null,
      standard: 0,
      source,
    };
  }
}
