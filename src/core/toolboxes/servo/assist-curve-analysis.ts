import { fitLine, lineAt, type LineFit } from '../../fitting/line';
import type { FollowingLag } from '../../fitting/following-lag';
import {
  differenceComponents,
  differenceResolution,
  random,
  systematic,
  unreadZero,
} from '../../instruments/uncertainty';
import type { UncertaintyComponent } from '../../instruments/uncertainty';
import type { CharacteristicId } from '../../quantities/characteristics';
import { scatterOf } from '../../traces/own-samples';
import type { Pull, Span } from '../../traces/pull';
import { movingMean } from '../../traces/smoothing';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { absent, beyond, measured } from '../../procedure/analysis-result';
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
  type ShownPull,
} from '../../procedure/pull-evidence';
import { supplyDuringPull, supplySag, type SupplyDuringPull } from './supply-during-pull';
import type { Characteristic, StepAnalysis, TraceEvent } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { fitAssistLines, type AssistLines } from './assist-lines';

const { abs, hypot, max, round, sqrt } = Math;

/** What every assist curve tells, whatever feeds the servo. */
export const assistCurveCharacteristics: readonly CharacteristicId[] = [
  'cut-in-force',
  'jump-in-output',
  'force-slope',
  'run-out-force',
  'run-out-output',
  'force-hysteresis',
];

type Context = StepContext<unknown>;

/** What the analysis must know of a unit that is pushed by a rod or a pedal. */
export interface AssistSetup {
  /** Channel of the force: at the rod on the bench, at the pedal in the vehicle. */
  readonly lever: 'rod_force' | 'pedal_force';
  /** What the servo works with: its channel, and what there must have been of it during the push, SI. */
  readonly supply: { readonly channel: string; readonly least: number };
  /** A vacuum supply whose sag under the push is reported; others are fed by pressure. */
  readonly vacuumFed: boolean;
  /** Force at cut-in by the sheet, N at the lever. */
  readonly cutInForce: number;
  /** Output that each newton at the lever gives without assist, Pa. */
  readonly unassistedSlope: number;
  /** Force at run-out (N at the lever) with the supply found at rest (Pa; null where none was read); null where there is none. */
  readonly runOutForce: (supply: number | null) => number | null;
}

/** One push with the gauges' zeros taken off: rod force N, output Pa gauge, the force as late as the output reads it. */
interface Push {
  readonly trace: Trace;
  readonly pull: Pull;
  readonly lag: FollowingLag;
  readonly force: Float64Array;
  readonly output: Float64Array;
  /** Standard uncertainties of the zeros taken off, N and Pa. */
  readonly forceZero: number;
  readonly outputZero: number;
  readonly context: Context;
  readonly setup: Pick<AssistSetup, 'lever'>;
}

function zeroed(trace: Trace, following: Following, context: Context, setup: Pick<AssistSetup, 'lever'>): Push {
  const { pull } = following;
  const { from, to } = pull.restBefore;
  const output = meanOf(trace.columns.output_pressure, from, to);
  const force = meanOf(trace.columns[setup.lever], from, to);
  const [outputZero, forceZero] = pull.zero === null ? [0, 0] : [output.mean, pull.zero];
  const zeroOf = (channel: string, read: typeof output) => {
    if (pull.zero !== null) return read.deviation / sqrt(max(1, read.count));
    const instrument = context.instruments.get(channel);
    return instrument ? unreadZero(instrument, context.date) : 0;
  };
  return {
    trace,
    pull,
    lag: following.lag,
    force: following.lever.map((value) => value - forceZero),
    output: following.output.map((value) => value - outputZero),
    forceZero: zeroOf(setup.lever, force),
    outputZero: zeroOf('output_pressure', output),
    context,
    setup,
  };
}

/** Gauge parts of a figure read above its zero. */
function gaugeParts(channel: string, at: number, context: Context): UncertaintyComponent[] {
  const instrument = context.instruments.get(channel);
  return instrument ? [differenceResolution(instrument), ...differenceComponents(instrument, 0, at, context.date)] : [];
}

const total = (parts: readonly UncertaintyComponent[]) =>
  sqrt(parts.reduce((sum, part) => sum + part.standard ** 2, 0));

/** What is left of a line once its ends are trimmed; a slope below this share of what it must be is none. */
const trimmedShare = 0.8;
const standsShare = 0.08;

/** A unit needs some hundredths of a second to make its jump, s: it seems to come so much later along an even push. */
const jumpTakes = 0.03;

/** What is not known of the lag shifts a branch along the force by this much, N. */
function late(push: Push, span: Span, at: number): number {
  return push.lag.standard * leverSpeed(push.trace, push.pull, span, at);
}

/** Highest that a channel was held at from the rest before a push to its top, SI; null where nobody recorded it. */
function highestOf(trace: Trace, channel: string, { restBefore, plateau }: Pull): number | null {
  const column = columnOf(trace, channel);
  if (!column) return null;
  const smooth = movingMean(column, max(1, round(0.1 / sampleInterval(trace))));
  let highest = -Infinity;
  // A channel that was sampled more slowly has rows without a figure.
  for (let i = restBefore.from; i < plateau.to; i++) if (smooth[i] > highest) highest = smooth[i];
  return Number.isFinite(highest) ? highest : null;
}

/**
 * Assist curve of a pedal-operated unit from one push and its way back. Needs the lever's force (N) and `output_pressure`
 * (Pa gauge); uses `supply_vacuum` (Pa vacuum) where the servo is fed by vacuum. Cut-in is the place of the jump, run-out the meeting point of the
 * modulating line and the line beyond it. What the trace cannot carry is `absent`.
 */
export function analyseAssistCurve(trace: Trace, context: Context, setup: AssistSetup): Answered {
  const question: Question<Context, PullFound, ShownPush> = {
    characteristics: [...assistCurveCharacteristics, ...(setup.vacuumFed ? (['supply-sag'] as const) : [])],
    happened: (read) => findPush(read, context, setup),
    shows: (found) => pushEvidence(found, context, setup),
    comesTo: (shown) => curveOf(shown, setup),
  };
  return answer(question, trace, context);
}

function findPush(trace: Trace, { instruments }: Context, { lever }: Pick<AssistSetup, 'lever'>) {
  return findLeverPull(trace, { lever, outputs: ['output_pressure'], instruments });
}

/** One push of a servo that was fed, with the lines that its curve has or why it has none. */
interface ShownPush {
  readonly push: Push;
  readonly lines: AssistLines | AnalysisProblem;
  /** What the servo was fed with, SI; null where nobody recorded it. */
  readonly fed: number | null;
  readonly supply: SupplyDuringPull | null;
}

/** Whether a servo was pushed evenly while it was fed, and its lines can be read. */
function pushEvidence(found: PullFound, context: Context, setup: AssistSetup): Judged<ShownPush> {
  const judged = pullEvidence(found);
  if (judged.kind === 'none') return judged;
  const shown = judged.found;
  const { trace: rows } = shown;
  const { instruments } = context;
  const fed = highestOf(rows, setup.supply.channel, shown.pull);
  const unfed = tooLittleSupply(fed, setup);
  if (unfed) return noEvidence(unfed);
  const supply = setup.vacuumFed ? supplyDuringPull(rows, shown.pull, setup.cutInForce * 2) : null;
  const linesOf = ({ force, output, pull: { apply } }: Push) =>
    fitAssistLines(
      force.subarray(apply.from, apply.to),
      output.subarray(apply.from, apply.to),
      max(scatterOf({ value: output }), instruments.get('output_pressure')?.resolution ?? 0),
    );
  const asWritten = linesOf(zeroed(rows, asRead(shown, 'output_pressure'), context, setup));
  const straight = { topFrom: straightFrom(asWritten, shown.pull) };
  const push = zeroed(rows, followLever(shown, 'output_pressure', straight, instruments), context, setup);
  const lines = linesOf(push);
  const unread = 'code' in lines ? null : unreadable(lines, setup);
  return unread
    ? noEvidence(unread, { vacuum: supply?.rest, restVacuum: supply?.rest })
    : evidence({ push, lines, fed, supply });
}

function curveOf({ push, lines, fed, supply }: Evidence<ShownPush>, setup: AssistSetup): StepAnalysis {
  const { pull, context, trace: rows } = push;
  const notes: AnalysisProblem[] = [
    ...(pull.zero === null ? [{ code: 'no-rest-before' } as const] : []),
    ...lagNotes(push, 'output_pressure'),
  ];
  const characteristics: Characteristic[] = [];
  const events: TraceEvent[] = [];
  if ('code' in lines) {
    const peak = pull.peak - (pull.zero ?? 0);
    const none = { value: peak, components: gaugeParts(setup.lever, peak, context) };
    // Only a push that was fed and never boosted shows that it does not cut in.
    characteristics.push(
      lines.code === 'no-boost' && fed !== null
        ? beyond('cut-in-force', 'above', none, lines)
        : absent('cut-in-force', fed === null ? { code: 'supply-missing' } : lines),
    );
    for (const id of ['jump-in-output', 'force-slope', 'run-out-force', 'run-out-output', 'force-hysteresis'] as const)
      characteristics.push(absent(id, lines));
  } else {
    characteristics.push(
      ...jumpOf(lines, push),
      slopeOf(lines, push),
      ...runOutOf(lines, push, setup.runOutForce(supply?.rest ?? null)),
    );
    characteristics.push(hysteresisOf(lines, push));
    events.push({ id: 'cut-in', time: null, x: lines.cutIn, y: lines.jumpIn });
    if (lines.runOut) events.push({ id: 'run-out', time: null, x: lines.runOut.input, y: lines.runOut.output });
  }
  if (setup.vacuumFed) characteristics.push(...supplySag(rows, pull, supply, context));
  return { characteristics, events, notes, vacuum: supply?.rest, restVacuum: supply?.rest };
}

/** A supply that was too little for the servo to work with; null where it was enough, or nobody recorded it. */
function tooLittleSupply(fed: number | null, { supply, vacuumFed }: AssistSetup): AnalysisProblem | null {
  if (fed === null || fed >= supply.least) return null;
  if (!vacuumFed) return { code: 'too-little-pressure', channel: supply.channel, pressure: fed, needed: supply.least };
  return fed < supply.least / 3
    ? { code: 'source-never-opened', vacuum: fed }
    : { code: 'too-little-vacuum', vacuum: fed, needed: supply.least };
}

/** Where the output runs straight with the force, N as the gauge reads it. */
function straightFrom(lines: AssistLines | AnalysisProblem, { zero, peak }: Pull): number {
  const from = zero ?? 0;
  if ('code' in lines) return from + 0.5 * (peak - from);
  const corner = lines.runOut?.input ?? lines.cutIn;
  return from + corner + 0.15 * (lines.peakForce - corner);
}

/** What keeps lines from being read: too few samples on the modulating one, or an output that stands where none can. */
function unreadable({ modulating, beyond: after }: AssistLines, setup: AssistSetup): AnalysisProblem | null {
  const needed = Math.ceil(trimmedShare * fewestOnLine);
  if (modulating.count < needed)
    return { code: 'too-few-samples', channel: 'output_pressure', samples: modulating.count, needed };
  return after && abs(after.slope) < standsShare * setup.unassistedSlope
    ? { code: 'does-not-follow', channel: 'output_pressure' }
    : null;
}

function jumpOf(lines: AssistLines, push: Push): Characteristic[] {
  const { context } = push;
  const speed = leverSpeed(push.trace, push.pull, push.pull.apply, lines.cutIn);
  const shifted = hypot(push.lag.standard, jumpTakes) * speed;
  const forceParts = gaugeParts(push.setup.lever, lines.cutIn, context);
  const at = lineAt(lines.modulating, lines.cutIn);
  return [
    measured('cut-in-force', lines.cutIn, [
      random('noise', hypot(lines.cutInStandard, push.forceZero)),
      systematic('timing', shifted),
      ...forceParts,
    ]),
    // The modulating line read where the jump is: what the place of the jump does not say, the line's slope carries.
    measured('jump-in-output', lines.jumpIn, [
      random('fit', hypot(sqrt(at.variance), lines.modulating.slope * lines.cutInStandard)),
      random('noise', push.outputZero),
      systematic('timing', lines.modulating.slope * shifted),
      systematic('gauge-gain', lines.modulating.slope * total(forceParts)),
      ...gaugeParts('output_pressure', lines.jumpIn, context),
    ]),
  ];
}

/** Slope of the modulating line, Pa/N. */
function slopeOf(lines: AssistLines, push: Push): Characteristic {
  const { slope, slopeVariance } = lines.modulating;
  const top = lines.runOut?.input ?? lines.peakForce;
  const span = max(top - lines.cutIn, 1);
  const relative = hypot(
    total(gaugeParts(push.setup.lever, span, push.context)) / span,
    total(gaugeParts('output_pressure', slope * span, push.context)) / (slope * span),
  );
  return measured('force-slope', slope, [
    random('fit', sqrt(slopeVariance)),
    systematic('gauge-gain', slope * relative),
  ]);
}

function runOutOf(lines: AssistLines, push: Push, expected: number | null): Characteristic[] {
  const { context } = push;
  if (!lines.runOut || !lines.beyond) {
    const problem = {
      code: 'knee-not-reached',
      by: max(0, (expected ?? 0) - lines.peakForce),
      peak: lines.peakForce,
    } as const;
    const bound = { value: lines.peakForce, components: gaugeParts(push.setup.lever, lines.peakForce, context) };
    return [beyond('run-out-force', 'above', bound, problem), absent('run-out-output', problem)];
  }
  const { modulating, beyond: after, runOut } = lines;
  const apart = modulating.slope - after.slope;
  const before = lineAt(modulating, runOut.input).variance;
  const later = lineAt(after, runOut.input).variance;
  return [
    measured('run-out-force', runOut.input, [
      random('fit', sqrt(before + later) / apart),
      random('noise', push.forceZero),
      systematic('timing', late(push, push.pull.apply, runOut.input)),
      ...gaugeParts(push.setup.lever, runOut.input, context),
    ]),
    measured('run-out-output', runOut.output, [
      random('fit', sqrt(after.slope ** 2 * before + modulating.slope ** 2 * later) / apart),
      ...gaugeParts('output_pressure', runOut.output, context),
    ]),
  ];
}

/** Rod-force difference, apply minus way back, at half the run-out output. */
function hysteresisOf(lines: AssistLines, push: Push): Characteristic {
  const { runOut, modulating } = lines;
  const { wayBack } = push.pull;
  if (!runOut) return absent('force-hysteresis', { code: 'knee-not-reached', by: 0, peak: lines.peakForce });
  if (wayBack.to - wayBack.from < 20 || wayBack.to >= push.force.length)
    return absent('force-hysteresis', { code: 'no-way-back' });
  const half = runOut.output / 2;
  const back = fitLine(push.force, push.output, {
    ...wayBack,
    keep: (i) => push.output[i] > 0.6 * half && push.output[i] < 1.4 * half,
  });
  if (back.termination !== 'converged' || back.slope <= 0)
    return absent('force-hysteresis', { code: 'fit-failed', termination: back.termination });
  const onLine = (line: LineFit) => (half - line.intercept) / line.slope;
  const applied = onLine(modulating);
  const released = onLine(back);
  const instrument = push.context.instruments.get(push.setup.lever);
  return measured('force-hysteresis', applied - released, [
    random(
      'fit',
      hypot(
        sqrt(lineAt(modulating, applied).variance) / modulating.slope,
        sqrt(lineAt(back, released).variance) / back.slope,
      ),
    ),
    systematic('timing', late(push, push.pull.apply, applied) + late(push, wayBack, released)),
    ...(instrument ? differenceComponents(instrument, released, applied, push.context.date) : []),
  ]);
}

/**
 * Slope (Pa/N at the lever) of a push without assist. Needs the lever's force and `output_pressure`; `expectedAt` gives the
 * unassisted output (Pa gauge) at a force, so that the part below the springs is left out.
 */
export function analyseUnassistedCurve(
  trace: Trace,
  context: Context,
  setup: Pick<AssistSetup, 'lever'> & {
    readonly expectedAt: (force: number) => number;
    /** What must be off: its channel, and what counts as nothing of it, SI. */
    readonly off: { readonly channel: string; readonly most: number };
  },
): Answered {
  const { off } = setup;
  const question: Question<Context, PullFound, ShownSlope> = {
    characteristics: ['unassisted-slope'],
    happened: (read) => findPush(read, context, setup),
    shows: (found) => {
      const judged = pullEvidence(found);
      if (judged.kind === 'none') return judged;
      const { trace: rows, pull } = judged.found;
      const left = highestOf(rows, off.channel, pull);
      if (left !== null && left > off.most) return noEvidence({ code: 'supply-not-off', channel: off.channel, left });
      const line = unassistedLine(judged.found, context, setup);
      if (line.count < fewestOnLine)
        return noEvidence({
          code: 'too-few-samples',
          channel: 'output_pressure',
          samples: line.count,
          needed: fewestOnLine,
        });
      if (line.termination !== 'converged' || line.slope <= 0)
        return noEvidence({ code: 'fit-failed', termination: line.termination });
      // A slope that is too steep may be assist that nobody recorded.
      return evidence({ line, peak: pull.peak }, left === null ? [{ code: 'supply-missing' }] : []);
    },
    comesTo: ({ line, peak }) => {
      const relative = hypot(
        total(gaugeParts(setup.lever, peak, context)) / peak,
        total(gaugeParts('output_pressure', line.slope * peak, context)) / (line.slope * peak),
      );
      const slope = measured('unassisted-slope', line.slope, [
        random('fit', sqrt(line.slopeVariance)),
        systematic('gauge-gain', line.slope * relative),
      ]);
      return { characteristics: [slope], events: [], notes: [] };
    },
  };
  return answer(question, trace, context);
}

/** The line of a push without assist, and the top of the push (N). */
interface ShownSlope {
  readonly line: LineFit;
  readonly peak: number;
}

function unassistedLine(
  shown: Evidence<ShownPull>,
  context: Context,
  setup: Pick<AssistSetup, 'lever'> & { readonly expectedAt: (force: number) => number },
): LineFit {
  const { trace: rows, pull } = shown;
  const from = pull.zero ?? 0;
  const straight = { topFrom: from + 0.5 * (pull.peak - from) };
  const push = zeroed(rows, followLever(shown, 'output_pressure', straight, context.instruments), context, setup);
  const smooth = movingMean(push.output, 8);
  const floor = max(6 * scatterOf({ value: push.output }), 0.08 * setup.expectedAt(pull.peak));
  return fitLine(push.force, push.output, { ...push.pull.apply, keep: (i) => smooth[i] > floor });
}
