import type { Hypothesis } from './hypothesis';
import type { Cell, FaultSignature, SignatureTable } from './signature-table';

/** A hypothesis at one of its severities, with what every figure of the table would be. */
export interface State {
  readonly hypothesis: Hypothesis;
  /** One for each fault that it speaks of. */
  readonly severities: readonly number[];
  readonly cells: readonly Cell[];
}

/** Severities that are integrated over. */
const finerSteps = 10;

const mixed = (a: number, b: number, share: number) => a + (b - a) * share;

function between(a: Cell, b: Cell, share: number): Cell {
  // Where one of two says nothing of a place, the other's is all that is known of it.
  const [from, to] = [a.measured + a.above + a.below > 0 ? a : b, b.measured + b.above + b.below > 0 ? b : a];
  return {
    measured: mixed(a.measured, b.measured, share),
    above: mixed(a.above, b.above, share),
    below: mixed(a.below, b.below, share),
    at: mixed(from.at, to.at, share),
    spread: mixed(from.spread, to.spread, share),
  };
}

/** Cells of a fault at any severity from the lowest that was tried to the highest. */
export function cellsAt(table: SignatureTable, fault: string, severity: number): readonly Cell[] {
  const { severities, figures } = table;
  const signature: FaultSignature = table.faults[fault];
  const last = severities.length - 1;
  const above = Math.max(
    1,
    severities.findIndex((each, at) => at === last || each >= severity),
  );
  const share = (severity - severities[above - 1]) / (severities[above] - severities[above - 1]);
  return figures.map(({ sound }, figure) =>
    between(signature[above - 1][figure] ?? sound, signature[above][figure] ?? sound, share),
  );
}

/** Whether a fault does the same at every severity. */
function isThereOrNot(signature: FaultSignature): boolean {
  const texts = new Set(signature.map((cells) => JSON.stringify(cells)));
  return texts.size === 1;
}

const known = new WeakMap<SignatureTable, readonly State[]>();

/** No fault, and every fault at every severity that is integrated over. Made once a table. */
export function statesOf(table: SignatureTable): readonly State[] {
  const made = known.get(table) ?? makeStates(table);
  known.set(table, made);
  return made;
}

function makeStates(table: SignatureTable): readonly State[] {
  const { severities } = table;
  const [least, most] = [severities[0], severities[severities.length - 1]];
  const finer = Array.from({ length: finerSteps }, (_, at) => mixed(least, most, at / (finerSteps - 1)));
  const sound: State = {
    hypothesis: { kind: 'no-fault' },
    severities: [],
    cells: table.figures.map((figure) => figure.sound),
  };
  const faulty = Object.entries(table.faults).flatMap(([fault, signature]) =>
    (isThereOrNot(signature) ? [most] : finer).map((severity): State => ({
      hypothesis: { kind: 'fault', fault },
      severities: [severity],
      cells: cellsAt(table, fault, severity),
    })),
  );
  return [sound, ...faulty];
}

/** Severities at which pairs are tried. */
const pairSeverities = [0.2, 0.5, 0.85] as const;

/** Two faults at once: what each does is added up, in the figures' coordinates. */
export function pairStates(table: SignatureTable, [first, second]: readonly [string, string]): readonly State[] {
  return pairSeverities.flatMap((one) =>
    pairSeverities.map((other): State => {
      const [a, b] = [cellsAt(table, first, one), cellsAt(table, second, other)];
      return {
        hypothesis: { kind: 'pair', faults: [first, second] },
        severities: [one, other],
        cells: table.figures.map(({ sound }, at) => added(sound, a[at], b[at])),
      };
    }),
  );
}

function added(sound: Cell, a: Cell, b: Cell): Cell {
  const measured = Math.min(a.measured, b.measured);
  return {
    measured,
    above: Math.min(1 - measured, Math.max(a.above, b.above)),
    below: Math.min(1 - measured, Math.max(a.below, b.below)),
    at: a.at + b.at - sound.at,
    spread: Math.hypot(a.spread, b.spread),
  };
}
