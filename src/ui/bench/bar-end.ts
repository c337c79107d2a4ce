import type { ReadingBands } from '@/core/procedure/expected';
import { shownAs } from '@/core/quantities/shown-as';

/** Full scales where nothing else says how far a bar goes, SI. */
const longestTravel = 0.12;
const highestPressure = 8e6;

/** Full scales of channels that have no band now, SI. */
const smallestScale = {
  current: 40,
  voltage: 15,
  angle: 20,
  'pump-flow': 5e-6 / 60,
  force: 500,
  torque: 500,
  speed: 30,
  rotation: 60,
  'angle-rate': 360,
  percent: 1,
  'small-current': 0.5,
} as const;
/** No bench is hotter than this, K. */
const hottest = 373.15;

/** Full scale of a reading's bar, SI: round, above everything it has to show. */
export function barEnd(
  channel: string,
  bands: ReadingBands,
  lever: { readonly channel: string; readonly maximum: number } | null,
): number {
  const as = shownAs(channel);
  const band = bands[channel]?.[1] ?? 0;
  const driven = lever && shownAs(lever.channel) === as ? lever.maximum : null;
  switch (as) {
    case 'vacuum':
      return 80_000;
    case 'state':
      return 1;
    case 'current':
    case 'voltage':
    case 'angle':
    case 'pump-flow':
    case 'force':
    case 'torque':
    case 'speed':
    case 'rotation':
    case 'angle-rate':
    case 'percent':
    case 'small-current':
      // What the lever cannot say: a third beyond where it should be at most.
      return driven ?? Math.max(band * 1.3, smallestScale[as]);
    case 'temperature':
      return hottest;
    case 'length':
      return Math.max(longestTravel, band * 1.15);
    default:
      // A lever that is a force says nothing about how high a pressure goes.
      return Math.max(driven ?? highestPressure, band * 1.15);
  }
}
