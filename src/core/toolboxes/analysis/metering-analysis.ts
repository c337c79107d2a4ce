import type { FollowingLag } from '../../fitting/following-lag';
import { fitLine, lineAt, type LineFit } from '../../fitting/line';
import { binByX, fitSegments } from '../../fitting/segments';
import {
  differenceComponents,
  differenceResolution,
  random,
  readingComponents,
  systematic,
  unreadZero,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import { absent, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import {
  asRead,
  fewestOnLine,
  findLeverPull,
  followLever,
  lagNotes,
  leverSpeed,
  pullEvidence,
  type Following,
  type PullFound,
} from '../../procedure/pull-evidence';
import type { Characteristic, StepAnalysis, TraceEvent } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { scatterOf } from '../../traces/own-samples';
import type { Pull, Span } from '../../traces/pull';
import { columnOf, meanOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';

const { abs, floor, hypot, max, min, sqrt } = Math;

/** A lever's channel against both brake circuits. */
export interface MeteringSetup {
  readonly lever: 'pedal_angle' | 'pedal_force';
  /** What the valve meters from, where it is recorded, and the least of it that its regulated maximum needs, Pa gauge. */
  readonly supply: { readonly channels: readonly string[]; readonly least: number };
  readonly ids: {
    readonly cutIn: 'cut-in-travel' | 'cut-in-force';
    readonly slope: 'modulation-slope' | 'metering-slope';
    readonly maximum: 'regulated-maximum' | null;
    readonly hysteresis: 'angle-hysteresis' | null;
  };
}

const searchBins = 160;
const trim = 0.1;
/** A line that rises by less than this share of the modulating slope is the regulated maximum. */
const flatShare = 0.3;
/** Pieces of the lever's way in which the circuits are compared. */
const comparedAt = 24;

type Context = StepContext<unknown>;

/** One circuit over the lever, zeros taken off: SI. */
interface Circuit {
  readonly channel: string;
  readonly pull: Pull;
  readonly lag: FollowingLag;
  readonly lever: Float64Array;
  readonly pressure: Float64Array;
  /** Standard uncertainty of the zero taken off, Pa. */
  readonly zero: number;
}

/** What the front circuit's apply branch is made of. */
interface Branches {
  readonly line: LineFit;
  readonly cutIn: number;
  readonly low: number;
  readonly high: number;
  readonly saturates: boolean;
}

function circuitOf(trace: Trace, following: Following, channel: string, context: Context): Circuit {
  const { pull } = following;
  const rest = meanOf(trace.columns[channel], pull.restBefore.from, pull.restBefore.to);
  const read = pull.zero !== null && Number.isFinite(rest.mean);
  const instrument = context.instruments.get(channel);
  return {
    channel,
    pull,
    lag: following.lag,
    lever: following.lever,
    pressure: following.output.map((value) => value - (read ? rest.mean : 0)),
    zero: read ? rest.deviation / sqrt(max(1, rest.count)) : instrument ? unreadZero(instrument, context.date) : 0,
  };
}

/** Joints and line of an apply branch; what keeps it from having one. */
function branchesOf({ lever, pressure, pull, channel }: Circuit, regulated: boolean): Branches | AnalysisProblem {
  const { from, to } = pull.apply;
  const three = fitSegments(binByX(lever.subarray(from, to), pressure.subarray(from, to), searchBins), 3);
  if (three.termination !== 'converged' && three.termination !== 'max-iterations')
    return { code: 'fit-failed', termination: three.termination };
  const [, rise, flat] = three.slopes;
  const saturates = regulated && flat < flatShare * rise;
  const low = three.breaks[0];
  const high = saturates ? three.breaks[1] : pull.peak;
  const margin = trim * (high - low);
  const line = fitLine(lever, pressure, {
    from,
    to,
    keep: (i) => lever[i] > low + margin && lever[i] < high - margin,
  });
  if (line.count < fewestOnLine) return { code: 'too-few-samples', channel, samples: line.count, needed: fewestOnLine };
  if (line.termination !== 'converged' || line.slope <= 0) return { code: 'fit-failed', termination: line.termination };
  return { line, cutIn: -line.intercept / line.slope, low, high, saturates };
}

/**
 * Modulation curve of two circuits from one slow press and its way back: cut-in where the modulating line meets zero, its
 * slope, the regulated maximum while held, hysteresis at half of it, and the largest difference of the circuits at one place of
 * the lever. Each circuit is compared with the lever as late as its own line is. Channels: the lever's, `front_pressure`,
 * `rear_pressure`.
 */
export function analyseMetering(trace: Trace, context: Context, setup: MeteringSetup): Answered {
  const { ids, lever } = setup;
  const outputs = ['front_pressure', ...(columnOf(trace, 'rear_pressure') ? ['rear_pressure'] : [])];
  const question: Question<Context, PullFound, ShownMetering> = {
    characteristics: [
      ids.cutIn,
      ids.slope,
      ...(ids.maximum ? [ids.maximum] : []),
      ...(ids.hysteresis ? [ids.hysteresis] : []),
      'circuit-difference',
    ],
    happened: (read) => findLeverPull(read, { lever, outputs, instruments: context.instruments }),
    shows: (found) => meteringEvidence(found, context, setup),
    comesTo: (shown) => curveOf(shown, context, setup),
  };
  return answer(question, trace, context);
}

/** A slow press of a valve that was fed: its circuits over the lever, and the lines of the front one. */
interface ShownMetering {
  readonly rows: Trace;
  readonly pull: Pull;
  readonly front: Circuit;
  readonly rear: Circuit | null;
  readonly lines: Branches;
}

function meteringEvidence(found: PullFound, context: Context, setup: MeteringSetup): Judged<ShownMetering> {
  const judged = pullEvidence(found);
  if (judged.kind === 'none')
    return judged.problem.code === 'no-pull' && setup.lever === 'pedal_angle'
      ? noEvidence({ code: 'no-angle' })
      : judged;
  const shown = judged.found;
  const { trace: rows, pull } = shown;
  const starved = starvedSupply(rows, pull, setup.supply);
  if (starved) return noEvidence(starved);
  const regulated = setup.ids.maximum !== null;
  const asWritten = branchesOf(circuitOf(rows, asRead(shown, 'front_pressure'), 'front_pressure', context), regulated);
  if ('code' in asWritten) return noEvidence(asWritten);
  // Where the pressure is regulated it stands before the lever does, and tells nothing of its lag.
  const topFrom = asWritten.saturates ? pull.peak : asWritten.low + 0.3 * (asWritten.high - asWritten.low);
  const follow = (channel: string) =>
    circuitOf(rows, followLever(shown, channel, { topFrom }, context.instruments), channel, context);
  const front = follow('front_pressure');
  const lines = branchesOf(front, regulated);
  if ('code' in lines) return noEvidence(lines);
  const rear = columnOf(rows, 'rear_pressure') ? follow('rear_pressure') : null;
  return evidence({ rows, pull, front, rear, lines });
}

function curveOf(shown: Evidence<ShownMetering>, context: Context, setup: MeteringSetup): StepAnalysis {
  const { rows, pull, front, rear, lines: found } = shown;
  const { lever, ids } = setup;
  const held = meanOf(front.pressure, front.pull.plateau.from, front.pull.plateau.to);
  const notes: AnalysisProblem[] = [
    ...(pull.zero === null ? [{ code: 'no-rest-before' } as const] : []),
    ...lagNotes(front, 'front_pressure'),
  ];
  const difference = rear
    ? differenceOf(rows, front, rear, found, { context, lever, notes })
    : absent('circuit-difference', { code: 'channel-missing', channel: 'rear_pressure' });
  const events: TraceEvent[] = [{ id: 'cut-in', time: null, x: found.cutIn, y: 0 }];
  if (found.saturates) events.push({ id: 'regulated', time: null, x: found.high, y: held.mean });
  return {
    characteristics: [
      ...cutInAndSlope(rows, front, found, context, setup),
      ...(ids.maximum === null
        ? []
        : [
            found.saturates
              ? measured(ids.maximum, held.mean, [
                  random('noise', hypot(held.deviation / sqrt(held.count), front.zero)),
                  ...gaugeParts(context, 'front_pressure', held.mean),
                ])
              : absent(ids.maximum, { code: 'relief-not-reached', peak: held.mean }),
          ]),
      ...(ids.hysteresis === null
        ? []
        : [hysteresisOf(rows, front, found, { context, lever, id: ids.hysteresis, held: held.mean })]),
      difference,
    ],
    events,
    notes,
  };
}

/** A store that was below what the valve must be able to give; null where there was enough, or none was recorded. */
function starvedSupply(rows: Trace, { apply, plateau }: Pull, supply: MeteringSetup['supply']): AnalysisProblem | null {
  for (const channel of supply.channels) {
    const column = columnOf(rows, channel);
    if (!column) continue;
    const { mean, count } = meanOf(column, apply.from, plateau.to);
    if (count > 0 && mean < supply.least)
      return { code: 'too-little-pressure', channel, pressure: mean, needed: supply.least };
  }
  return null;
}

function gaugeParts({ instruments, date }: Context, channel: string, value: number): UncertaintyComponent[] {
  const instrument = instruments.get(channel);
  return instrument ? [differenceResolution(instrument), ...differenceComponents(instrument, 0, value, date)] : [];
}

const rss = (parts: readonly { readonly standard: number }[]) => hypot(...parts.map((part) => part.standard));

/** What is not known of a circuit's lag shifts its branch along the lever by this much. */
function late(rows: Trace, { pull, lag }: Circuit, span: Span, at: number): number {
  return lag.standard * leverSpeed(rows, pull, span, at - (pull.zero ?? 0));
}

function cutInAndSlope(
  rows: Trace,
  front: Circuit,
  { line, cutIn, low, high }: Branches,
  context: Context,
  { lever, ids }: MeteringSetup,
): Characteristic[] {
  const instrument = context.instruments.get(lever);
  const reach = high - low;
  return [
    measured(ids.cutIn, cutIn, [
      random('fit', hypot(sqrt(lineAt(line, cutIn).variance), front.zero) / line.slope),
      systematic('timing', late(rows, front, front.pull.apply, cutIn)),
      ...(instrument ? readingComponents(instrument, cutIn, context.date) : []),
    ]),
    measured(ids.slope, line.slope, [
      random('fit', sqrt(line.slopeVariance)),
      systematic(
        'gauge-gain',
        line.slope *
          hypot(
            rss(gaugeParts(context, lever, reach)) / reach,
            rss(gaugeParts(context, 'front_pressure', line.slope * reach)) / (line.slope * reach),
          ),
      ),
    ]),
  ];
}

interface Back {
  readonly context: Context;
  readonly lever: string;
  readonly id: 'angle-hysteresis';
  readonly held: number;
}

/** Lever, apply minus way back, at half of what is held. */
function hysteresisOf(
  rows: Trace,
  front: Circuit,
  { line, cutIn, high, saturates }: Branches,
  { context, lever, id, held }: Back,
): Characteristic {
  const { wayBack } = front.pull;
  const half = (saturates ? held : line.slope * (high - cutIn)) / 2;
  if (wayBack.to - wayBack.from < fewestOnLine || wayBack.to >= front.lever.length)
    return absent(id, { code: 'no-way-back' });
  const { pressure } = front;
  const back = fitLine(front.lever, pressure, {
    ...wayBack,
    keep: (i) => pressure[i] > 0.5 * half && pressure[i] < 1.5 * half,
  });
  if (back.termination !== 'converged' || back.slope <= 0)
    return absent(id, { code: 'fit-failed', termination: back.termination });
  const applied = (half - line.intercept) / line.slope;
  const released = (half - back.intercept) / back.slope;
  const instrument = context.instruments.get(lever);
  return measured(id, applied - released, [
    random(
      'fit',
      hypot(sqrt(lineAt(line, applied).variance) / line.slope, sqrt(lineAt(back, released).variance) / back.slope),
    ),
    // What is not known of a lag counts twice: the pressure comes late while pressing and goes late while letting back.
    systematic('timing', late(rows, front, front.pull.apply, applied) + late(rows, front, wayBack, released)),
    ...(instrument ? differenceComponents(instrument, released, applied, context.date) : []),
  ]);
}

interface Compared {
  readonly context: Context;
  readonly lever: string;
  readonly notes: AnalysisProblem[];
}

/** Means of a circuit in equal pieces of the lever's way to its top, each brought to the piece's middle along `slope`. */
function alongLever({ lever, pressure, pull }: Circuit, { cutIn, line }: Branches, from: number, to: number) {
  const width = (to - from) / comparedAt;
  const pieces = Array.from({ length: comparedAt }, () => ({ sum: 0, count: 0 }));
  for (let i = pull.apply.from; i < pull.apply.to; i++) {
    const k = floor((lever[i] - from) / width);
    if (!(k >= 0 && k < comparedAt) || Number.isNaN(pressure[i])) continue;
    const middle = from + (k + 0.5) * width;
    const rising = middle > cutIn ? line.slope : 0;
    pieces[k].sum += pressure[i] - rising * (lever[i] - middle);
    pieces[k].count++;
  }
  return pieces;
}

/** Largest difference of two circuits at one place of the lever, while pressing and while held. */
function differenceOf(
  rows: Trace,
  front: Circuit,
  rear: Circuit,
  found: Branches,
  { context, lever, notes }: Compared,
): Characteristic {
  const noise = hypot(scatterOf({ value: front.pressure }), scatterOf({ value: rear.pressure }));
  const zeros = hypot(front.zero, rear.zero);
  // Beyond where the pressure is regulated the lever only turns on: there the circuits are compared while it is held.
  const to = found.saturates ? found.high : front.pull.peak;
  const [mine, others] = [front, rear].map((circuit) => alongLever(circuit, found, found.low, to));
  const { plateau } = front.pull;
  const heldApart =
    meanOf(front.pressure, plateau.from, plateau.to).mean - meanOf(rear.pressure, plateau.from, plateau.to).mean;
  let worst = { apart: heldApart, at: front.pull.peak, standard: noise / sqrt(max(1, plateau.to - plateau.from)) };
  for (let k = 0; k < comparedAt; k++) {
    const [p, q] = [mine[k], others[k]];
    const count = min(p.count, q.count);
    if (count < 3) continue;
    const apart = p.sum / p.count - q.sum / q.count;
    const at = found.low + ((k + 0.5) * (to - found.low)) / comparedAt;
    // Both lags are not known quite: each shifts its circuit along the slope.
    const shift =
      found.line.slope * hypot(late(rows, front, front.pull.apply, at), late(rows, rear, rear.pull.apply, at));
    const standard = hypot(noise / sqrt(count), shift);
    if (abs(apart) > abs(worst.apart)) worst = { apart, at, standard };
  }
  const level = found.line.slope * max(0, min(worst.at, found.high) - found.cutIn);
  notes.push({ code: 'circuits-differ-at', channel: lever, at: worst.at, difference: abs(worst.apart) });
  return measured('circuit-difference', abs(worst.apart), [
    random('noise', hypot(worst.standard, zeros)),
    ...gaugeParts(context, 'front_pressure', level),
    ...gaugeParts(context, 'rear_pressure', level),
  ]);
}
