import type { AnyKind } from '@/core/contract/kind';
import type { Evidence, SeenFigure, SeenPoint } from '@/core/diagnosis/evidence';
import type { Cell, SignatureTable } from '@/core/diagnosis/signature-table';
import { cellsAt } from '@/core/diagnosis/states';
import type { PlanId } from '@/core/procedure/step-context';
import { readSignatures } from '@/server/context/signature-file';

/** The committed table of a kind's plan. */
export function tableOf(kind: AnyKind, plan: PlanId): SignatureTable {
  const table = readSignatures(kind, plan);
  if (!table) throw new Error(`there is no table of ${kind.family} ${kind.value} ${plan}: npm run signatures`);
  return table;
}

/** What steps would show of a unit whose cells are these, measured without error; of all steps, or of some. */
export function shownEvidence(
  table: SignatureTable,
  cells: readonly Cell[],
  steps: readonly string[] | null = null,
  over: Partial<Evidence> = {},
): Evidence {
  const figures = table.figures.flatMap(({ step, standard }, figure): SeenFigure[] => {
    if (steps && !steps.includes(step)) return [];
    const cell = cells[figure];
    const most = Math.max(cell.measured, cell.above, cell.below);
    if (most < 0.5) return [{ figure, seen: { kind: 'absent' } }];
    const kind = most === cell.measured ? 'measured' : most === cell.above ? 'above' : 'below';
    return [{ figure, seen: { kind, at: cell.at, standard } }];
  });
  return { figures, points: [], symptoms: null, ...over };
}

/** The same of a sound unit, or of one with a fault. */
export function evidenceFor(
  table: SignatureTable,
  fault: string | null,
  severity = 0.6,
  steps: readonly string[] | null = null,
) {
  const cells = fault === null ? table.figures.map((figure) => figure.sound) : cellsAt(table, fault, severity);
  return shownEvidence(table, cells, steps);
}

/** Every point of a plan's looks as it is found with a fault. */
export function pointsFor(kind: AnyKind, plan: PlanId, fault: string): readonly SeenPoint[] {
  const appearance = kind.model.faults.find((each) => each.id === fault)?.appearance ?? {};
  const { steps } = kind.plans.find((each) => each.id === plan)!;
  return kind.steps.flatMap((step): SeenPoint[] => {
    if (step.kind !== 'look' || !steps.includes(step.id)) return [];
    const { points, options } = step.feeds.look;
    return points.map(({ id }) => ({ step: step.id, point: id, option: appearance[id] ?? options[0].id, options }));
  });
}
