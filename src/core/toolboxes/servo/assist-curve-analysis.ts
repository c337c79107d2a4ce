import { fitLine, lineAt, type LineFit } from '../../fitting/line';
import { differenceComponents, differenceResolution, random, systematic } from '../../instruments/uncertainty';
import type { UncertaintyComponent } from '../../instruments/uncertainty';
import type { CharacteristicId } from '../../quantities/characteristics';
import { findPull, isPull, type Pull, type Span } from '../../traces/pull';
import { movingMean, noiseOf } from '../../traces/smoothing';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { absent, beyond, measured, nothingMeasured } from '../../procedure/analysis-result';
import { supplyDuringPull, supplySag } from './supply-during-pull';
import type { Characteristic, StepAnalysis, TraceEvent } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { fitAssistLines, type AssistLines } from './assist-lines';

const { abs, hypot, max, min, round, sqrt } = Math;

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
  /** A vacuum supply whose sag under the push is reported; others are fed by pressure. */
  readonly vacuumFed: boolean;
  /** Force at cut-in by the sheet, N at the lever. */
  readonly cutInForce: number;
  /** Force at run-out (N at the lever) with the supply found at rest (Pa; null where none was read); null where there is none. */
  readonly runOutForce: (supply: number | null) => number | null;
}

/** One push with the gauges' zeros taken off: rod force N, output Pa gauge. */
interface Push {
  readonly trace: Trace;
  readonly pull: Pull;
  readonly force: Float64Array;
  readonly output: Float64Array;
  readonly context: Context;
  readonly setup: Pick<AssistSetup, 'lever'>;
}

function zeroed(trace: Trace, pull: Pull, context: Context, setup: Pick<AssistSetup, 'lever'>): Push {
  const { from, to } = pull.restBefore;
  const outputZero = pull.zero === null ? 0 : meanOf(trace.columns.output_pressure, from, to).mean;
  const forceZero = pull.zero ?? 0;
  return {
    trace,
    pull,
    force: trace.columns[setup.lever].map((value) => value - forceZero),
    output: trace.columns.output_pressure.map((value) => value - outputZero),
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

/** Gauge lines and the unit itself follow a moving rod this much apart, s. */
const lagStandard = 0.007;

/** Speed of the rod force (N/s) where a branch passes `at` (N above zero). */
function speedAt(push: Push, span: Span, at: number): number {
  const { smooth, zero } = push.pull;
  const target = at + (zero ?? 0);
  let nearest = span.from;
  for (let i = span.from; i < span.to; i++) if (abs(smooth[i] - target) < abs(smooth[nearest] - target)) nearest = i;
  const reach = max(1, round(0.25 / sampleInterval(push.trace)));
  const from = max(span.from, nearest - reach);
  const to = min(span.to - 1, nearest + reach);
  const seconds = push.trace.time[to] - push.trace.time[from];
  return seconds > 0 ? abs(smooth[to] - smooth[from]) / seconds : 0;
}

/**
 * Assist curve of a pedal-operated unit from one push and its way back. Needs the lever's force (N) and `output_pressure`
 * (Pa gauge); uses `supply_vacuum` (Pa vacuum) where the servo is fed by vacuum. Cut-in is the place of the jump, run-out the meeting point of the
 * modulating line and the line beyond it. What the trace cannot carry is `absent`.
 */
export function analyseAssistCurve(trace: Trace, context: Context, setup: AssistSetup): StepAnalysis {
  const ids: CharacteristicId[] = [
    ...assistCurveCharacteristics,
    ...(setup.vacuumFed ? (['supply-sag'] as const) : []),
  ];
  const force = columnOf(trace, setup.lever);
  if (!force || !columnOf(trace, 'output_pressure'))
    return nothingMeasured(ids, { code: 'no-pull', channel: setup.lever });
  const pull = findPull(trace, force);
  if (!isPull(pull)) return nothingMeasured(ids, { code: 'no-pull', channel: setup.lever });
  const push = zeroed(trace, pull, context, setup);
  const supply = setup.vacuumFed ? supplyDuringPull(trace, pull, setup.cutInForce * 2) : null;
  const lines = fitAssistLines(
    push.force.subarray(pull.apply.from, pull.apply.to),
    push.output.subarray(pull.apply.from, pull.apply.to),
    max(noiseOf(push.output), context.instruments.get('output_pressure')?.resolution ?? 0),
  );
  const notes: AnalysisProblem[] = pull.zero === null ? [{ code: 'no-rest-before' }] : [];
  const characteristics: Characteristic[] = [];
  const events: TraceEvent[] = [];
  if ('code' in lines) {
    const peak = pull.peak - (pull.zero ?? 0);
    const none = { value: peak, components: gaugeParts(setup.lever, peak, context) };
    characteristics.push(beyond('cut-in-force', 'above', none, lines));
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
  if (setup.vacuumFed) characteristics.push(...supplySag(trace, pull, supply, context));
  return { characteristics, events, notes, vacuum: supply?.rest, restVacuum: supply?.rest };
}

function jumpOf(lines: AssistLines, push: Push): Characteristic[] {
  const { context } = push;
  const speed = speedAt(push, push.pull.apply, lines.cutIn);
  const late = lagStandard * speed;
  const forceParts = gaugeParts(push.setup.lever, lines.cutIn, context);
  const at = lineAt(lines.modulating, lines.cutIn);
  return [
    measured('cut-in-force', lines.cutIn, [
      random('noise', lines.cutInStandard),
      systematic('timing', late),
      ...forceParts,
    ]),
    // The modulating line read where the jump is: what the place of the jump does not say, the line's slope carries.
    measured('jump-in-output', lines.jumpIn, [
      random('fit', hypot(sqrt(at.variance), lines.modulating.slope * lines.cutInStandard)),
      systematic('timing', lines.modulating.slope * late),
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
      systematic('timing', lagStandard * speedAt(push, push.pull.apply, runOut.input)),
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
  const speed = speedAt(push, push.pull.apply, applied) + speedAt(push, wayBack, released);
  return measured('force-hysteresis', applied - released, [
    random(
      'fit',
      hypot(
        sqrt(lineAt(modulating, applied).variance) / modulating.slope,
        sqrt(lineAt(back, released).variance) / back.slope,
      ),
    ),
    systematic('timing', lagStandard * speed),
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
  setup: Pick<AssistSetup, 'lever'> & { readonly expectedAt: (force: number) => number },
): StepAnalysis {
  const ids = ['unassisted-slope'] as const;
  const force = columnOf(trace, setup.lever);
  if (!force || !columnOf(trace, 'output_pressure'))
    return nothingMeasured(ids, { code: 'no-pull', channel: setup.lever });
  const pull = findPull(trace, force);
  if (!isPull(pull)) return nothingMeasured(ids, { code: 'no-pull', channel: setup.lever });
  const push = zeroed(trace, pull, context, setup);
  const smooth = movingMean(push.output, 8);
  const floor = max(6 * noiseOf(push.output), 0.08 * setup.expectedAt(pull.peak));
  const line = fitLine(push.force, push.output, { ...pull.apply, keep: (i) => smooth[i] > floor });
  if (line.termination !== 'converged' || line.slope <= 0)
    return nothingMeasured(ids, { code: 'fit-failed', termination: line.termination });
  const relative = hypot(
    total(gaugeParts(setup.lever, pull.peak, context)) / pull.peak,
    total(gaugeParts('output_pressure', line.slope * pull.peak, context)) / (line.slope * pull.peak),
  );
  return {
    characteristics: [
      measured('unassisted-slope', line.slope, [
        random('fit', sqrt(line.slopeVariance)),
        systematic('gauge-gain', line.slope * relative),
      ]),
    ],
    events: [],
    notes: [],
  };
}
