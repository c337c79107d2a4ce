import { entryFromReadings, type Reckoned } from '../../dials/from-readings';
import type { StepContext } from '../../procedure/step-context';
import type { TypedEntry } from '../../procedure/typed-entry';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { beforeStroke, countStrokes, strokeRows } from './strokes-entry';

/** What a reserve is kept in and read by, where a gauge shows it: its channel, and what there is of it in a full one, SI. */
export interface ReserveStore<Unit> {
  readonly channel: string;
  readonly title: string;
  readonly full: (context: StepContext<Unit>) => number;
}

/** From less than this share of what the source leaves, a count may be enough, but not too few. */
const fullShare = 0.85;

const notUsedUp = (strokes: number): AnalysisProblem => ({ code: 'reserve-not-used-up', strokes });

/** Entry of a reserve: strokes by what the foot felt of each, and the gauge before each of them where there is one. */
export function reserveEntry<Unit>(
  store: ReserveStore<Unit>,
  { perStroke }: { readonly perStroke: boolean },
): TypedEntry<Unit> {
  return entryFromReadings<Unit>({
    characteristics: () => ['assisted-applications', ...(perStroke ? (['vacuum-per-application'] as const) : [])],
    rows: () => strokeRows([beforeStroke('stored', store.channel, store.title)]),
    reckon: ({ rows }, context): Reckoned | AnalysisProblem => {
      if (rows.length === 0) return { code: 'rows-still-to-read', read: 0, needed: 1 };
      const { count, open } = countStrokes(rows, notUsedUp);
      const [first] = rows;
      const full = store.full(context);
      const short: AnalysisProblem | null =
        first.stored !== undefined && first.stored < fullShare * full
          ? store.channel === 'supply_vacuum'
            ? { code: 'reserve-from-too-little', vacuum: first.stored, should: full }
            : { code: 'store-not-full', pressure: first.stored, full }
          : null;
      const problem = open ?? short;
      return {
        figures: ({ rows: read }) => ({
          'assisted-applications': count,
          ...(perStroke && read.length > 1 ? { 'vacuum-per-application': read[0].stored - read[1].stored } : {}),
        }),
        bounds: problem ? { 'assisted-applications': { side: 'above', problem } } : {},
        also: store.channel === 'supply_vacuum' && first.stored !== undefined ? { vacuum: first.stored } : {},
      };
    },
  });
}

/** Entry of a reserve after a soak: its gauge before and after where there is one, and whether the first stroke was still helped. */
export function soakedReserveEntry<Unit>(
  store: Pick<ReserveStore<Unit>, 'channel'>,
  loss: 'soak-loss' | 'store-soak-loss',
): TypedEntry<Unit> {
  return entryFromReadings<Unit>({
    characteristics: () => ['assisted-applications', loss],
    once: () => [
      { ...beforeStroke('before-soak', store.channel, 'Gauge as the engine stops'), optional: true },
      { ...beforeStroke('after-soak', store.channel, 'Gauge after the soak, before the first stroke'), optional: true },
    ],
    rows: () => strokeRows(),
    terms: () => ({ [loss]: ['before-soak', '−', 'after-soak'] }),
    reckon: ({ rows }) => {
      if (rows.length === 0) return { code: 'rows-still-to-read', read: 0, needed: 1 };
      const { count, open } = countStrokes(rows, notUsedUp);
      return {
        figures: ({ once }) => ({
          'assisted-applications': count,
          [loss]: once['before-soak'] - once['after-soak'],
        }),
        // Two strokes are not meant to use it up.
        bounds: open?.code === 'half-helped' ? { 'assisted-applications': { side: 'above', problem: open } } : {},
      };
    },
  });
}
