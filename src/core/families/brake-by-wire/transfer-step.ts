import { plausibleRange } from '../../dials/plausible-range';
import { wait, type GuidePhase } from '../../procedure/guide-phase';
import { around, type Limit } from '../../procedure/limit';
import { plainCurve } from '../../procedure/picture';
import type { TypedEntry, TypedField } from '../../procedure/typed-entry';
import { places } from '../../quantities/places';
import { sensorRatio, type ByWireUnit } from './geometry';
import { sensorNumber, type SensorPlace } from './sensors';
import { keyOn, provedSafe, type Context, type Measured } from './step-parts';
import {
  analyseTransfer,
  fewestLevels,
  noTransfer,
  transferEvidence,
  transferIds,
  transferOf,
  type TransferPoint,
} from './transfer-analysis';

/** Levels that a sensor is taken to, as shares of its full scale, and how long each is held, s. */
const levels = [0.1, 0.3, 0.5] as const;
const holds = 3;
const typedLevels = 5;

const percent = (value: number) => value / 100;

function takeThrough(place: SensorPlace, { unit }: Context): readonly GuidePhase[] {
  const joined = { ...keyOn, 'sensor-at': sensorNumber(place) };
  return [
    wait({ code: 'join-sensor', sensor: places[place].title, seconds: 3 }, joined, 3),
    ...levels.map((share) => {
      const level = share * unit.sensor.fullScale;
      return wait(
        { code: 'pump-to', channel: 'reference_pressure', level, seconds: holds },
        { ...joined, 'hand-pump': level },
        holds,
      );
    }),
    wait({ code: 'let-pump-down', seconds: 2 }, joined, 2),
  ];
}

/** Signal of a sound sensor (V) at a pressure (Pa gauge), and how far it may be off, on a supply (V). */
function signalAt({ sensor, spec }: ByWireUnit, pressure: number, supply: number): readonly [number, number] {
  const span = sensor.full - sensor.offset;
  const ratio = sensorRatio(sensor, pressure);
  const reach =
    span * percent(spec.sensorOffsetMaxPercent) + (ratio - sensor.offset) * percent(spec.sensorGainTolerancePercent);
  return [supply * (ratio - reach), supply * (ratio + reach)];
}

/** Signal against pressure on a supply (V): for a plain voltmeter. Rows of Pa gauge, V, lowest V, highest V. */
export function transferTable(
  unit: ByWireUnit,
  supply: number,
): readonly (readonly [number, number, number, number])[] {
  const steps = 10;
  const lowest = [0, 1e6];
  const rest = Array.from({ length: steps }, (_, at) => (unit.sensor.fullScale * (at + 1)) / steps);
  return [...lowest, ...rest.filter((pressure) => pressure > 1e6)].map((pressure) => {
    const [low, high] = signalAt(unit, pressure, supply);
    return [pressure, supply * sensorRatio(unit.sensor, pressure), low, high];
  });
}

/** One sensor by a plain voltmeter: its supply, and at three levels or more what gauge and meter read. */
function typedTransfer(mine: readonly SensorPlace[]): TypedEntry<ByWireUnit> {
  const level = (at: number, context: Context, values: Readonly<Record<string, number>>): readonly TypedField[] => {
    const supply = values.supply ?? context.unit.sensor.supply;
    const pressure = values[`pressure-${at}`];
    const optional = at > fewestLevels;
    const holdTo = context.unit.sensor.fullScale * 0.15 * at;
    const expected = pressure === undefined ? null : signalAt(context.unit, pressure, supply);
    return [
      {
        id: `pressure-${at}`,
        title: `Level ${at}: gauge`,
        hint: at === 1 ? 'Nothing pumped up yet counts as a level' : 'Held until both stand still',
        as: 'gauge',
        channel: 'reference_pressure',
        expected: { low: holdTo * 0.9, high: holdTo * 1.1 },
        toHold: true,
        plausible: plausibleRange('gauge', 'reference_pressure', context),
        optional,
      },
      {
        id: `signal-${at}`,
        title: `Level ${at}: signal`,
        hint: 'At the same moment',
        as: 'voltage',
        channel: 'sensor_a',
        expected: expected && { low: expected[0], high: expected[1] },
        plausible: plausibleRange('voltage', 'sensor_a', context),
        optional,
      },
    ];
  };
  return {
    fields: (context, values) => [
      {
        id: 'sensor',
        title: 'Sensor',
        hint: 'One after the other: each is kept as a run of its own',
        as: 'state',
        channel: null,
        expected: null,
        plausible: [0, mine.length - 1],
        optional: false,
        choices: mine.map((place) => inSentence(places[place].title)),
      },
      {
        id: 'supply',
        title: 'Sensor supply',
        hint: 'At the sensor’s own plug: the signal is in proportion to it',
        as: 'voltage',
        channel: 'sensor_supply',
        expected: { low: context.unit.sensor.supply * 0.98, high: context.unit.sensor.supply * 1.02 },
        plausible: plausibleRange('voltage', 'sensor_supply', context),
        optional: false,
      },
      ...Array.from({ length: typedLevels }, (_, at) => level(at + 1, context, values)).flat(),
    ],
    table: (context, values) => ({
      title: 'Signal against pressure',
      columns: [
        { title: 'Pressure', as: 'gauge' },
        { title: 'Signal', as: 'voltage' },
        { title: 'At least', as: 'voltage' },
        { title: 'At most', as: 'voltage' },
      ],
      rows: transferTable(context.unit, values.supply ?? context.unit.sensor.supply),
    }),
    analyse: (values, context) => {
      const place = mine.at(values.sensor ?? Number.NaN);
      if (values.sensor === undefined || place === undefined) return noTransfer(mine, { code: 'sensor-not-named' });
      const others = mine.filter((each) => each !== place);
      const points = Array.from({ length: typedLevels }, (_, at): TransferPoint | null => {
        const [pressure, signal] = [values[`pressure-${at + 1}`], values[`signal-${at + 1}`]];
        return pressure === undefined || signal === undefined || values.supply === undefined
          ? null
          : { pressure, ratio: signal / values.supply, noise: 0 };
      }).filter((point) => point !== null);
      if (values.supply === undefined) return noTransfer(mine, { code: 'not-read' });
      const judged = transferEvidence({ points, supply: values.supply, supplyAssumed: false }, context);
      const found =
        judged.kind === 'none' ? noTransfer([place], judged.problem) : transferOf(judged.found, context, place);
      return {
        ...found,
        characteristics: [...found.characteristics, ...noTransfer(others, { code: 'another-sensor' }).characteristics],
      };
    },
  };
}

const inSentence = (title: string) => title.charAt(0).toUpperCase() + title.slice(1);

/** Sensors against a gauge, one after the other. */
export function sensorTransfer(mine: readonly SensorPlace[]): Measured {
  return {
    id: 'sensor-transfer',
    kind: 'measured',
    title: 'Pressure sensors against a gauge',
    why: 'Everything it does goes by its sensors: each is held against a gauge at three levels, and so is its supply.',
    minutes: 5 * mine.length,
    cautions: ['fluid-jet', 'wakes-by-itself'],
    optional: false,
    characteristics: mine.flatMap((place) => transferIds(place)),
    ...provedSafe,
    feeds: {
      log: {
        needs: ['reference_pressure', 'sensor_a'],
        uses: ['sensor_supply', 'sensor_at'],
        leastRows: 12,
        named: {
          key: 'sensor',
          channel: 'sensor_at',
          values: Object.fromEntries(mine.map((place) => [place, sensorNumber(place)])),
        },
      },
      live: {
        rate: 50,
        startsFrom: 'charged',
        guide: (context) => mine.flatMap((place) => takeThrough(place, context)),
        bands: ({ unit }, readings) => {
          const { supply } = unit.sensor;
          const pressure = readings.reference_pressure;
          return {
            sensor_supply: [supply * 0.98, supply * 1.02],
            ...(pressure === undefined ? {} : { sensor_a: signalAt(unit, pressure, readings.sensor_supply ?? supply) }),
          };
        },
      },
      dials: typedTransfer(mine),
    },
    analyse: (trace, context) => analyseTransfer(trace, context, mine),
    limits: (_analysis, { unit: { spec } }): Limit[] =>
      mine.flatMap((place): Limit[] => {
        const [offset, gain, linearity] = transferIds(place);
        const most = (characteristic: typeof offset, field: string, share: number, low: number | null): Limit => ({
          characteristic,
          low,
          high: share,
          expected: 0,
          standard: 0,
          source: { kind: 'sheet', field },
        });
        const zero = percent(spec.sensorOffsetMaxPercent);
        return [
          most(offset, 'sensorOffsetMaxPercent', zero, -zero),
          around(gain, 1, {
            value: percent(spec.sensorGainTolerancePercent),
            source: { kind: 'sheet', field: 'sensorGainTolerancePercent' },
          }),
          most(linearity, 'linearityMaxPercent', percent(spec.linearityMaxPercent), null),
        ];
      }),
    pictures: [
      plainCurve<ByWireUnit>({
        input: 'reference_pressure',
        outputs: ['sensor_a'],
        inputEnd: ({ sensor }) => sensor.fullScale * 0.6,
        band: (unit, pressure) => signalAt(unit, pressure, unit.sensor.supply),
      }),
      { kind: 'over-time', channels: ['reference_pressure', 'sensor_a'] },
    ],
  };
}
