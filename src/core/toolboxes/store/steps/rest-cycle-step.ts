import { goneOnce } from '../../../procedure/interlock';
import { makeTrace } from '../../../traces/trace';
import { type Limit, around, atMost, limitFrom } from '../../../procedure/limit';
import type { StepAnalysis } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import type { MeasuredStep } from '../../../procedure/step-definition';
import type { TypedField, TypedValues } from '../../../procedure/typed-entry';
import { nothingMeasured } from '../../../procedure/analysis-result';
import { home, wait } from '../../../procedure/guide-phase';
import { plausibleRange } from '../../../dials/plausible-range';
import { analyseRestCycles } from '../analysis/cycle-analysis';
import { cycleMap, predictCycle } from '../model/cycle-map';
import type { CyclePoint } from '../../../procedure/expected';
import { soundCircuit } from '../model/charging-circuit';
import { idOf, type StoreKit } from './store-kit';
import type { StoreCircuit } from '../model/store-unit';

/** Run and rest of the pump with nobody on the pedal. */
export function restCycleStep<Unit>(kit: StoreKit<Unit>) {
  const { circuits, live, first, storesOf, surroundingsOf, motorLimit, withOverrun, bandsOf, pressures, pumps } = kit;
  const soundCycles = (context: StepContext<Unit>): (CyclePoint | null)[] =>
    storesOf(context).map((store) => predictCycle(store, soundCircuit(), surroundingsOf(context)));

  /** Whole cycles that are watched: two rests must agree. */
  const cyclesWatched = 3;

  const restCycle: MeasuredStep<Unit> = {
    id: 'rest-cycle',
    kind: 'measured',
    title: 'Run and rest',
    why: 'How long the pump runs and how long it rests with nobody on the pedal tells gas, leak, pump and switch apart.',
    minutes: 12,
    cautions: kit.driven === 'motor' ? ['wakes-by-itself', 'motor-duty'] : ['running-engine'],
    optional: false,
    characteristics: circuits.flatMap(({ place }) => [
      idOf('run-time', place),
      idOf('rest-time', place),
      idOf('internal-leak-flow', place),
    ]),
    interlock: goneOnce('pressure'),
    brings: ['pressure'],
    feeds: {
      log: {
        needs: [...pressures, ...pumps],
        uses: [],
        leastRows: 30,
        neededRate: 1,
      },
      live: {
        rate: 20,
        startsFrom: 'charged',
        guide: (context) => {
          const longest = Math.max(...soundCycles(context).map((cycle) => (cycle ? cycle.rest + cycle.run : 600)));
          const slowest =
            circuits[soundCycles(context).findIndex((cycle) => cycle && cycle.rest + cycle.run >= longest - 1)] ??
            first;
          return [
            {
              instruction: { code: 'leave-cycling', times: cyclesWatched },
              controls: live,
              lever: home,
              end: { kind: 'switched', channel: slowest.pump, to: 0, times: cyclesWatched, atMost: 12 * longest + 60 },
              duty: motorLimit(context),
            },
            wait({ code: 'rest', seconds: 2 }, live, 2),
          ];
        },
        bands: (context) => bandsOf(context, (store) => [store.cutIn, store.cutOut]),
      },
      dials: {
        fields: (context) =>
          circuits.flatMap((circuit, at): TypedField[] => {
            const sound = soundCycles(context)[at];
            const name = circuits.length > 1 ? `${circuit.title}: ` : '';
            const watch = (id: string, title: string, value: number | undefined): TypedField => ({
              id,
              title: `${name}${title}`,
              hint: 'By the watch, once two in succession agree',
              as: 'time',
              channel: null,
              expected: value === undefined ? null : { low: value * 0.7, high: value * 1.6 },
              plausible: [0.2, 6 * 3600],
              optional: false,
            });
            const store = circuit.storeOf(context.unit);
            const gauge = (id: string, title: string, value: number): TypedField => ({
              id,
              title: `${name}${title}`,
              hint: 'Off the gauge as it switches',
              as: 'gauge',
              channel: circuit.pressure,
              expected: { low: value * 0.95, high: value * 1.05 },
              plausible: plausibleRange('gauge', circuit.pressure, context),
              optional: false,
            });
            return [
              gauge(idOf('low', circuit.suffix), 'starts at', store.cutIn),
              gauge(idOf('high', circuit.suffix), 'stops at', store.cutOut),
              watch(idOf('run', circuit.suffix), 'runs for', sound?.run),
              watch(idOf('rest', circuit.suffix), 'rests for', sound?.rest),
            ];
          }),
        analyse: (values, context) => typedCycles(values, context),
      },
    },
    analyse: (trace, context) => withOverrun(trace, context, analyseRestCycles(trace, circuits, context)),
    limits: (analysis, context) =>
      circuits.flatMap((circuit, at) => cycleLimits(circuit, soundCycles(context)[at], analysis, context)),
    pictures: [
      {
        kind: 'map',
        maps: (context) =>
          circuits.flatMap((circuit) => {
            const map = cycleMap(circuit.storeOf(context.unit), surroundingsOf(context), {
              circuit: circuit.suffix,
              title: circuit.title,
            });
            return map ? [map] : [];
          }),
      },
      { kind: 'over-time', channels: [...pressures, ...pumps], openEnded: true },
    ],
  };

  /** Cycles as the watch and the gauge saw them, made into a trace that the step's own analysis reads. */
  function typedCycles(values: TypedValues, context: StepContext<Unit>): StepAnalysis {
    const columns: Record<string, Float64Array> = {};
    const cycles = 4;
    const perSecond = 4;
    const of = (circuit: StoreCircuit<Unit>) =>
      (['low', 'high', 'run', 'rest'] as const).map((id) => values[idOf(id, circuit.suffix)]);
    if (circuits.some((circuit) => of(circuit).some((value) => !(value > 0))))
      return nothingMeasured(restCycle.characteristics, { code: 'not-read' });
    const longest = Math.max(...circuits.map((circuit) => of(circuit)[2] + of(circuit)[3])) * cycles;
    const count = Math.min(40_000, Math.ceil(longest * perSecond));
    const time = Float64Array.from({ length: count }, (_, i) => (i * longest) / count);
    for (const circuit of circuits) {
      const [low, high, run, rest] = of(circuit);
      const at = (t: number) => (t % (run + rest)) - rest;
      columns[circuit.pressure] = time.map((t) =>
        at(t) < 0 ? low - ((high - low) * at(t)) / rest : low + ((high - low) * at(t)) / run,
      );
      columns[circuit.pump] = time.map((t) => (at(t) >= 0 ? 1 : 0));
    }
    return analyseRestCycles(makeTrace(time, columns), circuits, context);
  }

  function cycleLimits(
    circuit: StoreCircuit<Unit>,
    sound: CyclePoint | null,
    analysis: StepAnalysis,
    context: StepContext<Unit>,
  ): Limit[] {
    const store = circuit.storeOf(context.unit);
    const shop = context.workshopLimits;
    const has = (id: Limit['characteristic']) =>
      analysis.characteristics.length === 0 || analysis.characteristics.some((each) => each.id === id);
    const limits: Limit[] = [];
    if (sound)
      limits.push(
        around(idOf('run-time', circuit.place), sound.run, {
          value: shop.runTimeTolerance,
          source: { kind: 'workshop', key: 'runTimeTolerance' },
        }),
      );
    if (store.restTimeMin !== null)
      limits.push({
        characteristic: idOf('rest-time', circuit.place),
        low: store.restTimeMin,
        high: null,
        expected: sound?.rest ?? null,
        standard: 0,
        source: { kind: 'sheet', field: 'restTimeMinS' },
      });
    limits.push(
      atMost(
        idOf('internal-leak-flow', circuit.place),
        limitFrom(
          { field: 'internalLeakMaxCm3PerMin', value: store.internalLeakMax ?? undefined },
          { key: 'internalLeakFactor', value: shop.internalLeakFactor * store.internalLeak },
        ),
        { expected: store.internalLeak },
      ),
    );
    return limits.filter((limit) => has(limit.characteristic));
  }

  return restCycle;
}
