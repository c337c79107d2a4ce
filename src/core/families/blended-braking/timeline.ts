import type { Picture, TimelineLane, TimelineLine } from '../../procedure/picture';
import type { ShownAs } from '../../quantities/shown-as';
import { channelTitle } from '../../quantities/channels';
import type { Trace } from '../../traces/trace';
import { samplesOf } from './drive';
import type { Clocked, DriveClock } from './drive-clock';
import type { BlendedUnit } from './geometry';
import { isUnread, readLog, speedOf, type Context, type ReadLog } from './read-log';

/** Heights of the lanes, by proportion: torque is what a drive is looked at for. */
const heights = { above: 1, torque: 2.4, error: 1.4 };

function clockTimes({ start, step, count }: DriveClock): Float64Array {
  return Float64Array.from({ length: count }, (_, i) => start + i * step);
}

/** A column of a drive as it is drawn: nothing where nobody knows. */
function drawn(title: string, how: TimelineLine['drawn'], time: Float64Array, { value, known }: Clocked): TimelineLine {
  return { title, drawn: how, time, value: value.map((each, i) => (known[i] === 1 ? each : Number.NaN)) };
}

/** A lane of one channel as it was recorded; none where it was not. */
function channelLane(trace: Trace, channel: string, as: ShownAs): TimelineLane[] {
  const samples = channel === 'vehicle_speed' ? speedOf(trace)?.samples : samplesOf(trace, channel);
  if (!samples) return [];
  const title = channelTitle(channel);
  return [
    { title, as, height: heights.above, lines: [{ title, drawn: 'line', time: samples.time, value: samples.value }] },
  ];
}

function torqueLanes({ drive, closure }: ReadLog, unit: BlendedUnit): TimelineLane[] {
  const time = clockTimes(drive.clock);
  const { requested, given, regen, largest } = drive;
  const most = unit.closureWorstMost * largest;
  return [
    {
      title: 'Torque',
      as: 'torque',
      height: heights.torque,
      lines: [
        drawn('Friction on top of it', 'filled', time, given),
        drawn('Regenerative', 'filled', time, regen),
        drawn('Requested', 'asked', time, requested),
      ],
    },
    ...(closure
      ? [
          {
            title: 'Missing torque',
            as: 'torque' as const,
            height: heights.error,
            lines: [drawn('Missing torque', 'line', time, closure.error)],
            band: [-most, most] as const,
          },
        ]
      : []),
  ];
}

/** A drive from above to below: how fast and how far pressed, what was asked for and given, what was missing. */
export function driveLanes(trace: Trace, context: Context): readonly TimelineLane[] {
  const read = readLog(trace, context);
  return [
    ...channelLane(trace, 'vehicle_speed', 'speed'),
    ...channelLane(trace, 'pedal_travel', 'length'),
    ...(isUnread(read) ? [] : torqueLanes(read, context.unit)),
    ...channelLane(trace, 'yaw_rate', 'angle-rate'),
    ...channelLane(trace, 'steering_angle', 'angle'),
  ];
}

export const driveTimeline: Picture<BlendedUnit> = { kind: 'timeline', lanes: driveLanes };
