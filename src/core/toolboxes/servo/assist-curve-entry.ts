import { onGauge } from '../../dials/asked';
import { entryFromReadings, type Figures, type Reckoned, type TakenReadings } from '../../dials/from-readings';
import { curveOfRows, firstMovementNotes, pointDoubt, tooFarOn, type RowsCurve } from '../../dials/rows-curve';
import type { Point } from '../../fitting/point-lines';
import type { StepContext } from '../../procedure/step-context';
import type { TypedEntry } from '../../procedure/typed-entry';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { assistCurveCharacteristics } from './assist-curve-analysis';

/** A servo whose curve is read row by row, SI. */
export interface AssistEntrySetup<Unit> {
  readonly lever: string;
  /** What the servo works with, where a gauge shows it: its channel, and the least of it that says anything of the assist. */
  readonly supply: {
    readonly channel: string;
    readonly least: (context: StepContext<Unit>) => number;
    /** What it should be, SI. */
    readonly set: (context: StepContext<Unit>) => number;
  } | null;
  /** A vacuum supply whose sag is reported. */
  readonly vacuumFed: boolean;
  readonly unassistedSlope: (unit: Unit) => number;
  /** Force at the lever where a sound unit begins to help, N. */
  readonly cutIn: (unit: Unit) => number;
  /** Force at the lever of run-out at a supply, N; null where there is none. */
  readonly knee: (context: StepContext<Unit>, supply: number | undefined) => number | null;
  readonly band: (context: StepContext<Unit>, force: number, supply: number | undefined) => readonly [number, number];
}

/** Rows that lines can be read from at all. */
const fewest = 4;

/** Entry of an assist curve: force, output and what feeds it, row by row, up past run-out and back. */
export function assistCurveEntry<Unit>(setup: AssistEntrySetup<Unit>): TypedEntry<Unit> {
  const { lever, supply } = setup;
  return entryFromReadings<Unit>({
    characteristics: () => [...assistCurveCharacteristics, ...(setup.vacuumFed ? (['supply-sag'] as const) : [])],
    once: (context) => [
      onGauge('first-output', lever, 'The output’s needle first moved at', {
        optional: true,
        hint: 'Press very slowly; else it lies between two rows',
        expected: { low: setup.cutIn(context.unit) * 0.7, high: setup.cutIn(context.unit) * 1.3 },
      }),
    ],
    rows: (context) => ({
      least: fewest,
      columns: [
        onGauge('force', lever, 'Force'),
        onGauge('output', 'output_pressure', 'Output', {
          expected: ({ force, supply: fed }) => {
            if (force === undefined) return null;
            const [low, high] = setup.band(context, force, fed);
            return { low, high };
          },
        }),
        ...(supply
          ? [
              onGauge('supply', supply.channel, 'Supply', {
                optional: true,
                expected: { low: supply.set(context) * 0.75, high: supply.set(context) * 1.05 },
              }),
            ]
          : []),
      ],
    }),
    reckon: (taken, context) => reckon(taken, context, setup),
  });
}

const pointsOf = ({ rows }: TakenReadings): Point[] => rows.map(({ force, output }) => ({ x: force, y: output }));

function reckon<Unit>(
  taken: TakenReadings,
  context: StepContext<Unit>,
  setup: AssistEntrySetup<Unit>,
): Reckoned | AnalysisProblem {
  const rows = pointsOf(taken);
  if (rows.length < fewest) return { code: 'rows-still-to-read', read: rows.length, needed: fewest };
  const fed = taken.rows.flatMap(({ supply }) => supply ?? []);
  const most = fed.length > 0 ? Math.max(...fed) : null;
  const least = setup.supply?.least(context) ?? 0;
  if (most !== null && setup.supply && most < least)
    return setup.vacuumFed
      ? { code: 'source-never-opened', vacuum: Math.max(0, most) }
      : { code: 'too-little-pressure', channel: setup.supply.channel, pressure: most, needed: least };
  const peak = rows.reduce((best, row) => (row.x > best.x ? row : best), rows[0]);
  const doubt = pointDoubt({ x: setup.lever, y: 'output_pressure' }, Math.max(0, peak.y / peak.x) * 1.5, context);
  const pieces = { before: 0, beyond: setup.unassistedSlope(context.unit), jumps: true };
  const curve = curveOfRows(rows, pieces, doubt, taken.once['first-output'] ?? null);
  const atTop = taken.rows.find(({ force }) => force === peak.x)?.supply;
  const expected = setup.knee(context, atTop);
  const far = tooFarOn(
    rows.filter(({ x }) => x > setup.cutIn(context.unit)),
    setup.lever,
    expected,
  );
  if (far) return far;
  if (!curve) return { code: 'no-boost' };
  return reckonedOf(curve, setup, {
    reached: { code: 'knee-not-reached', by: Math.max(0, (expected ?? 0) - curve.furthest), peak: curve.furthest },
    first: taken.once['first-output'],
    vacuum: atTop,
    restVacuum: fed[0],
  });
}

function reckonedOf<Unit>(
  curve: RowsCurve,
  setup: AssistEntrySetup<Unit>,
  read: {
    readonly reached: AnalysisProblem;
    readonly first: number | undefined;
    readonly vacuum: number | undefined;
    readonly restVacuum: number | undefined;
  },
): Reckoned {
  const { besides, ends } = curve;
  return {
    figures: (moved): Figures => {
      const rows = pointsOf(moved);
      const { cutIn, jumpIn, slope, end, endHeight, hysteresis } = curve.figuresOf(
        rows,
        moved.once['first-output'] ?? null,
      );
      const fed = moved.rows.flatMap(({ supply }) => supply ?? []);
      return {
        'cut-in-force': cutIn,
        'jump-in-output': jumpIn,
        'force-slope': slope,
        'run-out-force': ends ? end : Math.max(...rows.map(({ x }) => x)),
        'run-out-output': endHeight,
        'force-hysteresis': hysteresis,
        ...(setup.vacuumFed && fed.length > 1 ? { 'supply-sag': fed[0] - Math.min(...fed) } : {}),
      };
    },
    besides: {
      'cut-in-force': besides.cutIn,
      'jump-in-output': besides.jumpIn,
      'force-slope': besides.slope,
      'run-out-force': ends ? besides.end : [],
      'run-out-output': besides.endHeight,
    },
    bounds: ends ? {} : { 'run-out-force': { side: 'above', problem: read.reached } },
    missing: {
      'run-out-output': read.reached,
      'force-hysteresis': { code: 'no-way-back' },
    },
    also: {
      notes: firstMovementNotes(curve, setup.lever, read.first),
      ...(read.vacuum === undefined ? {} : { vacuum: read.vacuum }),
      ...(setup.vacuumFed && read.restVacuum !== undefined ? { restVacuum: read.restVacuum } : {}),
    },
  };
}
