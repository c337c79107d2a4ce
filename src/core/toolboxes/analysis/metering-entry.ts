import { onGauge } from '../../dials/asked';
import { entryFromReadings, type Figures, type TakenReadings } from '../../dials/from-readings';
import { curveOfRows, firstMovementNotes, pointDoubt } from '../../dials/rows-curve';
import type { Point } from '../../fitting/point-lines';
import type { StepContext } from '../../procedure/step-context';
import type { TypedEntry } from '../../procedure/typed-entry';
import type { MeteringSetup } from './metering-analysis';

/** Rows that a line can be read from at all. */
const fewest = 4;

/** Entry of a metering valve: the lever against both circuits, row by row, up and back. */
export function meteringEntry<Unit>(
  { lever, ids }: Pick<MeteringSetup, 'lever' | 'ids'>,
  band: (context: StepContext<Unit>, level: number) => readonly [number, number],
): TypedEntry<Unit> {
  const pointsOf = (rows: TakenReadings['rows']): Point[] => rows.map((row) => ({ x: row.lever, y: row.front }));
  return entryFromReadings<Unit>({
    characteristics: () => [
      ids.cutIn,
      ids.slope,
      ...(ids.maximum ? [ids.maximum] : []),
      ...(ids.hysteresis ? [ids.hysteresis] : []),
      'circuit-difference',
    ],
    once: () => [
      onGauge('first-output', lever, 'The front needle first moved at', {
        optional: true,
        hint: 'Press very slowly; else it lies where the line leaves zero',
      }),
    ],
    rows: (context) => {
      const expected = ({ lever: level }: Readonly<Record<string, number>>) => {
        if (level === undefined) return null;
        const [low, high] = band(context, level);
        return { low, high };
      };
      return {
        least: fewest,
        columns: [
          onGauge('lever', lever, lever === 'pedal_angle' ? 'Angle' : 'Force'),
          onGauge('front', 'front_pressure', 'Front', { expected }),
          onGauge('rear', 'rear_pressure', 'Rear', { expected, optional: true }),
        ],
      };
    },
    reckon: (taken, context) => {
      const { rows } = taken;
      if (rows.length < fewest) return { code: 'rows-still-to-read', read: rows.length, needed: fewest };
      const points = pointsOf(rows);
      const peak = points.reduce((best, point) => (point.y > best.y ? point : best), points[0]);
      const doubt = pointDoubt({ x: lever, y: 'front_pressure' }, (1.5 * peak.y) / Math.max(peak.x, 1e-9), context);
      const pieces = { before: 0, beyond: ids.maximum ? 0 : null, jumps: false };
      const seen = taken.once['first-output'] ?? null;
      const curve = curveOfRows(points, pieces, doubt, seen);
      if (!curve) return { code: 'no-boost' };
      const apart = (row: TakenReadings['rows'][number]) => Math.abs(row.front - row.rear);
      const both = rows.filter((row) => row.rear !== undefined);
      const worst = rows.findIndex((row) => row.rear !== undefined && both.every((each) => apart(each) <= apart(row)));
      return {
        figures: (moved): Figures => {
          const figures = curve.figuresOf(pointsOf(moved.rows), moved.once['first-output'] ?? null);
          return {
            [ids.cutIn]: figures.cutIn,
            [ids.slope]: figures.slope,
            ...(ids.maximum && curve.ends ? { [ids.maximum]: figures.endHeight } : {}),
            ...(ids.hysteresis ? { [ids.hysteresis]: figures.hysteresis } : {}),
            ...(worst < 0 ? {} : { 'circuit-difference': apart(moved.rows[worst]) }),
          };
        },
        besides: {
          [ids.cutIn]: curve.besides.cutIn,
          [ids.slope]: curve.besides.slope,
          ...(ids.maximum ? { [ids.maximum]: curve.besides.endHeight } : {}),
        },
        also: { notes: firstMovementNotes(curve, lever, seen ?? undefined) },
        missing: {
          ...(ids.maximum ? { [ids.maximum]: { code: 'relief-not-reached', peak: peak.y } as const } : {}),
          ...(ids.hysteresis ? { [ids.hysteresis]: { code: 'no-way-back' } as const } : {}),
        },
      };
    },
  });
}
