import { lostToTheLog, soundFails } from './chances';
import { nothingFound } from './compared-figures';
import type { SeenFigure } from './evidence';
import { below, heldAgainst, modelDoubt, smoothed } from './figure-density';
import { faultsOf } from './hypothesis';
import { findingAt, type LaidOut } from './laid-out';
import type { Cell } from './signature-table';
import type { State } from './states';

const { abs, exp, hypot, log, max, min, sign } = Math;

/** Chance of a bound, or of nothing, of a step that may show anything. */
export const anyOutcome = 0.3;

/** A figure that was not reached at one place is reached at one this much further on two times in three. */
const reachedSoon = 0.5;

/** Chance that what the table’s units did not reach is not reached `further` on either; certain where less was tried than by them. */
const stillBeyond = (further: number, spread: number) => exp(-max(0, further - spread) / reachedSoon);

/** A figure that is only known to lie beyond something: the fault makes it so, or its value lies there. */
export function addBounds(laid: LaidOut, cells: readonly Cell[], byFinding: Float64Array): void {
  for (const each of laid.bounded) {
    const { figure, seen } = each;
    if (seen.kind === 'absent' || seen.kind === 'measured') continue;
    const cell = cells[figure];
    const { measure } = laid.table.figures[figure];
    const spread = hypot(seen.standard, cell.spread, modelDoubt[measure]);
    const { sound } = laid.table.figures[figure];
    const off = heldAgainst(each, cell.at, sound.at) - heldAgainst(each, seen.at, sound.at);
    const beyond = below((seen.kind === 'above' ? off : -off) / spread);
    const further = seen.kind === 'above' ? -off : off;
    const chance = max(cell[seen.kind] * stillBeyond(further, spread), cell.measured * beyond);
    byFinding[findingAt(laid, figure)] += log(smoothed(min(1, chance + nothingFound(cell) * anyOutcome)));
  }
}

/** Figures of which a step found nothing: their log's fault or their unit's, and all of a step for one reason. */
export function addLost(laid: LaidOut, cells: readonly Cell[], byFinding: Float64Array): void {
  const bySteps = new Map<number, number[]>();
  for (const { figure } of laid.lost) {
    const chance = lostToTheLog + (1 - lostToTheLog) * smoothed(nothingFound(cells[figure]));
    const finding = findingAt(laid, figure);
    bySteps.set(finding, [...(bySteps.get(finding) ?? []), log(chance)]);
  }
  for (const [finding, logs] of bySteps) byFinding[finding] += logs.reduce((sum, each) => sum + each, 0) / logs.length;
}

/** A fault that moves a figure by less than this share of how far off it was found does not make it fail. */
const makesItFail = 0.25;

/** Whether a state does to a figure what made it fail. */
function makesFail({ table }: LaidOut, cells: readonly Cell[], { figure, seen }: SeenFigure): boolean {
  if (seen.kind === 'absent') return false;
  const [cell, { sound }] = [cells[figure], table.figures[figure]];
  const [found, moved] = [seen.at - sound.at, cell.at - sound.at];
  const further = sign(found) * (seen.at - cell.at);
  const beyond = (found > 0 ? cell.above : cell.below) * stillBeyond(further, seen.standard);
  return beyond > 0.1 || (cell.measured > 0.1 && sign(moved) === sign(found) && abs(moved) >= makesItFail * abs(found));
}

/** A step that failed and that a state leaves as it is in a sound unit: as good as never, whichever fault it is. */
export function addFailed(laid: LaidOut, { cells, hypothesis }: State, byFinding: Float64Array): void {
  const faults = laid.kind.model.faults.filter(({ id }) => faultsOf(hypothesis).includes(id));
  for (const [step, figures] of laid.failed) {
    const finding = laid.findingOfStep.get(step);
    // Of what no table has a figure of, a fault's own words say whether it does it.
    const does =
      figures.length > 0
        ? figures.some((each) => makesFail(laid, cells, each))
        : faults.some(({ tells }) => tells.includes(step));
    if (finding !== undefined && !does) byFinding[finding] += log(soundFails);
  }
}
