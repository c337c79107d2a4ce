import type { AnyKind } from '../contract/kind';
import { conditionWith } from '../contract/model';
import { evaluateStep, type StepEvaluation } from '../judging/evaluate-unit';
import type { StepContext } from '../procedure/step-context';
import { observe } from '../rig/observe';
import { evidenceOf, type SeenFigure } from './evidence';
import { extentOf, type FaultExtent } from './ledger';
import { severityOf, type SeverityShare } from './rank';
import type { SignatureTable } from './signature-table';

const { abs, exp, hypot, max, min } = Math;

/** How much of a fault there is, fitted to what was measured by the model of the unit at hand. */
export interface SeverityFit {
  readonly fault: string;
  /** From 0 to 1, and its standard uncertainty. */
  readonly severity: number;
  readonly standard: number;
  /** Whether what fits best lies inside what was tried, or at its end: then it may as well lie beyond. */
  readonly lies: 'inside' | 'at-the-least' | 'at-the-most';
  /** In the fault's own figure; null for one that has none. */
  readonly extent: FaultExtent | null;
  /** Steps whose figures it was fitted to. */
  readonly steps: readonly string[];
}

/** Severities that are tried first, and how many between the best one's neighbours after that. */
const coarse = [0.05, 0.2, 0.4, 0.6, 0.8, 1] as const;
const finer = 5;

/** At most so many steps are worked out anew: those that the fault moves furthest. */
const mostSteps = 2;

/** A figure has to be moved so many of its own uncertainties to say how much of a fault there is. */
const worthFitting = 2;

/** What no model says, in a figure's coordinate, and a part of what the fault moves. */
const ownDoubt = 0.02;
const movedDoubt = 0.04;

/** Severities that the fit is looked for at. */
const lineSteps = 240;

interface Moved {
  readonly step: string;
  readonly seen: readonly SeenFigure[];
  readonly by: number;
}

/** Steps of which figures were measured that the fault moves, most first. */
function movedSteps(table: SignatureTable, fault: string, figures: readonly SeenFigure[]): readonly Moved[] {
  const signature = table.faults[fault] ?? [];
  const byStep = new Map<string, SeenFigure[]>();
  const reach = new Map<string, number>();
  for (const each of figures) {
    if (each.seen.kind !== 'measured') continue;
    const { step, sound, standard, scatter } = table.figures[each.figure];
    const cells = signature.flatMap((row) => row[each.figure] ?? []).filter((cell) => cell.measured >= 0.5);
    const furthest = max(0, ...cells.map((cell) => abs(cell.at - sound.at)));
    const by = furthest / hypot(ownDoubt, standard, sound.spread, ...scatter);
    if (by < worthFitting) continue;
    byStep.set(step, [...(byStep.get(step) ?? []), each]);
    reach.set(step, max(by, reach.get(step) ?? 0));
  }
  return [...byStep]
    .map(([step, seen]) => ({ step, seen, by: reach.get(step)! }))
    .toSorted((a, b) => b.by - a.by)
    .slice(0, mostSteps);
}

/** Place of every figure of a step, as the model of this unit has it with so much of the fault; NaN where it finds none. */
function placesAt(
  kind: AnyKind,
  table: SignatureTable,
  context: StepContext<unknown>,
  { step: id, seen }: Moved,
  condition: unknown,
): readonly number[] {
  const step = kind.steps.find((each) => each.id === id);
  if (!step || step.kind === 'look') return seen.map(() => Number.NaN);
  const analysis = observe(kind, step, context, { unit: context.unit, condition });
  if (!analysis) return seen.map(() => Number.NaN);
  const evaluation = evaluateStep(kind, step, [{ analysed: () => analysis }], { context, policy: 'guarded' });
  const { figures } = evidenceOf(kind, table, [evaluation], context, []);
  return seen.map(({ figure }) => {
    const place = figures.find((each) => each.figure === figure)?.seen;
    return place?.kind === 'measured' ? place.at : Number.NaN;
  });
}

interface Tried {
  readonly severity: number;
  /** By step, by figure. */
  readonly places: readonly (readonly number[])[];
}

/** Between two tried severities places lie on a line; a figure that one of them lacks says nothing there. */
function between(tried: readonly Tried[], severity: number): readonly (readonly number[])[] {
  const after = max(
    1,
    tried.findIndex((each, at) => at === tried.length - 1 || each.severity >= severity),
  );
  const [a, b] = [tried[after - 1], tried[after]];
  const share = (severity - a.severity) / (b.severity - a.severity);
  return a.places.map((row, step) => row.map((place, at) => place + (b.places[step][at] - place) * share));
}

/** Share of a log likelihood at most lost to one figure: one that fits nowhere says nothing. */
const mostLost = 8;

function misfit(table: SignatureTable, moved: readonly Moved[], places: readonly (readonly number[])[]): number {
  let sum = 0;
  moved.forEach(({ seen }, step) =>
    seen.forEach(({ figure, seen: one }, at) => {
      const place = places[step][at];
      if (one.kind !== 'measured') return;
      if (Number.isNaN(place)) {
        sum += mostLost;
        return;
      }
      const { sound, scatter } = table.figures[figure];
      const standard = hypot(one.standard, ownDoubt, movedDoubt * (place - sound.at), ...scatter);
      sum += min(mostLost, ((one.at - place) / standard) ** 2 / 2);
    }),
  );
  return sum;
}

/** All severities that were tried, evenly from the least to the most, each with how badly it fits. */
interface Misfits {
  readonly severities: readonly number[];
  readonly lost: readonly number[];
}

function misfitsOf(table: SignatureTable, moved: readonly Moved[], tried: readonly Tried[]): Misfits {
  const [least, most] = [tried[0].severity, tried[tried.length - 1].severity];
  const severities = Array.from({ length: lineSteps + 1 }, (_, at) => least + ((most - least) * at) / lineSteps);
  return { severities, lost: severities.map((severity) => misfit(table, moved, between(tried, severity))) };
}

/**
 * How likely each severity is. Where even the best fits worse than its uncertainties allow, they are taken to be that much larger
 * (Birge, Physical Review 40, 1932); not at an end of what was tried, where it is what was not tried that would fit.
 */
function sharesOf(misfits: Misfits, figures: number): readonly SeverityShare[] {
  const { severities, lost } = misfits;
  const lowest = min(...lost);
  const larger = liesAt(misfits) === 'inside' ? max(1, (2 * lowest) / figures) : 1;
  const weights = lost.map((each) => exp((lowest - each) / larger));
  const total = weights.reduce((sum, each) => sum + each, 0);
  return severities.map((severity, at) => ({ severities: [severity], share: weights[at] / total }));
}

/** The coarse severities, and finer ones about the one of them that fits best; in order. */
function tryAll(tryAt: (severity: number) => Tried, lostAt: (tried: Tried) => number): readonly Tried[] {
  const first = coarse.map(tryAt);
  const costs = first.map(lostAt);
  const best = costs.indexOf(min(...costs));
  const [from, to] = [coarse[max(0, best - 1)], coarse[min(coarse.length - 1, best + 1)]];
  const more = Array.from({ length: finer }, (_, at) => from + ((to - from) * (at + 1)) / (finer + 1))
    .filter((severity) => !first.some((each) => abs(each.severity - severity) < 1e-6))
    .map(tryAt);
  return [...first, ...more].toSorted((a, b) => a.severity - b.severity);
}

function liesAt({ lost }: Misfits): SeverityFit['lies'] {
  const best = lost.indexOf(min(...lost));
  if (best === 0) return 'at-the-least';
  return best === lost.length - 1 ? 'at-the-most' : 'inside';
}

/**
 * Fits the severity of one fault to the figures of the steps that it moves most, the unit's own model run for the sheet, the air and the
 * instruments at hand: what the tables of signatures lose between sizes and severities is not lost here. Null where nothing that was
 * measured is moved by it. Some dozen runs of a step without noise; deterministic.
 */
export function fitSeverity(
  kind: AnyKind,
  table: SignatureTable,
  context: StepContext<unknown>,
  evaluations: readonly StepEvaluation[],
  fault: string,
): SeverityFit | null {
  const { figures } = evidenceOf(kind, table, evaluations, context, []);
  const moved = movedSteps(table, fault, figures);
  if (moved.length === 0) return null;
  const tryAt = (severity: number): Tried => {
    const condition: unknown = conditionWith(kind.model, context.unit, [{ id: fault, severity }]);
    return { severity, places: moved.map((each) => placesAt(kind, table, context, each, condition)) };
  };
  const tried = tryAll(tryAt, ({ places }) => misfit(table, moved, places));
  const misfits = misfitsOf(table, moved, tried);
  const shares = sharesOf(
    misfits,
    moved.reduce((sum, { seen }) => sum + seen.length, 0),
  );
  const found = severityOf({ severities: shares })!;
  return {
    fault,
    severity: found.mean,
    standard: found.standard,
    lies: liesAt(misfits),
    extent: extentOf(kind, context.unit, fault, shares, 0),
    steps: moved.map((each) => each.step),
  };
}
