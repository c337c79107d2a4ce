import { expandedUncertainty, readingComponents } from '../../../instruments/uncertainty';
import { ownSamples, samplesBetween } from '../../../traces/own-samples';
import { findStuck } from '../../../traces/stuck';
import { columnOf, type Trace } from '../../../traces/trace';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import { type GuidePhase, wait } from '../../../procedure/guide-phase';
import type { Characteristic, StepAnalysis } from '../../../procedure/step-analysis';
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
        const notes: AnalysisProblem[] = strokes > 0 ? [{ code: 'strokes-to-dead', strokes }] : [];
        const gauges = circuits.map((circuit) =>
          restingGauge(trace, context, circuit.pressure, dead(context, circuit.storeOf(context.unit)).value),
        );
        return proof(gauges, context, notes);
      },
      entry: {
        fields: (context) => [
          ...circuits.map((circuit): TypedField => ({
            id: idOf('dead-pressure', circuit.suffix),
            title: circuits.length > 1 ? `${circuit.title}: pressure left` : 'Pressure left',
            hint: 'Off the gauge, after the last stroke has changed nothing',
            as: 'gauge',
            channel: circuit.pressure,
            expected: { low: 0, high: dead(context, circuit.storeOf(context.unit)).value },
            plausible: plausibleRange('gauge', circuit.pressure, context),
            optional: false,
          })),
          {
            id: 'gauge-seen',
            title: circuits.length > 1 ? 'The gauges were seen to move' : 'The gauge was seen to move',
            hint: 'A gauge that never moved may be shut off, blocked or broken: its zero proves nothing',
            as: 'state',
            channel: null,
            expected: null,
            plausible: [0, seenToMove.length - 1],
            optional: false,
            choices: seenToMove,
          } satisfies TypedField,
        ],
        analyse: (values, context) => {
          const seen = values['gauge-seen'];
          return proof(
            circuits.map(({ pressure, suffix }): RestingGauge => {
              const reading = values[idOf('dead-pressure', suffix)];
              if (reading === undefined) return { kind: 'unproved', problem: { code: 'not-read' } };
              return seen === undefined || seen >= notSeen
                ? { kind: 'unproved', problem: { code: 'gauge-not-seen-alive', channel: pressure } }
                : { kind: 'reads', reading };
            }),
            context,
            [],
          );
        },
      },
      limits: (_analysis, context) =>
        circuits.map((circuit) =>
          atMost(idOf('dead-pressure', circuit.suffix), dead(context, circuit.storeOf(context.unit)), { expected: 0 }),
        ),
      bands: (context) => bandsOf(context, (store) => [0, dead(context, store).value]),
    };
  }

  /** What the gauges prove: a figure each where a working gauge at rest gave one, else why it proves nothing. */
  function proof(
    gauges: readonly RestingGauge[],
    context: StepContext<Unit>,
    notes: readonly AnalysisProblem[],
  ): StepAnalysis {
    const left = gauges.find(
      (gauge, at) => gauge.kind === 'reads' && gauge.reading > dead(context, circuits[at].storeOf(context.unit)).value,
    );
    return {
      characteristics: circuits.map((circuit, at) => deadPressure(gauges[at], circuit, context)),
      events: [],
      notes: left?.kind === 'reads' ? [...notes, { code: 'not-dead', left: left.reading }] : notes,
      doubts: gauges.flatMap((gauge) => (gauge.kind === 'unproved' ? [gauge.problem] : [])),
    };
  }

  function deadPressure(gauge: RestingGauge, circuit: StoreCircuit<Unit>, context: StepContext<Unit>): Characteristic {
    const id = idOf('dead-pressure', circuit.suffix);
    if (gauge.kind === 'unproved') return absent(id, gauge.problem);
    const { reading } = gauge;
    const instrument = context.instruments.get(circuit.pressure);
    const components = instrument ? readingComponents(instrument, reading, context.date) : [];
    // No vessel holds less than the air around it: such a reading is the gauge's, its loop's or its sign's.
    return reading < -expandedUncertainty({ value: reading, components })
      ? absent(id, { code: 'reads-below-zero', channel: circuit.pressure, reading })
      : measured(id, reading, components);
  }
}

/** How a gauge was seen to work before its zero was believed; the last is that it was not. */
const seenToMove = [
  'It fell as the strokes were made',
  'Zeroed, then tapped up with a known source',
  'It was not seen to move',
] as const;
const notSeen = seenToMove.length - 1;

/** What a gauge gave at the end: a figure that a working gauge at rest gives, or why it proves nothing. */
type RestingGauge =
  | { readonly kind: 'reads'; readonly reading: number }
  | { readonly kind: 'unproved'; readonly problem: AnalysisProblem };

/** The last reading is the mean of this long, s. */
const lastSeconds = 2;
/** A gauge was seen to work where it fell by at least this many dead limits, and not in one step. */
const fellBy = 2;

/**
 * The reading of one gauge at the end of a trace, where the trace itself shows that the gauge works: it followed a
 * pressure that was there down to what it shows now, and is not stuck at that figure.
 */
function restingGauge(trace: Trace, context: StepContext<unknown>, channel: string, deadLimit: number): RestingGauge {
  const unproved = (problem: AnalysisProblem): RestingGauge => ({ kind: 'unproved', problem });
  const column = columnOf(trace, channel);
  if (!column) return unproved({ code: 'channel-missing', channel });
  const samples = ownSamples(trace, column);
  const { time, value } = samples;
  const end = trace.time[trace.time.length - 1];
  const last = samplesBetween(samples, end - lastSeconds, end);
  if (last.value.length === 0) return unproved({ code: 'too-few-samples', channel, samples: 0, needed: 2 });
  const stuck = findStuck(samples, context.instruments.get(channel)?.range ?? null);
  if (stuck && stuck.to > end - lastSeconds)
    return unproved({ code: 'gauge-frozen', channel, seconds: stuck.to - stuck.from });
  const reading = last.value.reduce((sum, each) => sum + each, 0) / last.value.length;
  // A loop that breaks drops in one step from where it stood; a pressure that is let out goes through what lies between.
  const highest = value.reduce((most, each) => Math.max(most, each), -Infinity);
  const between = value.filter((each) => each > reading + 0.15 * deadLimit && each < 0.95 * highest).length;
  const fell = highest > reading + fellBy * deadLimit && between >= 2;
  if (!fell || time[0] >= end) return unproved({ code: 'gauge-not-seen-alive', channel });
  return { kind: 'reads', reading };
}
