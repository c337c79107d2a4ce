import type { AnyKind } from '../contract/kind';
import type { SignatureTable } from './signature-table';

/** Faults that leave every figure of a plan where it is, and that no look of it would show. */
export function unseenBy(kind: AnyKind, table: SignatureTable): readonly string[] {
  const plan = kind.plans.find((each) => each.id === table.plan);
  const points = new Set(
    kind.steps.flatMap((step) =>
      step.kind === 'look' && plan?.steps.includes(step.id) ? step.feeds.look.points.map((point) => point.id) : [],
    ),
  );
  return kind.model.faults
    .filter((fault) => !Object.keys(fault.appearance).some((point) => points.has(point)))
    .filter((fault) => !movesAnything(table, fault.id))
    .map((fault) => fault.id);
}

/** How far a figure has to move, in standard uncertainties of one sound unit’s, to be told from it. */
const toldApart = 2;

/** Whether a fault at its worst moves any figure out of where sound units lie, or makes one something else than a number. */
export function movesAnything(table: SignatureTable, fault: string): boolean {
  const worst = table.faults[fault]?.at(-1) ?? [];
  return worst.some((cell, at) => {
    if (cell === null) return false;
    const { sound, standard, scatter } = table.figures[at];
    if (Math.abs(cell.measured - sound.measured) > 0.5) return true;
    const spread = Math.hypot(standard, sound.spread, cell.spread, ...scatter);
    return cell.measured > 0.5 && Math.abs(cell.at - sound.at) > toldApart * spread;
  });
}
