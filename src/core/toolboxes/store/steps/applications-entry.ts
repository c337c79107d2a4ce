import { onGauge } from '../../../dials/asked';
import { entryFromReadings, type AskedReading, type Figures, type TakenReadings } from '../../../dials/from-readings';
import { systematic, type UncertaintyComponent } from '../../../instruments/uncertainty';
import type { TypedEntry } from '../../../procedure/typed-entry';
import type { CharacteristicId } from '../../../quantities/characteristics';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import type { LampId } from '../analysis/applications';
import type { StoreCircuit } from '../model/store-unit';
import { idOf } from './store-kit';

/** A stroke and the warning as a person sees them, in the order in which they are offered. */
const feels = ['helped', 'hard'] as const;
const lamps = ['out', 'on'] as const;

/** From less than this share of cut-out on there are at least so many strokes. */
const fullShare = 0.9;

type Row = TakenReadings['rows'][number];

/** Entry of the applications of a charge: each stroke as it felt, each circuit's gauge after it, and whether its warning was on by then. */
export function applicationsEntry<Unit>(
  circuits: readonly StoreCircuit<Unit>[],
  alarmed: readonly { readonly circuit: StoreCircuit<Unit>; readonly id: LampId; readonly title: string }[],
): TypedEntry<Unit> {
  const name = (circuit: StoreCircuit<Unit>, text: string) =>
    circuits.length > 1 ? `${text}, ${circuit.title.toLowerCase()}` : text;
  const column = (base: string, circuit: StoreCircuit<Unit>) => idOf(base, circuit.suffix);
  return entryFromReadings<Unit>({
    characteristics: () => [
      ...circuits.map(({ place }) => idOf('assisted-applications', place)),
      ...alarmed.map(({ id }) => id),
    ],
    once: (context) =>
      circuits.map((circuit) =>
        onGauge(column('full', circuit), circuit.pressure, name(circuit, 'Before the first stroke'), {
          hint: 'Pump off, store full',
          expected: {
            low: circuit.storeOf(context.unit).cutOut * fullShare,
            high: circuit.storeOf(context.unit).cutOut * 1.05,
          },
        }),
      ),
    rows: () => ({
      least: 1,
      columns: circuits.flatMap((circuit): AskedReading[] => [
        { id: column('felt', circuit), title: name(circuit, 'Stroke'), as: 'state', by: 'foot', choices: feels },
        onGauge(column('left', circuit), circuit.pressure, name(circuit, 'Left after it'), { optional: true }),
        ...alarmed
          .filter((each) => each.circuit === circuit)
          .map(({ title }): AskedReading => ({
            id: column('warned', circuit),
            title: name(circuit, title),
            as: 'state',
            by: 'eye',
            choices: lamps,
          })),
      ]),
    }),
    reckon: ({ rows, once }, context) => {
      if (rows.length === 0) return { code: 'rows-still-to-read', read: 0, needed: 1 };
      const bounds: Partial<
        Record<CharacteristicId, { readonly side: 'above' | 'below'; readonly problem: AnalysisProblem }>
      > = {};
      const besides: Partial<Record<CharacteristicId, readonly UncertaintyComponent[]>> = {};
      const missing: Partial<Record<CharacteristicId, AnalysisProblem>> = {};
      const counts: Record<string, number> = {};
      for (const circuit of circuits) {
        const id = idOf('assisted-applications', circuit.place);
        const hard = rows.findIndex((row) => feels[row[column('felt', circuit)]] === 'hard');
        const { cutOut } = circuit.storeOf(context.unit);
        const pressure = once[column('full', circuit)];
        counts[id] = hard < 0 ? rows.length : hard;
        if (hard < 0) bounds[id] = { side: 'above', problem: { code: 'store-not-used-up', strokes: rows.length } };
        else if (pressure < fullShare * cutOut)
          bounds[id] = { side: 'above', problem: { code: 'store-not-full', pressure, full: cutOut } };
      }
      const warnings = alarmed.map(({ circuit, id }) => {
        const left = column('left', circuit);
        const lit = rows.findIndex((row) => lamps[row[column('warned', circuit)]] === 'on');
        const before = (read: readonly Row[], full: number) => (lit > 0 ? read[lit - 1][left] : full);
        const figure = (read: TakenReadings) =>
          lit < 0 ? Number.NaN : (before(read.rows, read.once[column('full', circuit)]) + read.rows[lit][left]) / 2;
        // It came on somewhere between what was left before that stroke and after it.
        const between = before(rows, once[column('full', circuit)]) - (rows[lit]?.[left] ?? Number.NaN);
        if (Number.isFinite(between)) besides[id] = [systematic('model', Math.abs(between) / 2 / Math.sqrt(3))];
        missing[id] =
          lit < 0
            ? { code: 'lamp-never-lit', down: rows.at(-1)?.[left] ?? 0 }
            : { code: 'channel-missing', channel: circuit.pressure };
        return { id, figure };
      });
      return {
        figures: (moved): Figures => ({
          ...counts,
          ...Object.fromEntries(warnings.map(({ id, figure }) => [id, figure(moved)])),
        }),
        bounds,
        besides,
        missing,
      };
    },
  });
}
