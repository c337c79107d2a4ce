import type { ChannelRow } from '../../quantities/channels';
import type { BroughtRows } from '../../procedure/brought-rows';

const wheelTitles = { fl: 'front left', fr: 'front right', rl: 'rear left', rr: 'rear right' } as const;
const sides = {
  fl: ['fl', 'front', 'left', 'lf'],
  fr: ['fr', 'front', 'right', 'rf'],
  rl: ['rl', 'rear', 'left', 'lr'],
  rr: ['rr', 'rear', 'right'],
} as const;

/** The same channel at each wheel. */
export const perWheel = (id: string, title: string, words: readonly string[]): Readonly<Record<string, ChannelRow>> =>
  Object.fromEntries(
    Object.entries(wheelTitles).map(([wheel, where]) => [
      `${id}_${wheel}`,
      {
        title: `${title}, ${where}`,
        dimension: 'pressure',
        fileUnit: 'kPa',
        reference: 'gauge',
        words: [...words, ...sides[wheel as keyof typeof sides]],
      } satisfies ChannelRow,
    ]),
  );

/** Words of whoever looks at what the pedal reaches. */
export const foundationRows = {
  channels: {
    master_pressure: {
      title: 'Master cylinder',
      dimension: 'pressure',
      fileUnit: 'kPa',
      reference: 'gauge',
      words: ['master', 'cylinder', 'mc', 'pressure', 'p', '1'],
    },
    master_pressure_2: {
      title: 'Master cylinder 2',
      dimension: 'pressure',
      fileUnit: 'kPa',
      reference: 'gauge',
      words: ['master', 'cylinder', 'mc', 'pressure', 'p', '2'],
    },
    ...perWheel('wheel_pressure', 'Wheel', ['wheel', 'brake', 'caliper', 'pressure', 'p', 'actual']),
    vehicle_speed: {
      title: 'Speed',
      dimension: 'speed',
      fileUnit: 'km/h',
      words: ['vehicle', 'speed', 'velocity', 'v', 'road'],
    },
    stop_switch_2: {
      title: 'Stop-lamp switch 2',
      dimension: 'ratio',
      fileUnit: '1',
      words: ['stop', 'switch', 'lamp', 'light', '2'],
    },
  },
} as const satisfies BroughtRows;
