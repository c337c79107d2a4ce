import type { AnyKind } from '../contract/kind';
import { partPlace } from '../quantities/places';
import { slip } from './chances';
import type { Evidence, SeenFigure, SeenPoint } from './evidence';
import { anywhereDensity, asSoundDensity, heldAgainst, modelDoubt } from './figure-density';
import type { SignatureTable } from './signature-table';

const { abs, hypot } = Math;

/** One thing that speaks: a step that was measured, a point that was looked at, something that the driver noticed. */
export type Finding =
  | { readonly kind: 'step'; readonly step: string }
  | { readonly kind: 'point'; readonly step: string; readonly point: string; readonly option: string }
  | { readonly kind: 'symptom'; readonly symptom: string; readonly said: boolean };

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

/** Number of the finding to which a figure of the table belongs. */
export const findingAt = ({ table, findingOfStep }: LaidOut, figure: number) =>
  findingOfStep.get(table.figures[figure].step)!;
