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
  /** Whether any step failed its limits, by whatever figure: a sound unit does so hardly ever. Left out, none did. */
  readonly failed?: boolean;
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
    return [{ figure, seen: limit ? seen : asRecorded(seen) }];
  });
  const known = symptoms.filter((id) => kind.symptoms.some((symptom) => symptom.id === id));
  const failed = steps.some(({ verdict }) => verdict === 'fail');
  return { figures, points: seenPoints(kind, steps), symptoms: known.length > 0 ? known : null, failed };
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
