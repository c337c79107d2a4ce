import { fitLine, lineAt, type LineFit } from '../../fitting/line';
import { differenceComponents, random, systematic } from '../../instruments/uncertainty';
import type { CharacteristicId } from '../../quantities/characteristics';
import { scatterOf } from '../../traces/own-samples';
import type { Pull } from '../../traces/pull';
import type { Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { absent, beyond, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import {
  asRead,
  fewestOnLine,
  followLever,
  lagNotes,
  leverSpeed,
  pullEvidence,
  type PullFound,
} from '../../procedure/pull-evidence';
import { supplyDuringPull, supplySag, type SupplyDuringPull } from './supply-during-pull';
import type { Characteristic, StepAnalysis, TraceEvent } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { fitAssistLines, type AssistLines } from './assist-lines';
import { findPush, gaugeParts, highestOf, late, total, zeroed, type Push, type PushLever } from './servo-push';

const { abs, hypot, max, sqrt } = Math;

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
export interface AssistSetup extends PushLever {
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

/** What is left of a line once its ends are trimmed; a slope below this share of what it must be is none. */
const trimmedShare = 0.8;
const standsShare = 0.08;

/** A unit needs some hundredths of a second to make its jump, s: it seems to come so much later along an even push. */
const jumpTakes = 0.03;

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
