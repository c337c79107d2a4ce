import { slip } from './chances';
import type { LaidOut } from './laid-out';
import { anywhereDensity, density, heldAgainst, modelDoubt, smoothed } from './figure-density';
import type { Compared } from './nuisance';
import type { Cell, FigureSignature } from './signature-table';
import type { State } from './states';

const { abs, hypot, max } = Math;

/** How far a figure may be off its table by what no model says, as a share of what a fault moves it by. */
const ownDoubt = 0.08;
/** The same for all figures of a step, which one fault moves together. */
const stepDoubt = 0.2;

/** A fault does not do to a figure what it did to the table's units this seldom: another hand, another pace, another circuit. */
const withoutEffect = 0.02;

/** What units of the table did not show at all another unit shows this often, by luck or by another hand: anywhere, or where it would soundly. */
const shownAfterAll = 0.25;
const soundAfterAll = 0.15;

/** What was measured beside what a state lets expect, with how sound units differ, and how a whole step may be off. */
export function compared(
  { measured, table, slipped, asSound, sharedColumns }: LaidOut,
  { cells, hypothesis }: State,
): Compared {
  const count = measured.length;
  const [off, variance, chance] = [new Float64Array(count), new Float64Array(count), new Float64Array(count)];
  const otherwise = new Float64Array(count);
  const byStep = new Map<string, Float64Array>();
  measured.forEach((each, at) => {
    const { figure, seen } = each;
    if (seen.kind === 'absent') return;
    const [cell, { sound, measure, step }] = [cells[figure], table.figures[figure]];
    const seenAt = heldAgainst(each, seen.at, sound.at);
    const moved = heldAgainst(each, cell.at, sound.at) - sound.at;
    off[at] = seenAt - sound.at - moved;
    // A fault that hardly moves a figure does not make sizes more alike in it: five of them only seem so.
    const spread = abs(moved) < sound.spread ? max(cell.spread, sound.spread) : cell.spread;
    variance[at] = seen.standard ** 2 + spread ** 2 + modelDoubt[measure] ** 2 + (ownDoubt * moved) ** 2;
    chance[at] = (1 - slip) * smoothed(cell.measured);
    if (cell.measured < 1) {
      const reading = { seenAt, asSound: asSound[at], doubt: hypot(seen.standard, spread, modelDoubt[measure]) };
      otherwise[at] = (1 - slip) * untoldDensity(cell, table.figures[figure], reading);
    }
    if (hypothesis.kind === 'no-fault' || abs(moved) * stepDoubt < modelDoubt[measure]) return;
    otherwise[at] += withoutEffect * asSound[at];
    const column = byStep.get(step) ?? new Float64Array(count);
    column[at] = stepDoubt * moved;
    byStep.set(step, column);
  });
  return { off, variance, slipped, otherwise, chance, columns: [...sharedColumns, ...byStep.values()] };
}

/** Of a fault's units of which a step found nothing, or only that it lies beyond something, another may show a number. */
interface Reading {
  readonly seenAt: number;
  /** Density of it in a sound unit. */
  readonly asSound: number;
  readonly doubt: number;
}

/**
 * Density of a reading by the share of a table's units that gave no number: beyond where they were known to lie beyond something; where nothing was found of them anywhere, or as in a sound unit.
 */
function untoldDensity(cell: Cell, signature: FigureSignature, { seenAt, asSound, doubt }: Reading): number {
  // As far out as anything that nothing explains, all of it to one side.
  const at = (further: number) => 2 * anywhereDensity(signature.sound.at + further, signature);
  const beyond = (further: number) => (further > 0 ? at(further) : (at(0) * density(further / doubt)) / density(0));
  return (
    cell.above * beyond(seenAt - cell.at) +
    cell.below * beyond(cell.at - seenAt) +
    nothingFound(cell) * (shownAfterAll * anywhereDensity(seenAt, signature) + soundAfterAll * asSound)
  );
}

/** Share of a table's units of which a step found nothing. */
export const nothingFound = ({ measured, above, below: under }: Cell) => max(0, 1 - measured - above - under);
