import { planOf, type AnyKind } from '../contract/kind';
import { fitLine } from '../fitting/line';
import type { StepContext } from '../procedure/step-context';
import type { MeasuredStep } from '../procedure/step-definition';
import { shownAs } from '../quantities/shown-as';
import { hasStandIn, simulateStep } from '../rig/run-step';
import { together } from '../traces/together';
import { columnOf, type Trace } from '../traces/trace';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';

const { abs, max, min } = Math;

/** A channel is another range's, unit's or scale's from so many times what a sound unit reaches, and below such a share of it. */
const farAbove = 4;
const farBelow = 0.15;
/** Below this share nothing was connected or opened: the step itself says so. */
const nothingThere = 0.005;
/** An output is in proportion where it leaves its line by less than this share of its range. */
const inProportion = 0.012;
/** Of another step's characteristics so many must come out for a log to read as that step's. */
const readsAs = 0.6;
const sampledTooSlowly: ReadonlySet<AnalysisProblem['code']> = new Set(['sampled-too-slowly', 'logged-too-slowly']);
/** The stand-in is asked for a sound unit's ranges at this rate, Hz: nothing is judged by it. */
const rangeRate = 25;

/**
 * What makes a log look as if it were not this unit's, or not this step's: figures of another range, an output that only follows its
 * input, the shape of another step. Suspicions for a person to look at; none of them decides anything.
 */
export function suspectLog(
  kind: AnyKind,
  step: MeasuredStep<unknown>,
  trace: Trace,
  context: StepContext<unknown>,
): AnalysisProblem[] {
  const analysis = step.analyse(trace, context);
  // What was only sampled too slowly may be this step's all the same.
  const nothing = analysis.characteristics.every(
    (each) => each.kind === 'absent' && !sampledTooSlowly.has(each.problem.code),
  );
  return [
    ...(nothing ? readsAsAnother(kind, step, trace, context) : []),
    ...proportional(kind, step, trace, context),
    ...outOfRange(kind, step, trace, context),
  ];
}

/** The step of the plan that most comes out of this trace, where nothing comes out of the one it was brought for. */
function readsAsAnother(
  kind: AnyKind,
  step: MeasuredStep<unknown>,
  trace: Trace,
  context: StepContext<unknown>,
): AnalysisProblem[] {
  const { steps } = planOf(kind, context.plan);
  const candidates = kind.steps.flatMap((other) => {
    if (other.kind !== 'measured' || other.id === step.id || !steps.includes(other.id)) return [];
    if (!other.feeds.log.needs.every((channel) => columnOf(trace, channel))) return [];
    const { characteristics } = other.analyse(trace, context);
    const share = characteristics.filter((each) => each.kind === 'measured').length / characteristics.length;
    return share >= readsAs ? [{ title: other.title, share }] : [];
  });
  const [best] = candidates.sort((p, q) => q.share - p.share);
  return best ? [{ code: 'log-reads-as', title: best.title }] : [];
}

/** A curve of a unit that helps has a knee: an output that is only a multiple of its lever is no such curve. */
function proportional(
  kind: AnyKind,
  step: MeasuredStep<unknown>,
  trace: Trace,
  context: StepContext<unknown>,
): AnalysisProblem[] {
  if (step.pictures[0].kind !== 'curve') return [];
  const lever = planOf(kind, context.plan).lever?.channel;
  const output = step.feeds.log.needs.find((channel) => channel !== lever);
  if (lever === undefined || output === undefined || !columnOf(trace, lever) || !columnOf(trace, output)) return [];
  const rows = together(trace, [lever, output]);
  const line = fitLine(rows.columns[lever], rows.columns[output]);
  const range = abs(line.slope) * (highest(rows.columns[lever]) - lowest(rows.columns[lever]));
  return line.termination === 'converged' && range > 0 && line.residual < inProportion * range
    ? [{ code: 'log-proportional', lever, output }]
    : [];
}

const highest = (column: Float64Array) => column.reduce((most, each) => (each > most ? each : most), -Infinity);
const lowest = (column: Float64Array) => column.reduce((least, each) => (each < least ? each : least), Infinity);

/** Channels that go far beyond, or stay far below, what a sound unit of the sheet shows on this step. */
function outOfRange(
  kind: AnyKind,
  step: MeasuredStep<unknown>,
  trace: Trace,
  context: StepContext<unknown>,
): AnalysisProblem[] {
  if (!hasStandIn(kind, step)) return [];
  const sound = simulateStep(kind, step, context, {
    faults: [],
    benchSeed: 1,
    runSeed: 1,
    sampleRate: min(rangeRate, step.feeds.live?.rate ?? rangeRate),
  });
  return [...step.feeds.log.needs, ...step.feeds.log.uses].flatMap((channel): AnalysisProblem[] => {
    const [read, expected] = [columnOf(trace, channel), columnOf(sound, channel)];
    if (!read || !expected || shownAs(channel) === 'state') return [];
    const [reaches, usual] = [reachOf(read), reachOf(expected)];
    const share = usual > 0 ? reaches / usual : 1;
    const odd = share > farAbove || (share < farBelow && share > nothingThere);
    return odd ? [{ code: 'log-out-of-range', channel, reaches, sound: usual }] : [];
  });
}

/** Furthest that a channel goes from zero, SI. */
function reachOf(column: Float64Array): number {
  return max(abs(highest(column)), abs(lowest(column)));
}
