import type { AnyKind } from '../contract/kind';
import { answeredBy } from '../contract/one-log';
import { mergeCorrections } from '../procedure/corrections';
import type { Limit } from '../procedure/limit';
import { noCorrections, type Characteristic, type Corrections, type StepAnalysis } from '../procedure/step-analysis';
import { inTodaysNames } from '../procedure/todays-names';
import type { StepContext } from '../procedure/step-context';
import { isOptional, type MeasuredStep, type StepDefinition, type TypedStep } from '../procedure/step-definition';
import type { TypedValues } from '../procedure/typed-entry';
import { asDials } from '../dials/default-dial';
import { dialChannel } from '../dials/dial-readings';
import { entryOf } from '../dials/characteristic-entry';
import { analysisFromTyped } from '../dials/typed-values';
import { characteristicKeptAs, type CharacteristicId } from '../quantities/characteristics';
import type { Trace } from '../traces/trace';
import { correctionsTogether, figuresOf } from './combine-analyses';
import { combineRepeats } from './combine-repeats';
import { judgeStep, lookVerdict, stepVerdict, unitVerdict, type Check, type LookFindings } from './judge-step';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import type { DecisionPolicy, StepVerdict, UnitVerdict } from '../vocabulary/verdict';

/** What a step was given: traces of a measured step in the order they were run, or findings of a look. */
export type StepEvidence =
  | {
      readonly kind: 'traces';
      readonly step: string;
      readonly traces: readonly Trace[];
      /** What was turned or assumed when they were read. */
      readonly said?: readonly AnalysisProblem[];
      /** Air, instruments and date they were recorded with, where these differ from the unit's context. */
      readonly setting?: Partial<RunSetting>;
    }
  | { readonly kind: 'typed'; readonly step: string; readonly values: ReadonlyMap<CharacteristicId, number> }
  /** Traces and dial readings of one step in the order they were taken. */
  | {
      readonly kind: 'mixed';
      readonly step: string;
      readonly given: readonly Given[];
      readonly setting?: Partial<RunSetting>;
    }
  | { readonly kind: 'findings'; readonly step: string; readonly findings: LookFindings };

/**
 * What one time of doing a step gave: a trace, or dial readings by the fields of the step's entry, SI. `setting` is what it was
 * recorded with, where that is not the step's.
 */
export type Given = { readonly setting?: Partial<RunSetting> } & GivenReading;

type GivenReading =
  /** What it came to is known, or made when it is asked for, by what corrects it. */
  | { readonly analysed: (context: StepContext<unknown>) => StepAnalysis }
  /** `said`: what was noticed of a file when it was read. */
  | { readonly trace: Trace; readonly said?: readonly AnalysisProblem[] }
  /** `standIn`: read off the stand-in's own instruments, not off dials. */
  | { readonly readings: TypedValues; readonly standIn?: boolean };

/** What may differ from run to run. */
export type RunSetting = Pick<
  StepContext<unknown>,
  'ambient' | 'airTemperature' | 'shell' | 'benchVolume' | 'instruments' | 'date'
>;

export interface StepEvaluation {
  readonly step: string;
  readonly verdict: StepVerdict;
  readonly optional: boolean;
  readonly characteristics: readonly Characteristic[];
  readonly checks: readonly Check[];
  /** What keeps a pass from standing, of any of the runs that are judged. */
  readonly doubts: readonly AnalysisProblem[];
  /** One analysis per repeat, in order. */
  readonly analyses: readonly StepAnalysis[];
  readonly findings: LookFindings | null;
}

/** Everything that has to be said beside a step's figures: what keeps a pass from standing, then what was noticed. */
export function remarksOf(step: Pick<StepEvaluation, 'doubts' | 'analyses'>): readonly AnalysisProblem[] {
  return [...step.doubts, ...step.analyses.flatMap((analysis) => analysis.notes)];
}

/** What the steps before one of them found out about the bench. */
export function correctionsBefore(steps: readonly StepEvaluation[], stepId: string): Corrections {
  const at = steps.findIndex((each) => each.step === stepId);
  return (at < 0 ? steps : steps.slice(0, at)).reduce(
    (known, { analyses }) => mergeCorrections(known, correctionsTogether(analyses)),
    noCorrections,
  );
}

export interface UnitEvaluation {
  readonly verdict: UnitVerdict;
  readonly steps: readonly StepEvaluation[];
  readonly corrections: Corrections;
}

/** A step that yields characteristics, from a trace or from what was typed. */
export type JudgedStep = MeasuredStep<unknown> | TypedStep<unknown>;

/** A step's analysis from a trace, or from dial readings by the fields of its entry. */
export function analysisOf(step: JudgedStep, given: Given, judged: StepContext<unknown>): StepAnalysis {
  const context = given.setting ? { ...judged, ...given.setting } : judged;
  if ('analysed' in given) return given.analysed(context);
  if ('readings' in given) {
    const entry = entryOf(step);
    if (given.standIn) return entry.analyse(given.readings, context);
    const read = { ...context, instruments: asDials(context.instruments) };
    const channels = entry
      .fields(read, given.readings)
      .flatMap(({ id, channel }) => (channel !== null && given.readings[id] !== undefined ? [channel] : []));
    const finished = finishedFigures(step, given.readings, read);
    if (finished) return withDialsSaid(finished.analysis, finished.channels, context);
    return withDialsSaid(entry.analyse(given.readings, read), channels, context);
  }
  if (step.kind === 'typed') throw new Error(`${step.id} is typed and has no trace`);
  const analysis = step.analyse(inTodaysNames(given.trace, step.feeds.log), context);
  return given.said ? { ...analysis, notes: [...given.said, ...analysis.notes] } : analysis;
}

/** Figures that were kept as they came out, by a step that asks for readings by now: judged as they are. Null where there are none. */
function finishedFigures(step: JudgedStep, readings: TypedValues, context: StepContext<unknown>) {
  if (step.kind === 'typed' || !step.feeds.dials) return null;
  const fields = new Set(
    entryOf(step)
      .fields(context, readings)
      .map((field) => field.id),
  );
  const ids = Object.keys(readings).filter((id) => !fields.has(id));
  const values = new Map(
    ids.flatMap((name) => {
      const id = characteristicKeptAs(name);
      return id && step.characteristics.includes(id) ? [[id, readings[name]] as const] : [];
    }),
  );
  if (values.size === 0 || ids.length < Object.keys(readings).length) return null;
  const channels = [...values.keys()].flatMap((id) => dialChannel(step, id) ?? []);
  return { analysis: analysisFromTyped(step, values, context), channels };
}

/** An analysis of what was read, with the channels said that nobody named an instrument for. */
function withDialsSaid(
  analysis: StepAnalysis,
  channels: readonly string[],
  { instruments }: StepContext<unknown>,
): StepAnalysis {
  const dials = asDials(instruments);
  const unnamed = [...new Set(channels)].filter((channel) => dials.get(channel) !== instruments.get(channel));
  if (unnamed.length === 0) return analysis;
  return { ...analysis, notes: [{ code: 'dials-assumed', channels: unnamed }, ...analysis.notes] };
}

const notRun = (step: StepDefinition<unknown>, unit: unknown): StepEvaluation => ({
  step: step.id,
  verdict: 'not-run',
  optional: isOptional(step, unit),
  characteristics: [],
  checks: [],
  doubts: [],
  analyses: [],
  findings: null,
});

function parted<T>(all: readonly T[], isFirst: (each: T) => boolean): readonly [T[], T[]] {
  return [all.filter(isFirst), all.filter((each) => !isFirst(each))];
}

/** Repeats that each by itself would pass every limit of what they measured differ by less than matters. */
function differenceMatters(each: readonly Characteristic[], limits: readonly Limit[], policy: DecisionPolicy): boolean {
  return limits.some((limit) =>
    each.some((one) => judgeStep([one], [limit], policy).some(({ verdict }) => verdict.kind !== 'pass')),
  );
}

const inNobodysWay = (problem: AnalysisProblem): AnalysisProblem =>
  problem.code === 'repeats-differ' ? { ...problem, eachPasses: true } : problem;

/** Runs of a step that count: of one that is done anew each time, as making dead, the last. */
const counted = (step: StepDefinition<unknown>, analyses: readonly StepAnalysis[]): readonly StepAnalysis[] =>
  step.kind !== 'look' && step.repeats === 'last' ? analyses.slice(-1) : analyses;

/** Judges the analyses of a measured step: repeats combined, every limit checked. */
function judgeAnalyses(
  step: JudgedStep,
  analyses: readonly StepAnalysis[],
  context: StepContext<unknown>,
  policy: DecisionPolicy,
): StepEvaluation {
  const judged = counted(step, analyses);
  const { characteristics, differing } = combineRepeats(judged.map((analysis) => analysis.characteristics));
  const combined = { ...judged[judged.length - 1], ...figuresOf(judged), characteristics };
  const limits = step.limits(combined, context);
  const checks = judgeStep(characteristics, limits, policy);
  // A step whose characteristics are all absent has shown nothing, whatever limits it could form.
  const empty = characteristics.every((each) => each.kind === 'absent');
  const [matters, noMatter] = parted(differing, ({ each, characteristic }) =>
    differenceMatters(
      each,
      limits.filter((limit) => limit.characteristic === characteristic),
      policy,
    ),
  );
  const doubts = [...judged.flatMap((analysis) => analysis.doubts ?? []), ...matters.map(({ problem }) => problem)];
  const checked = empty ? 'undecided' : stepVerdict(checks);
  const verdict = doubts.length > 0 && checked !== 'fail' ? 'undecided' : checked;
  const { questionedBy } = context.ambient;
  const questioned: AnalysisProblem[] =
    questionedBy !== null && checks.some((check) => check.limit.restatedFrom !== undefined)
      ? [{ code: 'barometer-questioned', by: questionedBy }]
      : [];
  const first = [...questioned, ...noMatter.map(({ problem }) => inNobodysWay(problem))];
  const told = analyses.map((analysis, at) =>
    at === 0 && first.length > 0 ? { ...analysis, notes: [...first, ...analysis.notes] } : analysis,
  );
  return {
    step: step.id,
    verdict,
    optional: isOptional(step, context.unit),
    characteristics,
    checks,
    doubts,
    analyses: told,
    findings: null,
  };
}

function analysesOf(step: JudgedStep, given: StepEvidence, context: StepContext<unknown>): StepAnalysis[] {
  switch (given.kind) {
    case 'traces':
      return step.kind === 'measured' ? given.traces.map((trace) => analysisOf(step, { trace }, context)) : [];
    case 'typed':
      // A proof is asked for whole, by whatever way its figure comes.
      return step.proves
        ? [analysisOf(step, { readings: Object.fromEntries(given.values) }, context)]
        : [
            withDialsSaid(
              analysisFromTyped(step, given.values, { ...context, instruments: asDials(context.instruments) }),
              [...given.values.keys()].flatMap((id) => dialChannel(step, id) ?? []),
              context,
            ),
          ];
    case 'mixed':
      return given.given.map((one) => analysisOf(step, one, context));
    case 'findings':
      return [];
  }
}

/** What a step needs that is worked out of the sheet alone: nothing. */
function ofTheSheet(step: StepDefinition<unknown>): StepEvidence | undefined {
  return step.kind === 'typed' && step.workedOut
    ? { kind: 'mixed', step: step.id, given: [{ readings: {}, standIn: true }] }
    : undefined;
}

/** The log that was brought for another step of a plan that one log answers; undefined where there is none. */
function sharedLog(
  kind: AnyKind,
  plan: StepContext<unknown>['plan'],
  { id }: StepDefinition<unknown>,
  evidence: readonly StepEvidence[],
): StepEvidence | undefined {
  const log = evidence.find((each) => each.kind === 'traces' && answeredBy(kind, plan, each.step).includes(id));
  return log?.kind === 'traces' ? { ...log, step: id } : undefined;
}

/**
 * Evaluates a unit on a plan. Steps are taken in the plan's order, so that what one finds out about the
 * bench (the pair's error) corrects those after it, whatever order they were handed in.
 */
export function evaluateUnit(
  kind: AnyKind,
  planSteps: readonly string[],
  evidence: readonly StepEvidence[],
  how: { readonly context: StepContext<unknown>; readonly policy: DecisionPolicy },
): UnitEvaluation {
  let corrections = how.context.corrections;
  const steps = planSteps.map((id): StepEvaluation => {
    const step: StepDefinition<unknown> | undefined = kind.steps.find((each) => each.id === id);
    if (!step) throw new Error(`${kind.family} has no step ${id}`);
    const given =
      // What a sheet says is not typed over.
      ofTheSheet(step) ??
      evidence.find((each) => each.step === id) ??
      sharedLog(kind, how.context.plan, step, evidence);
    if (!given) return notRun(step, how.context.unit);
    if (step.kind === 'look') {
      const findings = given.kind === 'findings' ? given.findings : {};
      return { ...notRun(step, how.context.unit), verdict: lookVerdict(step, findings), findings };
    }
    const setting = given.kind === 'traces' || given.kind === 'mixed' ? given.setting : undefined;
    const context = { ...how.context, ...setting, corrections };
    const said = given.kind === 'traces' ? (given.said ?? []) : [];
    const analyses = analysesOf(step, given, context).map((analysis, at) =>
      at === 0 ? { ...analysis, notes: [...said, ...analysis.notes] } : analysis,
    );
    if (analyses.length === 0) return notRun(step, how.context.unit);
    const result = judgeAnalyses(step, analyses, context, how.policy);
    corrections = mergeCorrections(corrections, correctionsTogether(result.analyses));
    return result;
  });
  return { verdict: unitVerdict(steps), steps, corrections };
}

/** One step on its own: what a screen shows of it before it is kept. It goes through the same door as a unit. */
export function evaluateStep(
  kind: AnyKind,
  step: JudgedStep,
  given: readonly Given[],
  how: { readonly context: StepContext<unknown>; readonly policy: DecisionPolicy },
): StepEvaluation {
  return evaluateUnit(kind, [step.id], [{ kind: 'mixed', step: step.id, given }], how).steps[0];
}
