import { onGauge } from '../../dials/asked';
import { entryFromReadings, type Figures, type TakenReadings } from '../../dials/from-readings';
import { lineThrough } from '../../fitting/point-lines';
import type { TypedEntry } from '../../procedure/typed-entry';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { ByWireUnit, Wheel } from './geometry';
import { wheels } from './geometry';
import { placeTitle } from '../../quantities/places';
import { trackingIds } from './tracking-analysis';

/** A gain is read from so many pressures at least, and over this share of the largest. */
const fewest = 3;
const spreadShare = 0.3;

const askedOf = (wheel: Wheel) => (wheel.startsWith('f') ? 'front' : 'rear');

const wheelColumn = (wheel: Wheel) =>
  onGauge(wheel, `wheel_pressure_${wheel}`, sentenceCase(placeTitle(wheel)), {
    expected: (row) => {
      const asked = row[askedOf(wheel)];
      return asked === undefined ? null : { low: asked * 0.95, high: asked * 1.05 };
    },
  });

const sentenceCase = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Entry of how the wheels follow: what was asked for and what each wheel's gauge shows at rest, row by row. What is quick no person reads. */
export const trackingEntry: TypedEntry<ByWireUnit> = entryFromReadings<ByWireUnit>({
  characteristics: () => wheels.flatMap((wheel) => trackingIds(wheel)),
  rows: () => ({
    least: fewest,
    columns: [
      onGauge('front', 'target_pressure_fl', 'Asked, front', { hint: 'As the scan tool shows it' }),
      ...wheels.slice(0, 2).map(wheelColumn),
      onGauge('rear', 'target_pressure_rl', 'Asked, rear'),
      ...wheels.slice(2).map(wheelColumn),
    ],
  }),
  reckon: ({ rows }) => {
    if (rows.length < fewest) return { code: 'rows-still-to-read', read: rows.length, needed: fewest };
    const spread = (wheel: Wheel) => {
      const asked = rows.map((row) => row[askedOf(wheel)]);
      return Math.max(...asked) - Math.min(...asked) > spreadShare * Math.max(...asked);
    };
    const off = (row: TakenReadings['rows'][number], wheel: Wheel) => Math.abs(row[wheel] - row[askedOf(wheel)]);
    const worst = wheels.map((wheel) =>
      rows.reduce((most, row, at) => (off(row, wheel) > off(rows[most], wheel) ? at : most), 0),
    );
    const quick: AnalysisProblem = { code: 'no-person-reads' };
    return {
      figures: (moved): Figures =>
        Object.fromEntries(
          wheels.flatMap((wheel, at) => [
            [
              `tracking-gain@${wheel}`,
              spread(wheel)
                ? lineThrough(moved.rows.map((row) => ({ x: row[askedOf(wheel)], y: row[wheel] }))).slope
                : Number.NaN,
            ],
            [`steady-error@${wheel}`, off(moved.rows[worst[at]], wheel)],
          ]),
        ),
      missing: Object.fromEntries(
        wheels.flatMap((wheel) => {
          const [gain, , ...rest] = trackingIds(wheel);
          return [
            [gain, { code: 'too-few-levels', found: 1, needed: fewest }] as const,
            ...rest.map((id) => [id, quick] as const),
          ];
        }),
      ),
    };
  },
});
