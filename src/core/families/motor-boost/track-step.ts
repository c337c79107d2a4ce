import { trackEntry } from './track-entry';
import { around, atMost } from '../../procedure/limit';
import type { Limit } from '../../procedure/limit';
import { plainCurve } from '../../procedure/picture';
import { trackShare, type MotorBoostUnit } from './geometry';
import { keyOn, lever, provedSafe, pushTop, restAwake, wake, type Measured } from './step-parts';
import { analyseTracks } from './track-analysis';

const percent = (value: number) => value / 100;

/** Where both tracks of a sound sensor lie over travel, V; its sum is the supply. */
const picture = plainCurve<MotorBoostUnit>({
  input: 'rod_travel',
  outputs: ['sensor_a', 'sensor_b'],
  sum: 'Sum of both tracks',
  inputEnd: ({ stroke }) => stroke * 1.05,
  band: ({ sensor, spec }, travel) => {
    const line = sensor.supply * trackShare(sensor, travel);
    const reach =
      sensor.supply * percent(spec.sensorOffsetTolerancePercent) +
      Math.abs(line - sensor.supply * sensor.start) * percent(spec.sensorGainTolerancePercent);
    return [line - reach, line + reach];
  },
});

export const sensorTracks: Measured = {
  id: 'sensor-tracks',
  kind: 'measured',
  title: 'Tracks of the sensor',
  why: 'One slow stroke: both tracks must run straight, give the supply together, and never drop out.',
  minutes: 4,
  cautions: ['wakes-by-itself', 'fluid-jet'],
  optional: false,
  characteristics: ['sum-error', 'track-gain@a', 'track-offset@a', 'track-gain@b', 'track-offset@b', 'dropouts'],
  ...provedSafe,
  feeds: {
    log: {
      needs: ['sensor_a', 'sensor_b'],
      uses: ['rod_travel', 'pedal_travel', 'sensor_supply', lever],
      leastRows: 40,
      leastRate: 100,
    },
    live: {
      startsFrom: 'charged',
      guide: (context) => {
        const top = pushTop(context);
        return [
          wake(3),
          {
            instruction: { code: 'pull-slowly-past', channel: lever, level: top },
            controls: keyOn,
            lever: { to: top * 1.02, seconds: 14 },
            end: { kind: 'input-above', level: top },
          },
          {
            instruction: { code: 'let-back-slowly', channel: lever },
            controls: keyOn,
            lever: { to: 0, seconds: 10 },
            end: { kind: 'input-below', level: 10 },
          },
          restAwake(1.5),
        ];
      },
      bands: ({ unit: { sensor } }) => ({
        sensor_supply: [sensor.supply * 0.98, sensor.supply * 1.02],
        sensor_a: [0, sensor.supply],
        sensor_b: [0, sensor.supply],
      }),
    },
    dials: trackEntry,
  },
  analyse: analyseTracks,
  limits: (_analysis, { unit: { spec, sensor } }): Limit[] => {
    const gain = {
      value: percent(spec.sensorGainTolerancePercent),
      source: { kind: 'sheet', field: 'sensorGainTolerancePercent' },
    } as const;
    const offset = sensor.supply * percent(spec.sensorOffsetTolerancePercent);
    const offsets = (characteristic: 'track-offset@a' | 'track-offset@b'): Limit => ({
      characteristic,
      low: -offset,
      high: offset,
      expected: 0,
      standard: 0,
      source: { kind: 'sheet', field: 'sensorOffsetTolerancePercent' },
    });
    return [
      atMost(
        'sum-error',
        {
          value: sensor.supply * percent(spec.sensorSumTolerancePercent),
          source: { kind: 'sheet', field: 'sensorSumTolerancePercent' },
        },
        { expected: 0 },
      ),
      around('track-gain@a', 1, gain),
      offsets('track-offset@a'),
      around('track-gain@b', 1, gain),
      offsets('track-offset@b'),
      atMost(
        'dropouts',
        { value: spec.sensorDropoutsMax, source: { kind: 'sheet', field: 'sensorDropoutsMax' } },
        { expected: 0 },
      ),
    ];
  },
  pictures: [picture],
};
