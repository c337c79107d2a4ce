import type { AnyKind } from '../contract/kind';
import {
  chanceOf,
  chanceOfSaying,
  lookFindsUnlisted,
  lostToTheLog,
  saidOfSound,
  saidOfUnlisted,
  slip,
  soundFails,
} from './chances';
import type { Evidence, SeenFigure, SeenPoint } from './evidence';
import { faultsOf, type Hypothesis } from './hypothesis';
import { lookChance } from './look-chance';
import { partPlace } from '../quantities/places';
import { integrateNuisances, type Compared } from './nuisance';
import type { Cell, FigureSignature, SignatureTable } from './signature-table';
import type { State } from './states';

const { abs, exp, hypot, log, max, min, sign, sqrt, PI } = Math;

/** One thing that speaks: a step that was measured, a point that was looked at, something that the driver noticed. */
export type Finding =
  | { readonly kind: 'step'; readonly step: string }
  | { readonly kind: 'point'; readonly step: string; readonly point: string; readonly option: string }
  | { readonly kind: 'symptom'; readonly symptom: string; readonly said: boolean };

/** What a state says of the evidence: the log likelihood of every finding, and what stands between them. */
export interface StateLikelihood {
  readonly byFinding: Float64Array;
  readonly total: number;
}

/** How far a figure's place may be off its table by what no model says: of every figure, and of what a fault moves it by. */
const modelDoubt: Readonly<Record<FigureSignature['measure'], number>> = { share: 0.015, limit: 0.15 };
const ownDoubt = 0.08;
/** The same for all figures of a step, which one fault moves together. */
const stepDoubt = 0.2;

/** Where figures lie that nothing explains, about what is sound. */
const anywhere: Readonly<Record<FigureSignature['measure'], number>> = { share: 0.35, limit: 1.5 };

/** A fault does not do to a figure what it did to the table's units this seldom: another hand, another pace, another circuit. */
const withoutEffect = 0.02;

/** What units of the table did not show at all another unit shows this often, by luck or by another hand: anywhere, or where it would soundly. */
const shownAfterAll = 0.25;
const soundAfterAll = 0.15;

/** Chances out of four or five units are never quite nothing and never quite one. */
const smoothed = (share: number) => 0.02 + 0.94 * share;

/** Density of a value that may be anything: Student’s t with two degrees of freedom. */
function anywhereDensity(at: number, { sound, measure }: FigureSignature): number {
  const scale = anywhere[measure];
  const off = (at - sound.at) / scale;
  const wide = 1 + (off * off) / 2;
  return 1 / (scale * 2 * Math.SQRT2 * wide * sqrt(wide));
}

/** A place as far as anything is held against it: what is only better than sound is as good as sound. */
function heldAgainst({ better }: SeenFigure, place: number, sound: number): number {
  switch (better) {
    case 'below':
      return max(place, sound);
    case 'above':
      return min(place, sound);
    case undefined:
      return place;
  }
}

/** Density of the standard normal. */
const density = (z: number) => exp((-z * z) / 2) / sqrt(2 * PI);

/** Φ, by Zelen and Severo (Abramowitz and Stegun, 26.2.17); good to 1e-7. */
function below(z: number): number {
  const t = 1 / (1 + 0.2316419 * abs(z));
  const tail =
    (exp((-z * z) / 2) / sqrt(2 * PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z > 0 ? 1 - tail : tail;
}

/** Evidence laid out once for all states: which findings there are, and which figures belong to which. */
export interface LaidOut {
  readonly findings: readonly Finding[];
  readonly measured: readonly SeenFigure[];
  readonly bounded: readonly SeenFigure[];
  readonly lost: readonly SeenFigure[];
  /** Figures that failed, by their step; none of the table's where something else did. */
  readonly failed: ReadonlyMap<string, readonly SeenFigure[]>;
  readonly findingOfStep: ReadonlyMap<string, number>;
  readonly points: readonly { readonly finding: number; readonly point: SeenPoint }[];
  readonly symptoms: readonly { readonly finding: number; readonly symptom: string; readonly said: boolean }[];
  readonly table: SignatureTable;
  readonly kind: AnyKind;
  /** Faults that were mended: what the driver said before is explained by them, too. */
  readonly mended: readonly string[];
  readonly slipped: Float64Array;
  /** Density of each figure as seen in a sound unit, whatever is the matter. */
  readonly asSound: Float64Array;
  /** What moves figures together whatever is the matter: how sound units differ, and what places share of their gauge. */
  readonly sharedColumns: readonly Float64Array[];
}

/** Columns that move nothing worth a solution. */
const movesNothing = 0.003;

export function layOut(
  kind: AnyKind,
  table: SignatureTable,
  evidence: Evidence,
  mended: readonly string[] = [],
): LaidOut {
  const findings: Finding[] = [];
  const findingOfStep = new Map<string, number>();
  for (const { figure } of evidence.figures) {
    const { step } = table.figures[figure];
    if (!findingOfStep.has(step)) findingOfStep.set(step, findings.push({ kind: 'step', step }) - 1);
  }
  const points = evidence.points.map((point) => ({
    point,
    finding: findings.push({ kind: 'point', step: point.step, point: point.point, option: point.option }) - 1,
  }));
  const symptoms = (evidence.symptoms === null ? [] : kind.symptoms).map(({ id }) => {
    const said = evidence.symptoms?.includes(id) ?? false;
    return { symptom: id, said, finding: findings.push({ kind: 'symptom', symptom: id, said }) - 1 };
  });
  const of = (...kinds: readonly SeenFigure['seen']['kind'][]) =>
    evidence.figures.filter(({ seen }) => kinds.includes(seen.kind));
  const measured = of('measured');
  const failed = new Map<string, readonly SeenFigure[]>((evidence.failedOtherwise ?? []).map((step) => [step, []]));
  for (const each of evidence.figures) {
    const { step } = table.figures[each.figure];
    if (each.failed) failed.set(step, [...(failed.get(step) ?? []), each]);
  }
  return {
    findings,
    measured,
    bounded: of('above', 'below'),
    lost: of('absent'),
    failed,
    findingOfStep,
    points,
    symptoms,
    table,
    kind,
    mended,
    slipped: Float64Array.from(measured, (each) => {
      const { figure, seen } = each;
      const signature = table.figures[figure];
      return seen.kind === 'absent'
        ? 0
        : slip * anywhereDensity(heldAgainst(each, seen.at, signature.sound.at), signature);
    }),
    asSound: Float64Array.from(measured, (each) => asSoundDensity(table.figures[each.figure], each)),
    sharedColumns: [
      ...table.scatters
        .map((_, at) => Float64Array.from(measured, ({ figure }) => table.figures[figure].scatter[at]))
        .filter((column) => column.some((each) => abs(each) > movesNothing)),
      ...gaugeColumns(table, measured),
    ],
  };
}

const sharedOf = ({ seen }: SeenFigure) => (seen.kind === 'absent' ? 0 : (seen.shared ?? 0));

/** One characteristic of one step at several places is read by the same gauge, or by the same kind of them. */
function gaugeColumns(table: SignatureTable, measured: readonly SeenFigure[]): readonly Float64Array[] {
  const columns = new Map<string, Float64Array>();
  measured.forEach((each, at) => {
    const { step, id } = table.figures[each.figure];
    const { word } = partPlace(id);
    const key = `${step} ${word}`;
    const column = columns.get(key) ?? new Float64Array(measured.length);
    // What no model says of a characteristic it says of none of its places.
    column[at] = hypot(sharedOf(each), modelDoubt[table.figures[each.figure].measure]);
    columns.set(key, column);
  });
  return [...columns.values()].filter((column) => column.filter((each) => each > movesNothing).length > 1);
}

/** Likelihood of everything that was seen, if a state is what is the matter. */
export function likelihoodOf(laid: LaidOut, state: State): StateLikelihood {
  const byFinding = new Float64Array(laid.findings.length);
  const { each, cost } = integrateNuisances(compared(laid, state));
  laid.measured.forEach(({ figure }, at) => (byFinding[findingAt(laid, figure)] += each[at]));
  addBounds(laid, state.cells, byFinding);
  addLost(laid, state.cells, byFinding);
  addFailed(laid, state, byFinding);
  for (const { finding, point } of laid.points)
    byFinding[finding] += log(pointChance(laid.kind, state.hypothesis, point));
  for (const { finding, symptom, said } of laid.symptoms)
    byFinding[finding] += log(symptomChance(laid, state.hypothesis, symptom, said));
  return { byFinding, total: byFinding.reduce((sum, one) => sum + one, cost) };
}

const findingAt = ({ table, findingOfStep }: LaidOut, figure: number) => findingOfStep.get(table.figures[figure].step)!;

/** What was measured beside what a state lets expect, with how sound units differ, and how a whole step may be off. */
function compared({ measured, table, slipped, asSound, sharedColumns }: LaidOut, { cells, hypothesis }: State) {
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

/** Density of a reading in a sound unit: by its own doubt, and by how sound units differ. */
function asSoundDensity({ sound, scatter, measure }: FigureSignature, each: SeenFigure): number {
  if (each.seen.kind === 'absent') return 0;
  const soundly = hypot(each.seen.standard, sound.spread, modelDoubt[measure], ...scatter);
  return density((heldAgainst(each, each.seen.at, sound.at) - sound.at) / soundly) / soundly;
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
const nothingFound = ({ measured, above, below: under }: Cell) => max(0, 1 - measured - above - under);

/** A figure that was not reached at one place is reached at one this much further on two times in three. */
const reachedSoon = 0.5;

/** Chance that what the table’s units did not reach is not reached `further` on either; certain where less was tried than by them. */
const stillBeyond = (further: number, spread: number) => exp(-max(0, further - spread) / reachedSoon);

/** A figure that is only known to lie beyond something: the fault makes it so, or its value lies there. */
function addBounds(laid: LaidOut, cells: readonly Cell[], byFinding: Float64Array): void {
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
function addLost(laid: LaidOut, cells: readonly Cell[], byFinding: Float64Array): void {
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
function addFailed(laid: LaidOut, { cells, hypothesis }: State, byFinding: Float64Array): void {
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

/** Chance of what was seen at a point of a look. */
function pointChance(kind: AnyKind, hypothesis: Hypothesis, { point, option, options }: SeenPoint): number {
  const looks = faultsOf(hypothesis).flatMap(
    (id) => kind.model.faults.find((fault) => fault.id === id)?.appearance[point] ?? [],
  );
  const shown = looks.includes(option) ? option : looks[0];
  return lookChance(options, option, shown, hypothesis.kind === 'not-in-this-list' ? lookFindsUnlisted : undefined);
}

/** Chance that a driver said, or did not say, one thing of the list; of a unit that is sound by now, because of what was mended. */
function symptomChance({ kind, mended }: LaidOut, hypothesis: Hypothesis, id: string, said: boolean): number {
  const symptom = kind.symptoms.find((each) => each.id === id);
  const brought = (faults: readonly string[]) => faults.map((fault) => chanceOf[symptom?.of[fault] ?? 'rarely']);
  // What sound units are said to do too, any unit is.
  const ordinary = symptom?.ofSound === undefined ? 0 : chanceOf[symptom.ofSound];
  const noticed = max(ordinary, noticedOf());
  return said ? noticed : 1 - chanceOfSaying * noticed;
  function noticedOf(): number {
    switch (hypothesis.kind) {
      case 'no-fault':
        return max(saidOfSound, ...brought(mended));
      case 'not-in-this-list':
        return saidOfUnlisted;
      default:
        return max(...brought(faultsOf(hypothesis)));
    }
  }
}

/**
 * Log likelihood of a unit with something that no fault of the list explains: some of its steps are as in a sound unit, the others may
 * show anything. What moves figures need not do so as sound units differ: with and without that, whichever explains more.
 */
export function unlistedLikelihood(laid: LaidOut, sound: State): StateLikelihood {
  const together = touchedLikelihood(laid, sound, loosened(compared(laid, sound)));
  const asunder = touchedLikelihood(laid, sound, apart(compared(laid, sound)));
  return together.total > asunder.total ? together : asunder;
}

/** Share of figures that may be anything while what sound units differ in is fitted to the others. */
const looseShare = 0.2;

/** The same with so many slips allowed that no figure drags the others along. */
function loosened({ slipped, otherwise, chance, ...rest }: Compared): Compared {
  return {
    ...rest,
    slipped: slipped.map((each) => (each * looseShare) / slip),
    otherwise: otherwise.map((each) => each * (1 - looseShare)),
    chance: chance.map((each) => each * (1 - looseShare)),
  };
}

/** The same with every figure for itself. */
function apart({ columns, variance, ...rest }: Compared): Compared {
  const wider = variance.map((each, at) => columns.reduce((sum, column) => sum + column[at] ** 2, each));
  return { ...rest, variance: wider, columns: [] };
}

function touchedLikelihood(laid: LaidOut, sound: State, how: Compared): StateLikelihood {
  const hypothesis = { kind: 'not-in-this-list' } as const;
  const { each, cost } = integrateNuisances(how);
  const size = laid.findings.length;
  const [asSound, asAnything] = [new Float64Array(size), new Float64Array(size)];
  laid.measured.forEach((one, at) => {
    const { figure, seen } = one;
    if (seen.kind === 'absent') return;
    const finding = findingAt(laid, figure);
    asSound[finding] += each[at];
    const signature = laid.table.figures[figure];
    const place = heldAgainst(one, seen.at, signature.sound.at);
    asAnything[finding] += log(0.5 * exp(each[at]) + 0.5 * anywhereDensity(place, signature));
  });
  addBounds(laid, sound.cells, asSound);
  addLost(laid, sound.cells, asSound);
  addFailed(laid, sound, asSound);
  for (const { figure } of laid.bounded) asAnything[findingAt(laid, figure)] += log(anyOutcome);
  for (const finding of new Set(laid.lost.map(({ figure }) => findingAt(laid, figure))))
    asAnything[finding] += log(anyOutcome);
  const steps = [...laid.findingOfStep.values()];
  const touched = (share: number, at: number) => log((1 - share) * exp(asSound[at]) + share * exp(asAnything[at]));
  // How many of the steps it touches nobody knows: the shares are tried, and what they come to is averaged.
  const totals = touchedShares.map((share) => steps.reduce((sum, at) => sum + touched(share, at), 0));
  const best = touchedShares[totals.indexOf(max(...totals))];
  const byFinding = new Float64Array(size);
  for (const at of steps) byFinding[at] = touched(best, at);
  for (const { finding, point } of laid.points) byFinding[finding] = log(pointChance(laid.kind, hypothesis, point));
  for (const { finding, symptom, said } of laid.symptoms)
    byFinding[finding] = log(symptomChance(laid, hypothesis, symptom, said));
  const rest = [...laid.points, ...laid.symptoms].reduce((sum, { finding }) => sum + byFinding[finding], 0);
  const peak = max(...totals);
  const steady = peak + log(totals.reduce((sum, one) => sum + exp(one - peak), 0) / totals.length);
  return { byFinding, total: steady + rest + cost };
}

/** Shares of its steps that something unlisted may touch. */
const touchedShares = [0.1, 0.3, 0.6] as const;

/** Chance of a bound, or of nothing, of a step that may show anything. */
const anyOutcome = 0.3;
