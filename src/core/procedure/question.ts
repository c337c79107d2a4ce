import type { CharacteristicId } from '../quantities/characteristics';
import type { Trace } from '../traces/trace';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import { nothingMeasured } from './analysis-result';
import { mergeCorrections } from './corrections';
import type { Evidence, Judged, NoEvidence } from './evidence';
import type { MeasuredCycle, StepAnalysis } from './step-analysis';

declare const answered: unique symbol;

/** What a trace came to, asked in the three parts of a question. Only the functions of this file make one. */
export type Answered = StepAnalysis & { readonly [answered]: true };

/**
 * What a step asks of a trace, in three parts. The second takes what the first returns and the third what the second does, so that
 * no figure is formed of a trace of which nobody asked what happened in it, and whether that is what the step needs.
 */
export interface Question<Context, Happened extends object, Shown extends object> {
  /** Characteristics that it answers, in the order they are reported. */
  readonly characteristics: readonly CharacteristicId[];
  /** What happened in the trace: what was opened, shut, pulled, switched, and which gauges stood still; or what cannot be read at all. */
  readonly happened: (trace: Trace, context: Context) => Happened | NoEvidence;
  /** Whether that is evidence: everything that is missing for it is a named problem. */
  readonly shows: (happened: Happened, context: Context) => Judged<Shown>;
  /** What it comes to: values with every uncertainty that applies, SI. */
  readonly comesTo: (shown: Evidence<Shown>, context: Context) => StepAnalysis;
}

const isNone = (found: object): found is NoEvidence => 'kind' in found && found.kind === 'none';

/** Puts a question to a trace. Without evidence each of its characteristics is absent, with the reason. */
export function answer<Context, Happened extends object, Shown extends object>(
  question: Question<Context, Happened, Shown>,
  trace: Trace,
  context: Context,
): Answered {
  const none = ({ problem, seen }: NoEvidence) =>
    made({ ...nothingMeasured(question.characteristics, problem), ...seen });
  const happened = question.happened(trace, context);
  if (isNone(happened)) return none(happened);
  const judged = question.shows(happened, context);
  if (judged.kind === 'none') return none(judged);
  const analysis = question.comesTo(judged.found, context);
  return made({
    ...analysis,
    notes: [...judged.notes, ...analysis.notes],
    ...doubtsOf([...judged.doubts, ...(analysis.doubts ?? [])]),
  });
}

/** The answer of a step whose trace cannot be asked, for this reason. */
export function unanswered(characteristics: readonly CharacteristicId[], problem: AnalysisProblem): Answered {
  return made(nothingMeasured(characteristics, problem));
}

/** Several questions of one step, or one of several circuits, as the step's analysis: in their order. */
export function joinAnswers(parts: readonly Answered[]): Answered {
  const corrections = parts.flatMap((part) => (part.corrections ? [part.corrections] : []));
  const cycles = parts.flatMap((part) => part.cycles ?? []);
  return made({
    ...parts.reduce<Partial<StepAnalysis>>((all, part) => ({ ...definedOf(part), ...all }), {}),
    characteristics: parts.flatMap((part) => part.characteristics),
    events: parts.flatMap((part) => part.events),
    notes: parts.flatMap((part) => part.notes),
    ...doubtsOf(parts.flatMap((part) => part.doubts ?? [])),
    ...(corrections.length > 0 ? { corrections: corrections.reduce(mergeCorrections) } : {}),
    ...(cycles.length > 0 ? { cycles } : {}),
  });
}

/** The same answer with what else has to be said of the trace. */
export function saying(part: Answered, notes: readonly AnalysisProblem[], doubts: readonly AnalysisProblem[] = []) {
  return made({ ...part, notes: [...part.notes, ...notes], ...doubtsOf([...(part.doubts ?? []), ...doubts]) });
}

/** The same answer with the cycle that its run and rest belong to. */
export function withCycle(part: Answered, cycle: MeasuredCycle): Answered {
  return made({ ...part, cycles: [...(part.cycles ?? []), cycle] });
}

/** Its figures alone: what was seen and noticed belongs to another answer of the step. */
export function silently(part: Answered): Answered {
  return made({ characteristics: part.characteristics, events: [], notes: [], ...doubtsOf(part.doubts ?? []) });
}

/** The same answer, correcting nothing after it. */
export function withoutCorrections(part: Answered): Answered {
  return made({ ...part, corrections: undefined });
}

/** The same answer with what the unit was fed with in it (Pa), as its expected curve is drawn for. */
export function fedWith(part: Answered, vacuum: number): Answered {
  return made({ ...part, vacuum });
}

/** An answer with only these of its characteristics. */
export function onlyOf(part: Answered, characteristics: readonly CharacteristicId[]): Answered {
  return made({ ...part, characteristics: part.characteristics.filter(({ id }) => characteristics.includes(id)) });
}

const made = (analysis: StepAnalysis) => analysis as Answered;

/** Each doubt once, however many of the step's questions have it. */
function doubtsOf(doubts: readonly AnalysisProblem[]): Pick<StepAnalysis, 'doubts'> {
  const different = new Map(doubts.map((doubt) => [JSON.stringify(doubt), doubt]));
  return different.size > 0 ? { doubts: [...different.values()] } : {};
}

const definedOf = (part: StepAnalysis): Partial<StepAnalysis> =>
  Object.fromEntries(Object.entries(part).filter(([, value]) => value !== undefined));
