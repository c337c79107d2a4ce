import type { AnyKind } from '../contract/kind';
import { truthOf } from '../contract/model';
import type { StepEvaluation } from '../judging/evaluate-unit';
import type { StepContext } from '../procedure/step-context';
import { limitOf, scaleOf, seenOf, type Seen } from './figure';
import type { SignatureTable } from './signature-table';

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
  readonly inOrder: boolean;
  /** Options that it could have been but in order. */
  readonly others: number;
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

/** What a job's steps and its complaint say, in the coordinates of the kind's table. */
export function evidenceOf(
  kind: AnyKind,
  table: SignatureTable,
  steps: readonly StepEvaluation[],
  context: StepContext<unknown>,
  symptoms: readonly string[],
): Evidence {
  const truth = kind.model.truth(context.unit, kind.model.sound(context.unit), context);
  const figures = table.figures.flatMap(({ step: stepId, id, measure }, figure): SeenFigure[] => {
    const step = steps.find((each) => each.step === stepId);
    const found = step?.characteristics.find((each) => each.id === id);
    if (!step || !found) return [];
    if (found.kind === 'absent') return [{ figure, seen: { kind: 'absent' } }];
    const limit = limitOf(step.checks, id);
    const scale = scaleOf(measure, limit, truthOf(truth, stepId, found.id));
    return scale ? [{ figure, seen: seenOf(found, scale, limit?.standard) }] : [];
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
      if (!option) return [];
      const inOrder = option.effect === 'pass';
      const others = options.filter((each) => each.effect !== 'pass').length;
      return [{ step: id, point: point.id, option: option.id, inOrder, others }];
    });
  });
}
