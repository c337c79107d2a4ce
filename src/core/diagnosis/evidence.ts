import type { AnyKind } from '../contract/kind';
import { truthOf } from '../contract/model';
import type { StepEvaluation } from '../judging/evaluate-unit';
import type { LookOption } from '../procedure/look-step';
import type { StepContext } from '../procedure/step-context';
import { inProportion, limitOf, scaleOf, seenOf, type Seen } from './figure';
import type { Limit } from '../procedure/limit';
import type { SignatureTable } from './signature-table';
import { soundTruth } from './sound-truth';

/** A figure of the table that a step spoke of; `figure` is its place in the table. */
export interface SeenFigure {
  readonly figure: number;
  readonly seen: Seen;
  /** Side of what sound units show on which nothing is held against it: further out there it is only better. */
  readonly better?: 'above' | 'below';
  /** It failed its limit. */
  readonly failed?: true;
}

/** A point of a look, and what was found there. */
export interface SeenPoint {
  readonly step: string;
  readonly point: string;
  readonly option: string;
  /** All that it could have been. */
  readonly options: readonly LookOption[];
}

/** Everything that a job holds, as far as it speaks for or against a fault. */
export interface Evidence {
  readonly figures: readonly SeenFigure[];
  readonly points: readonly SeenPoint[];
  /** What the driver noticed, of the kind's list; null where nobody asked or nothing was said. */
  readonly symptoms: readonly string[] | null;
  /** Steps of which something failed that is no figure of the table: no fault is known to do that. Left out, there are none. */
  readonly failedOtherwise?: readonly string[];
  /** Every step that a release wants was done and passed. Left out, that is not so. */
  readonly allPassed?: boolean;
}

/** The side on which a limit holds nothing against a figure; undefined where it is held on both, or on none. */
function betterSide({ low, high }: Limit): SeenFigure['better'] {
  if (low === null && high !== null) return 'below';
  return high === null && low !== null ? 'above' : undefined;
}

/**
 * A figure that nothing is held against (a draw-down time, what a stroke costs) hangs on the bench, its source and the moment as much as
 * on the unit: standard uncertainty of its place for that.
 */
const recordedDoubt = 0.15;

/**
 * What is set by hand lies somewhere in its window, and other makes of a part elsewhere in it than the sheet’s middle: standard uncertainty
 * for that, as a share of half the window; SI of the figure.
 */
const windowShare = 0.25;

function setAnywhereIn({ low, high, window, expected }: Limit): number {
  // What is known to lie anywhere in a window is even over it, and as far from what is expected as its further end.
  if (window && expected !== null) return Math.max(window[1] - expected, expected - window[0]) / Math.sqrt(3);
  // Where nobody knows what is expected of it, it may be all of the window off.
  if (window) return (window[1] - window[0]) / Math.sqrt(3);
  return low === null || high === null ? 0 : (windowShare * (high - low)) / 2;
}

function asRecorded(seen: Seen): Seen {
  return seen.kind === 'absent' ? seen : { ...seen, standard: Math.hypot(seen.standard, recordedDoubt) };
}

/** What a job's steps and its complaint say, in the coordinates of the kind's table. */
export function evidenceOf(
  kind: AnyKind,
  table: SignatureTable,
  steps: readonly StepEvaluation[],
  context: StepContext<unknown>,
  symptoms: readonly string[],
): Evidence {
  const truth = soundTruth(kind, context);
  const figures = table.figures.flatMap(({ step: stepId, id, measure }, figure): SeenFigure[] => {
    const step = steps.find((each) => each.step === stepId);
    const judged = step?.characteristics.find((each) => each.id === id);
    if (!step || !judged) return [];
    const {
      found,
      limit,
      truth: sound,
    } = inProportion({
      found: judged,
      limit: limitOf(step.checks, id),
      truth: truthOf(truth, stepId, judged.id),
    });
    if (found.kind === 'absent') return [{ figure, seen: { kind: 'absent' } }];
    const scale = scaleOf(measure, limit, sound);
    if (!scale) return [];
    const seen = seenOf(found, scale, limit && Math.hypot(limit.standard, setAnywhereIn(limit)));
    if (!limit) return [{ figure, seen: asRecorded(seen) }];
    const failed = step.checks.some((check) => check.characteristic === id && check.verdict.kind === 'fail');
    return [{ figure, seen, better: betterSide(limit), ...(failed ? { failed } : {}) }];
  });
  const known = symptoms.filter((id) => kind.symptoms.some((symptom) => symptom.id === id));
  return {
    figures,
    points: seenPoints(kind, steps),
    symptoms: known.length > 0 ? known : null,
    failedOtherwise: failedOtherwise(table, steps, figures),
    allPassed: allPassed(kind, steps, context),
  };
}

/** Measured steps that failed by no figure that the table has. */
function failedOtherwise(
  table: SignatureTable,
  steps: readonly StepEvaluation[],
  figures: readonly SeenFigure[],
): readonly string[] {
  const told = new Set(figures.flatMap(({ figure, failed }) => (failed ? [table.figures[figure].step] : [])));
  return steps.flatMap(({ step, checks }) =>
    !told.has(step) && checks.some(({ verdict }) => verdict.kind === 'fail') ? [step] : [],
  );
}

function allPassed(kind: AnyKind, steps: readonly StepEvaluation[], context: StepContext<unknown>): boolean {
  const plan = kind.plans.find(({ id }) => id === context.plan);
  const wanted = kind.steps.filter(({ id, optional }) => !optional && plan?.steps.includes(id));
  return wanted.every(({ id }) => {
    const verdict = steps.find(({ step }) => step === id)?.verdict;
    return verdict === 'pass' || verdict === 'recorded';
  });
}

function seenPoints(kind: AnyKind, steps: readonly StepEvaluation[]): SeenPoint[] {
  return steps.flatMap(({ step: id, findings }) => {
    const step = kind.steps.find((each) => each.id === id);
    if (step?.kind !== 'look' || !findings) return [];
    const { points, options } = step.feeds.look;
    return points.flatMap((point): SeenPoint[] => {
      const option = options.find((each) => each.id === findings[point.id]);
      return option ? [{ step: id, point: point.id, option: option.id, options }] : [];
    });
  });
}
