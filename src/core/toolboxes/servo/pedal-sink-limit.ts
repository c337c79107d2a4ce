import type { Limit } from '../../procedure/limit';
import type { WorkshopLimits } from '../../procedure/workshop-limits';

/** A pedal sinks by as much as its brakes take, which no sheet describes: anything of this is usual, m. */
const usual = [0.005, 0.04] as const;

/** How far a pedal sinks when assist comes: enough to be felt, and not to the floor, which shows air, a lost circuit or cups that let by. */
export const pedalSinkLimit = ({ pedalSink, pedalSinkMost }: WorkshopLimits): Limit => ({
  characteristic: 'pedal-sink',
  low: pedalSink,
  high: pedalSinkMost,
  expected: null,
  window: usual,
  standard: 0,
  source: { kind: 'workshop', key: 'pedalSink' },
});
