import { onGauge } from '../../dials/asked';
import { entryFromReadings, type TakenReadings } from '../../dials/from-readings';
import { lineThrough } from '../../fitting/point-lines';
import { systematic } from '../../instruments/uncertainty';
import type { MotorBoostUnit } from './geometry';

const fewest = 3;
/** A sensor supply that nobody measured may be off by this share, one sigma. */
const assumedShare = 0.02;

/** Entry of both tracks: travel, A, B and their supply, row by row, the first at rest; and drops counted while the lead is wiggled. */
export const trackEntry = entryFromReadings<MotorBoostUnit>({
  characteristics: () => ['sum-error', 'track-gain@a', 'track-offset@a', 'track-gain@b', 'track-offset@b', 'dropouts'],
  once: () => [
    {
      id: 'wiggled',
      title: 'Drops seen while it moves and the lead is wiggled',
      hint: 'Watch the meter: a track that falls away for a moment',
      as: 'tally',
      by: 'count',
      optional: true,
    },
  ],
  rows: ({ unit: { sensor } }) => ({
    least: fewest,
    columns: [
      onGauge('travel', 'rod_travel', 'Travel', { hint: 'The first row at rest' }),
      onGauge('a', 'sensor_a', 'Track A', {
        expected: ({ travel }) => around((sensor.start + shareAt(travel, sensor)) * sensor.supply, travel, sensor),
      }),
      onGauge('b', 'sensor_b', 'Track B', {
        expected: ({ travel }) => around((1 - sensor.start - shareAt(travel, sensor)) * sensor.supply, travel, sensor),
      }),
      onGauge('supply', 'sensor_supply', 'Supply', { optional: true }),
    ],
  }),
  reckon: ({ rows }, { unit: { sensor } }) => {
    if (rows.length < fewest) return { code: 'rows-still-to-read', read: rows.length, needed: fewest };
    const reached = Math.max(...rows.map(({ travel }) => travel)) - rows[0].travel;
    const needed = 0.5 * sensor.stroke;
    if (reached < needed) return { code: 'stroke-too-short', reached, needed };
    const supplyOf = (row: TakenReadings['rows'][number]) => row.supply ?? sensor.supply;
    const sum = (row: TakenReadings['rows'][number]) => Math.abs(row.a + row.b - supplyOf(row));
    const worst = rows.reduce((most, row, at) => (sum(row) > sum(rows[most]) ? at : most), 0);
    const line = (read: TakenReadings['rows'], track: 'a' | 'b') =>
      lineThrough(read.map((row) => ({ x: row.travel - read[0].travel, y: row[track] / supplyOf(row) })));
    const slope = (sensor.end - sensor.start) / sensor.stroke;
    const assumed = rows.every((row) => row.supply === undefined);
    return {
      figures: ({ rows: read, once }) => {
        const [a, b] = [line(read, 'a'), line(read, 'b')];
        return {
          'sum-error': sum(read[worst]),
          'track-gain@a': a.slope / slope,
          'track-offset@a': (a.intercept - sensor.start) * sensor.supply,
          'track-gain@b': b.slope / -slope,
          'track-offset@b': (b.intercept - (1 - sensor.start)) * sensor.supply,
          dropouts: once.wiggled,
        };
      },
      besides: assumed
        ? {
            'sum-error': [systematic('gauge-zero', assumedShare * sensor.supply)],
            'track-gain@a': [systematic('gauge-gain', assumedShare)],
            'track-gain@b': [systematic('gauge-gain', assumedShare)],
            'track-offset@a': [systematic('gauge-zero', assumedShare * sensor.start * sensor.supply)],
            'track-offset@b': [systematic('gauge-zero', assumedShare * (1 - sensor.start) * sensor.supply)],
          }
        : {},
      also: assumed ? { notes: [{ code: 'sensor-supply-assumed', voltage: sensor.supply }] } : {},
    };
  },
});

type Sensor = MotorBoostUnit['sensor'];

/** Share of the supply that a sound track has moved by at a travel. */
const shareAt = (travel: number | undefined, { start, end, stroke }: Sensor) =>
  ((end - start) * (travel ?? 0)) / stroke;

const around = (volts: number, travel: number | undefined, { supply }: Sensor) =>
  travel === undefined ? null : { low: volts - 0.03 * supply, high: volts + 0.03 * supply };
