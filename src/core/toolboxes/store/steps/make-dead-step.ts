import { readingComponents } from '../../../instruments/uncertainty';
import { columnOf, meanOf, indexAtTime } from '../../../traces/trace';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import { type GuidePhase, wait } from '../../../procedure/guide-phase';
import type { StepAnalysis } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import type { MeasuredStep } from '../../../procedure/step-definition';
import type { TypedField } from '../../../procedure/typed-entry';
import { absent, measured } from '../../../procedure/analysis-result';
import { atMost } from '../../../procedure/limit';
import { plausibleRange } from '../../../dials/plausible-range';
import { findStrokes } from '../../../traces/strokes';
import { idOf, type StoreKit } from './store-kit';
import type { StoreCircuit } from '../model/store-unit';

/** Makes a system dead and proves it on its gauges: before anything else, and again at the end. */
export function makeDeadStep<Unit>(kit: StoreKit<Unit>, id: 'make-dead-before' | 'make-dead-after') {
  const { circuits, lever, pressures, dead, bandsOf } = kit;
  /** Strokes until each store in turn is dead: one may outlast another. */
  function strokesToDead(context: StepContext<Unit>, circuit: StoreCircuit<Unit>): GuidePhase {
    const level = kit.strokeLevel(context);
    return {
      instruction: { code: kit.driven === 'motor' ? 'make-dead' : 'make-dead-engine-off', channel: lever },
      controls: {},
      lever: { to: level, seconds: 0.25, every: 1 },
      end: {
        kind: 'reading',
        channel: circuit.pressure,
        side: 'below',
        level: dead(context, circuit.storeOf(context.unit)).value * 0.3,
        atMost: 240,
      },
    };
  }

  return makeDead();

  function makeDead(): MeasuredStep<Unit> {
    const deadIds = circuits.map((circuit) => idOf('dead-pressure', circuit.suffix));
    return {
      id,
      kind: 'measured',
      title: id === 'make-dead-before' ? 'Make dead, and prove it' : 'Make dead again',
      why:
        id === 'make-dead-before'
          ? 'Stored pressure stays after the power is off. Nothing that follows opens before the gauge has been read.'
          : 'The unit leaves the bench without pressure, proved on the gauge, or it hurts whoever opens it next.',
      minutes: 3,
      cautions: ['stored-pressure', 'fluid-jet', ...kit.cautions],
      optional: false,
      characteristics: deadIds,
      pressure: 'proves-dead',
      repeats: 'last',
      ...(id === 'make-dead-after' ? { interlock: { kind: 'dead-once' } as const } : {}),
      needs: pressures,
      uses: [lever],
      leastRows: 2,
      picture: { kind: 'over-time', channels: pressures },
      startsFrom: 'charged',
      guide: (context) => [
        wait({ code: 'power-off' }, {}, 1),
        ...circuits.map((circuit) => strokesToDead(context, circuit)),
        wait({ code: 'read-dead', seconds: 4 }, {}, 4),
      ],
      analyse: (trace, context) => {
        const strokes = findStrokes(trace, columnOf(trace, lever) ?? new Float64Array(0)).length;
        const from = indexAtTime(trace, trace.time[trace.time.length - 1] - 2);
        const lasts = circuits.map(
          (circuit) => meanOf(trace.columns[circuit.pressure] ?? new Float64Array(0), from).mean,
        );
        const notes: AnalysisProblem[] = strokes > 0 ? [{ code: 'strokes-to-dead', strokes }] : [];
        return proof(lasts, context, notes);
      },
      entry: {
        fields: (context) =>
          circuits.map((circuit): TypedField => ({
            id: idOf('dead-pressure', circuit.suffix),
            title: circuits.length > 1 ? `${circuit.title}: pressure left` : 'Pressure left',
            hint: 'Off the gauge, after the last stroke has changed nothing',
            as: 'gauge',
            channel: circuit.pressure,
            expected: { low: 0, high: dead(context, circuit.storeOf(context.unit)).value },
            plausible: plausibleRange('gauge', circuit.pressure, context),
            optional: false,
          })),
        analyse: (values, context) =>
          proof(
            circuits.map((circuit) => values[idOf('dead-pressure', circuit.suffix)] ?? Number.NaN),
            context,
            [],
          ),
      },
      limits: (_analysis, context) =>
        circuits.map((circuit) =>
          atMost(idOf('dead-pressure', circuit.suffix), dead(context, circuit.storeOf(context.unit)), { expected: 0 }),
        ),
      bands: (context) => bandsOf(context, (store) => [0, dead(context, store).value]),
    };
  }

  function proof(
    lasts: readonly number[],
    context: StepContext<Unit>,
    notes: readonly AnalysisProblem[],
  ): StepAnalysis {
    const left = lasts.find((value, at) => value > dead(context, circuits[at].storeOf(context.unit)).value);
    return {
      characteristics: circuits.map((circuit, at) => {
        const instrument = context.instruments.get(circuit.pressure);
        const id = idOf('dead-pressure', circuit.suffix);
        return Number.isFinite(lasts[at])
          ? measured(id, lasts[at], instrument ? readingComponents(instrument, lasts[at], context.date) : [])
          : absent(id, { code: 'not-read' });
      }),
      events: [],
      notes: left === undefined ? notes : [...notes, { code: 'not-dead', left }],
    };
  }
}
