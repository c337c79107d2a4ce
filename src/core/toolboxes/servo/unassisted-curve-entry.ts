import { onGauge } from '../../dials/asked';
import { entryFromReadings } from '../../dials/from-readings';
import { pointDoubt } from '../../dials/rows-curve';
import { heightAt, lineThrough, type Point } from '../../fitting/point-lines';
import { random } from '../../instruments/uncertainty';
import type { StepContext } from '../../procedure/step-context';
import type { TypedEntry } from '../../procedure/typed-entry';

/** Rows below this share of what the foot alone should give at the top say nothing: springs still take it up. */
const taken = 0.08;
const fewest = 3;

/** Entry of a curve without power: force and output, row by row. SI. */
export function unassistedCurveEntry<Unit>(setup: {
  readonly lever: string;
  readonly expectedAt: (context: StepContext<Unit>, force: number) => number;
}): TypedEntry<Unit> {
  const { lever, expectedAt } = setup;
  return entryFromReadings<Unit>({
    characteristics: () => ['unassisted-slope'],
    rows: (context) => ({
      least: fewest,
      columns: [
        onGauge('force', lever, 'Force'),
        onGauge('output', 'output_pressure', 'Output', {
          expected: ({ force }) => {
            if (force === undefined) return null;
            const sound = expectedAt(context, force);
            return { low: sound * 0.85, high: sound * 1.15 };
          },
        }),
      ],
    }),
    reckon: ({ rows }, context) => {
      const pointOf = ({ force, output }: (typeof rows)[number]): Point => ({ x: force, y: output });
      const peak = Math.max(0, ...rows.map(({ force }) => force));
      const floor = taken * expectedAt(context, peak);
      const onLine = rows.map((row) => row.output > floor);
      const line = (read: typeof rows) => lineThrough(read.filter((_, at) => onLine[at]).map(pointOf));
      const count = onLine.filter(Boolean).length;
      if (count < fewest - 1) return { code: 'rows-still-to-read', read: count, needed: fewest };
      const fitted = line(rows);
      const doubt = pointDoubt({ x: lever, y: 'output_pressure' }, Math.abs(fitted.slope), context);
      const points = rows.filter((_, at) => onLine[at]).map(pointOf);
      const off = Math.max(...points.map((point) => Math.abs(point.y - heightAt(fitted, point.x)) - 2 * doubt(point)));
      const span = Math.max(...points.map(({ x }) => x)) - Math.min(...points.map(({ x }) => x));
      return {
        figures: (moved) => ({ 'unassisted-slope': line(moved.rows).slope }),
        // What the rows scatter by more than their readings explain turns the line.
        besides: { 'unassisted-slope': off > 0 ? [random('fit', off / span)] : [] },
      };
    },
  });
}
