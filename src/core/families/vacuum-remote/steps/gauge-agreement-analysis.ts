import { fitLine, lineAt } from '../../../fitting/line';
import { random, readingComponents } from '../../../instruments/uncertainty';
import type { CharacteristicId } from '../../../quantities/characteristics';
import { ownSamples } from '../../../traces/own-samples';
import { neverMoved } from '../../../traces/stuck';
import { noiseOf } from '../../../traces/smoothing';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../../traces/trace';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import { evidence, noEvidence, type NoEvidence } from '../../../procedure/evidence';
import { answer, type Answered, type Question } from '../../../procedure/question';
import type { Corrections, StepAnalysis, TraceEvent } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import { measured, nothingMeasured } from '../../../procedure/analysis-result';
import { findLevels, type Level } from '../../../traces/levels';

const ids: readonly CharacteristicId[] = ['pair-offset', 'pair-gain'];
const leastLevels = 3;

/** Supply above this counts as "vacuum on", Pa. */
const vacuumOn = 10_000;

export interface LevelPair {
  readonly input: number;
  readonly output: number;
  readonly standard: number;
}

function resolutionOf(channel: string, context: StepContext<unknown>): number {
  return (context.instruments.get(channel)?.resolution ?? 0) / Math.sqrt(12);
}

type Tee = Corrections['vacuumPair'];

/** Vacuum gauges compared on one tee while the unit is shut off: control minus supply. Null where they were not. */
function vacuumPair(trace: Trace, context: StepContext<unknown>): Tee {
  const supply = columnOf(trace, 'supply_vacuum');
  const control = columnOf(trace, 'control_vacuum');
  if (!supply || !control) return null;
  const on = [...supply.keys()].filter((i) => supply[i] > vacuumOn && control[i] > vacuumOn);
  if (on.length * sampleInterval(trace) < 1) return null;
  const settled = on.slice(Math.floor(on.length / 3));
  const difference = meanOf(Float64Array.from(settled, (i) => control[i] - supply[i]));
  return {
    difference: difference.mean,
    standard: Math.hypot(
      difference.deviation / Math.sqrt(difference.count),
      resolutionOf('supply_vacuum', context),
      resolutionOf('control_vacuum', context),
    ),
  };
}

/**
 * Agreement of two vacuum gauges on one tee (Pa vacuum), for a unit without a second hydraulic gauge. Control minus
 * supply is corrected in what follows only where it is inside `limit` (Pa). Channels `supply_vacuum`, `control_vacuum`.
 */
export function analyseVacuumPair(trace: Trace, context: StepContext<unknown>, limit: number): Answered {
  const question: Question<StepContext<unknown>, { tee: Tee }, { tee: NonNullable<Tee> }> = {
    characteristics: ['vacuum-pair-offset'],
    happened: (read) => ({ tee: vacuumPair(read, context) }),
    shows: ({ tee }) => (tee ? evidence({ tee }) : noEvidence({ code: 'vacuum-pair-not-measured' })),
    comesTo: ({ tee }) => ({
      characteristics: [measured('vacuum-pair-offset', tee.difference, [random('fit', tee.standard)])],
      events: [],
      notes: [],
      corrections: { vacuumPair: Math.abs(tee.difference) <= limit ? tee : null },
    }),
  };
  return answer(question, trace, context);
}

/** What one pair of gauges showed: their levels with the vacuum off, and whether each moved at all. */
interface PairFound {
  readonly trace: Trace;
  readonly levels: readonly Level[];
  /** Gauges that stood at one figure from first to last. */
  readonly frozen: readonly string[];
  readonly tee: Tee;
}

function findPair(trace: Trace, context: StepContext<unknown>): PairFound | NoEvidence {
  const input = columnOf(trace, 'input_pressure');
  if (!input || !columnOf(trace, 'output_pressure')) return noEvidence({ code: 'no-pull', channel: 'input_pressure' });
  const supply = trace.columns.supply_vacuum;
  const vacuumOff = (level: Level) => !supply || !(meanOf(supply, level.from, level.to).mean > vacuumOn);
  const frozen = ['input_pressure', 'output_pressure'].filter((channel) =>
    neverMoved(ownSamples(trace, trace.columns[channel])),
  );
  return { trace, levels: findLevels(trace, input).filter(vacuumOff), frozen, tee: vacuumPair(trace, context) };
}

/** Pairs of levels: input, output and the doubt of one (Pa gauge). */
function pairsOf({ trace, levels }: PairFound, context: StepContext<unknown>): LevelPair[] {
  const { input_pressure: input, output_pressure: output } = trace.columns;
  const noise = Math.hypot(noiseOf(input), noiseOf(output));
  return levels.map(({ from, to, mean }): LevelPair => {
    const out = meanOf(output, from, to);
    const standard = Math.hypot(
      noise / Math.sqrt(Math.max(1, out.count)),
      resolutionOf('input_pressure', context),
      resolutionOf('output_pressure', context),
    );
    return { input: mean, output: out.mean, standard: Math.max(standard, 1) };
  });
}

/**
 * Agreement of the hydraulic pair with the vacuum off: output = offset + gain · input by weighted least
 * squares over at least three levels up and down, input gauge the reference (Pa gauge). The vacuum pair is
 * compared where both read vacuum. The gauges' classes do not enter: the pair is compared at one moment, and
 * what the pair deviates from a straight line shows in the scatter of its levels. The pair is corrected only when its error is inside `limit`
 * (fraction of the reading, at least `floor` of the gauge's range) at every level above zero.
 */
export function analyseGaugeAgreement(
  trace: Trace,
  context: StepContext<unknown>,
  limit: { readonly fraction: number; readonly floor: number },
): Answered {
  const question: Question<StepContext<unknown>, PairFound, PairFound & { readonly pairs: readonly LevelPair[] }> = {
    characteristics: ids,
    happened: findPair,
    shows: (found) => {
      const [still] = found.frozen;
      if (still) return noEvidence({ code: 'gauge-never-moved', channel: still });
      const events = levelEvents(found);
      const pairs = pairsOf(found, context);
      const few = tooFewLevels(pairs);
      return few ? noEvidence(few, { events }) : evidence({ ...found, pairs });
    },
    comesTo: (shown) => ({ ...agreementOf(shown.pairs, shown.tee, context, limit), events: levelEvents(shown) }),
  };
  return answer(question, trace, context);
}

const levelEvents = ({ trace, levels }: PairFound): TraceEvent[] =>
  levels.map((level) => ({ id: 'hold', time: trace.time[level.from], y: level.mean }));

/** Levels that are too few to draw a line through; null where they are enough. */
function tooFewLevels(pairs: readonly LevelPair[]): AnalysisProblem | null {
  const highest = Math.max(...pairs.map((pair) => pair.input));
  const distinct = new Set(pairs.map((pair) => Math.round((pair.input / highest) * 20)));
  return distinct.size < leastLevels ? { code: 'too-few-levels', found: distinct.size, needed: leastLevels } : null;
}

/** What pairs of levels say of two gauges, the first the reference; see `analyseGaugeAgreement`. */
export function agreementOf(
  pairs: readonly LevelPair[],
  tee: Tee,
  context: StepContext<unknown>,
  limit: { readonly fraction: number; readonly floor: number },
): StepAnalysis {
  const few = tooFewLevels(pairs);
  if (few) return nothingMeasured(ids, few);
  const highest = Math.max(...pairs.map((pair) => pair.input));
  const line = fitLine(
    pairs.map((pair) => pair.input),
    pairs.map((pair) => pair.output),
    { weights: pairs.map((pair) => 1 / pair.standard ** 2) },
  );
  if (line.termination !== 'converged')
    return nothingMeasured(ids, { code: 'fit-failed', termination: line.termination });
  // With few levels the scatter is a poor witness: never less than the levels' own uncertainty allows.
  const prior = priorVariances(pairs);
  const gainStandard = Math.sqrt(Math.max(line.slopeVariance, prior.gain));
  const offsetStandard = Math.sqrt(Math.max(line.interceptVariance, prior.offset));

  const range = context.instruments.get('input_pressure')?.range ?? highest;
  const judged = pairs.filter((pair) => pair.input > 0.05 * highest);
  const allow = (at: number) => Math.max(limit.fraction * at, limit.floor * range);
  const allowedGain = [
    Math.max(...judged.map(({ input: at }) => 1 + (-allow(at) - line.intercept) / at)),
    Math.min(...judged.map(({ input: at }) => 1 + (allow(at) - line.intercept) / at)),
  ] as const;
  const applied = line.slope >= allowedGain[0] && line.slope <= allowedGain[1];
  const worst = judged
    .map(({ input: at }) => ({ at, error: lineAt(line, at).value - at }))
    .reduce((most, each) =>
      Math.abs(each.error) - allow(each.at) > Math.abs(most.error) - allow(most.at) ? each : most,
    );
  const notes: AnalysisProblem[] = [
    applied
      ? { code: 'pair-corrected', gain: line.slope, offset: line.intercept }
      : { code: 'pair-not-corrected', worst: worst.error, at: worst.at },
  ];
  if (!tee) notes.push({ code: 'vacuum-pair-not-measured' });
  return {
    characteristics: [
      measured('pair-offset', line.intercept, [random('fit', offsetStandard)]),
      measured('pair-gain', line.slope, [random('fit', gainStandard)]),
    ],
    events: [],
    notes,
    corrections: {
      pair: { offset: line.intercept, gain: line.slope, offsetStandard, gainStandard, applied, allowedGain },
      vacuumPair: tee,
    },
  };
}

function priorVariances(pairs: readonly LevelPair[]): { gain: number; offset: number } {
  let s = 0;
  let sx = 0;
  let sxx = 0;
  for (const { input, standard } of pairs) {
    const w = 1 / standard ** 2;
    s += w;
    sx += w * input;
    sxx += w * input * input;
  }
  const determinant = s * sxx - sx * sx;
  return { gain: s / determinant, offset: sxx / determinant };
}

/** Pair error when the pair was not measured at all: both gauges' own classes, as a fraction of the reading. */
export function unmeasuredPairStandard(context: StepContext<unknown>, reading: number): number {
  const parts = ['input_pressure', 'output_pressure'].flatMap((channel) => {
    const instrument = context.instruments.get(channel);
    return instrument
      ? readingComponents(instrument, reading, context.date).filter((p) => p.source === 'gauge-gain')
      : [];
  });
  const total = Math.sqrt(parts.reduce((sum, part) => sum + part.standard ** 2, 0));
  return reading > 0 ? total / reading : 0;
}
