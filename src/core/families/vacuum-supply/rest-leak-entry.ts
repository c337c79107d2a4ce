import { byWatch, onGauge } from '../../dials/asked';
import { entryFromReadings } from '../../dials/from-readings';
import { random, systematic } from '../../instruments/uncertainty';
import { quantity, type Temperature } from '../../quantities/quantity';
import { seaLevelPressure } from '../../quantities/standard-atmosphere';
import type { VacuumSupplyUnit } from './geometry';
import { volumeOf, volumeShare } from './supply-context';

const standardTemperature = quantity<Temperature>(293.15);
/** Air may still warm by about this while a needle is watched, K. */
const warming = 0.5;
/** A vacuum of less than this is none, Pa. */
const noVacuum = 2_000;

/** Entry of a rest: the vacuum once the pump has stopped and some time later, and how long it was until the pump ran again. */
export const restLeakEntry = entryFromReadings<VacuumSupplyUnit>({
  characteristics: () => ['rest-time', 'leak-flow'],
  once: ({ unit }) => [
    onGauge('stopped', 'supply_vacuum', 'Vacuum once the pump has stopped', {
      hint: 'Nobody on the pedal; let the needle stand',
    }),
    byWatch('watched', 'Watched for', {
      plausible: [5, 36_000],
      hint: 'A minute at least; longer while little is lost',
    }),
    onGauge('later', 'supply_vacuum', 'Vacuum then'),
    ...(unit.electric
      ? [
          byWatch('until-next', 'From the pump’s stop to its next start', {
            optional: true,
            hint: 'Where it was waited for',
            plausible: [1, 86_400] as const,
          }),
        ]
      : []),
  ],
  reckon: ({ once }, context) => {
    const { stopped, later } = once;
    if (stopped < noVacuum) return { code: 'source-never-opened', vacuum: Math.max(0, stopped) };
    // What is all gone went some time before: it lost at least that much.
    const gone = later < noVacuum;
    const perPascal = (volumeOf(context) / seaLevelPressure) * (standardTemperature / context.airTemperature);
    const flow = (read: typeof once) => ((read.stopped - read.later) / read.watched) * perPascal;
    const warmed = ((context.ambient.pressure - later) * warming) / context.airTemperature / Math.sqrt(3);
    // A leak slows as the vacuum goes: read over a large fall it was quicker at first.
    const slowed = Math.max(0, stopped - later) / Math.max(stopped, 1);
    return {
      figures: (moved) => ({ 'rest-time': moved.once['until-next'], 'leak-flow': flow(moved.once) }),
      besides: {
        'leak-flow': [
          systematic('volume', Math.abs(flow(once)) * volumeShare),
          systematic('gas-heat', (warmed / once.watched) * perPascal),
          random('fit', (Math.abs(flow(once)) * slowed) / Math.sqrt(3)),
        ],
      },
      bounds: gone ? { 'leak-flow': { side: 'above', problem: { code: 'all-gone', seconds: once.watched } } } : {},
    };
  },
});
