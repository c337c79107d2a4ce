import { goneOnce } from '../../../procedure/interlock';
import { expandedUncertainty, readingComponents } from '../../../instruments/uncertainty';
import { ownSamples, samplesBetween, type Samples } from '../../../traces/own-samples';
import { findStuck, type Stuck } from '../../../traces/stuck';
import { columnOf, type Trace } from '../../../traces/trace';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import { type GuidePhase, home, wait } from '../../../procedure/guide-phase';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../../procedure/evidence';
import { answer, joinAnswers, saying, type Question } from '../../../procedure/question';
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
  /** Until each store in turn is dead, by strokes or by its bleed valve: one may outlast another. */
  function untilDead(context: StepContext<Unit>, circuit: StoreCircuit<Unit>): GuidePhase {
    const end: GuidePhase['end'] = {
      kind: 'reading',
      channel: circuit.pressure,
      side: 'below',
      level: dead(context, circuit.storeOf(context.unit)).value * 0.3,
      atMost: 240,
    };
    if (kit.emptiedBy === 'bleed')
      return { instruction: { code: 'make-dead-bleed' }, controls: { bleed: 1 }, lever: home, end };
    return {
      instruction: { code: kit.driven === 'motor' ? 'make-dead' : 'make-dead-engine-off', channel: lever },
      controls: {},
      lever: { to: kit.strokeLevel(context), seconds: 0.25, every: 1 },
      end,
    };
  }

  return makeDead();

  function makeDead(): MeasuredStep<Unit> {
    const deadIds = circuits.map((circuit) => idOf('dead-pressure', circuit.place));
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
      proves: ['pressure'],
      repeats: 'last',
      ...(id === 'make-dead-after' ? { interlock: goneOnce('pressure') } : {}),
      feeds: {
        log: {
          needs: pressures,
          uses: [lever],
          leastRows: 2,
          neededRate: 0,
        },
        live: {
          startsFrom: 'charged',
          guide: (context) => [
            wait({ code: 'power-off' }, {}, 1),
            ...circuits.map((circuit) => untilDead(context, circuit)),
            wait({ code: 'read-dead', seconds: 4 }, {}, 4),
          ],
          bands: (context) => bandsOf(context, (store) => [0, dead(context, store).value]),
        },
        dials: {
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
              circuits.map(({ pressure, suffix }): DialAtRest => {
                const reading = values[idOf('dead-pressure', suffix)];
                if (reading === undefined) return { kind: 'unproved', problem: { code: 'not-read' } };
                return seen === undefined || seen >= notSeen
                  ? { kind: 'unproved', problem: { code: 'gauge-not-seen-alive', channel: pressure } }
                  : { kind: 'reads', reading };
              }),
              context,
            );
          },
        },
      },
      analyse: (trace, context) => {
        const strokes = findStrokes(trace, columnOf(trace, lever) ?? new Float64Array(0)).length;
        const read = joinAnswers(circuits.map((circuit) => answer(restingGauge(circuit), trace, context)));
        const unproved = read.characteristics.flatMap((each) =>
          each.kind === 'absent' && each.problem.code !== 'reads-below-zero' ? [each.problem] : [],
        );
        const left = circuits.flatMap((circuit, at) => {
          const found = read.characteristics[at];
          return found.kind === 'measured' && found.estimate.value > limitOf(circuit, context)
            ? [found.estimate.value]
            : [];
        });
        return saying(
          read,
          [
            ...(strokes > 0 ? [{ code: 'strokes-to-dead', strokes } as const] : []),
            ...left.slice(0, 1).map((each) => ({ code: 'not-dead', left: each }) as const),
          ],
          unproved,
        );
      },
      limits: (_analysis, context) =>
        circuits.map((circuit) =>
          atMost(idOf('dead-pressure', circuit.place), dead(context, circuit.storeOf(context.unit)), { expected: 0 }),
        ),
      pictures: [{ kind: 'over-time', channels: pressures }],
    };
  }

  function limitOf(circuit: StoreCircuit<Unit>, context: StepContext<Unit>): number {
    return dead(context, circuit.storeOf(context.unit)).value;
  }

  /** What one gauge reads at the end of a trace that shows it working. */
  function restingGauge(circuit: StoreCircuit<Unit>): Question<StepContext<Unit>, GaugeAtEnd, GaugeAtEnd> {
    const id = idOf('dead-pressure', circuit.place);
    return {
      characteristics: [id],
      happened: (trace, context) => gaugeAtEnd(trace, context, circuit.pressure),
      shows: (found, context) => gaugeEvidence(found, circuit.pressure, limitOf(circuit, context)),
      comesTo: ({ reading }, context) => ({
        characteristics: [deadPressure(reading, circuit, context)],
        events: [],
        notes: [],
      }),
    };
  }

  /** What the dials prove: a figure each where a working gauge at rest gave one, else why it proves nothing. */
  function proof(gauges: readonly DialAtRest[], context: StepContext<Unit>): StepAnalysis {
    const left = gauges.find((gauge, at) => gauge.kind === 'reads' && gauge.reading > limitOf(circuits[at], context));
    return {
      characteristics: circuits.map((circuit, at) => {
        const gauge = gauges[at];
        return gauge.kind === 'reads'
          ? deadPressure(gauge.reading, circuit, context)
          : absent(idOf('dead-pressure', circuit.place), gauge.problem);
      }),
      events: [],
      notes: left?.kind === 'reads' ? [{ code: 'not-dead', left: left.reading }] : [],
      doubts: gauges.flatMap((gauge) => (gauge.kind === 'unproved' ? [gauge.problem] : [])),
    };
  }

  function deadPressure(reading: number, circuit: StoreCircuit<Unit>, context: StepContext<Unit>): Characteristic {
    const id = idOf('dead-pressure', circuit.place);
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

/** What a dial gave at the end: a figure that a working gauge at rest gives, or why it proves nothing. */
type DialAtRest =
  | { readonly kind: 'reads'; readonly reading: number }
  | { readonly kind: 'unproved'; readonly problem: AnalysisProblem };

/** The last reading is the mean of this long, s. */
const lastSeconds = 2;
/** A gauge was seen to work where it fell by at least this many dead limits, and not in one step. */
const fellBy = 2;

/** One gauge over a trace: where it stands at the end and how it came there, Pa gauge. */
interface GaugeAtEnd {
  readonly samples: Samples;
  readonly stuck: Stuck | null;
  /** s, in the trace's clock. */
  readonly end: number;
  /** Samples at the end, and their mean. */
  readonly count: number;
  readonly reading: number;
  readonly highest: number;
}

function gaugeAtEnd(trace: Trace, context: StepContext<unknown>, channel: string): GaugeAtEnd | NoEvidence {
  const column = columnOf(trace, channel);
  if (!column) return noEvidence({ code: 'channel-missing', channel });
  const samples = ownSamples(trace, column);
  const end = trace.time[trace.time.length - 1];
  const last = samplesBetween(samples, end - lastSeconds, end).value;
  return {
    samples,
    stuck: findStuck(samples, context.instruments.get(channel)?.range ?? null),
    end,
    count: last.length,
    reading: last.reduce((sum, each) => sum + each, 0) / last.length,
    highest: samples.value.reduce((most, each) => Math.max(most, each), -Infinity),
  };
}

/** Whether the trace itself shows that the gauge works: it followed a pressure that was there down to what it shows now, and is not stuck there. */
function gaugeEvidence(found: GaugeAtEnd, channel: string, deadLimit: number): Judged<GaugeAtEnd> {
  const { samples, stuck, end, count, reading, highest } = found;
  if (count === 0) return noEvidence({ code: 'too-few-samples', channel, samples: 0, needed: 2 });
  if (stuck && stuck.to > end - lastSeconds)
    return noEvidence({ code: 'gauge-frozen', channel, seconds: stuck.to - stuck.from });
  // A loop that breaks drops in one step from where it stood; a pressure that is let out goes through what lies between.
  const between = samples.value.filter((each) => each > reading + 0.15 * deadLimit && each < 0.95 * highest).length;
  const fell = highest > reading + fellBy * deadLimit && between >= 2;
  return fell && samples.time[0] < end ? evidence(found) : noEvidence({ code: 'gauge-not-seen-alive', channel });
}
