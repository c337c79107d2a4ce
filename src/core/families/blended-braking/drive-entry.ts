import { random, readingComponents, systematic, type UncertaintyComponent } from '../../instruments/uncertainty';
import { absent, measured } from '../../procedure/analysis-result';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { TypedEntry, TypedField } from '../../procedure/typed-entry';
import { characteristicRow, characteristicTitle, type CharacteristicId } from '../../quantities/characteristics';
import { shownAs } from '../../quantities/shown-as';
import { plausibleRange } from '../../dials/plausible-range';
import { watchStandard } from '../../dials/stopwatch';
import type { Context, Measured } from './read-log';
import type { BlendedUnit } from './geometry';
import { ownGain, ownZero } from './sensor-doubt';

/** Field of the largest torque that was requested: what shares are of. */
const largestField = 'largest-request';
/** What a scan tool's own screen shows is no better known than the vehicle's sensors: share of a torque. */
const torqueShare = 0.03;

/** Figures that another tool worked out of a drive, and which channels their gauges are. */
function channelOf(id: CharacteristicId): string | null {
  const { dial } = characteristicRow(id);
  return 'channels' in dial ? dial.channels[0] : null;
}

function componentsOf(id: CharacteristicId, value: number, { instruments, date }: Context): UncertaintyComponent[] {
  switch (shownAs(id)) {
    case 'torque':
      return [systematic('gauge-gain', torqueShare * value)];
    case 'time':
      return [random('timing', watchStandard)];
    case 'tally':
      return [];
    case 'ratio':
      return [systematic('gauge-gain', torqueShare * value)];
    default: {
      const instrument = instruments.get(channelOf(id) ?? '');
      const named = instrument && !instrument.ofStandIn ? readingComponents(instrument, value, date) : null;
      return named ?? [systematic('gauge-zero', Math.SQRT2 * ownZero), systematic('gauge-gain', ownGain * value)];
    }
  }
}

const isShare = (id: CharacteristicId) => shownAs(id) === 'torque';

/** Entry of a drive's figures as another tool shows them: with torques, the largest request that their limits are shares of. */
export function driveEntry(
  characteristics: readonly CharacteristicId[],
  limits: Measured['limits'],
): TypedEntry<BlendedUnit> {
  const withLargest = characteristics.some(isShare);
  const nothing: StepAnalysis = { characteristics: [], events: [], notes: [] };
  return {
    fields: (context, values) => {
      const known = limits({ ...nothing, largestRequest: values[largestField] }, context);
      return [
        ...(withLargest ? [largestOf()] : []),
        ...characteristics.map((id): TypedField => {
          const limit = known.find((each) => each.characteristic === id);
          const bounded = limit && (limit.low !== null || limit.high !== null);
          return {
            id,
            title: characteristicTitle(id),
            hint: isShare(id) ? 'As the tool works it out of the drive' : '',
            as: shownAs(id),
            channel: channelOf(id),
            expected: bounded ? { low: limit.low ?? -Infinity, high: limit.high ?? Infinity } : null,
            plausible: plausibleRange(shownAs(id), null, context),
            optional: false,
          };
        }),
      ];
    },
    analyse: (values, context) => ({
      characteristics: characteristics.map((id) => {
        const value = values[id];
        return value === undefined
          ? absent(id, { code: 'not-read' })
          : measured(id, value, componentsOf(id, value, context));
      }),
      events: [],
      notes: [],
      ...(values[largestField] === undefined ? {} : { largestRequest: values[largestField] }),
    }),
  };
}

function largestOf(): TypedField {
  return {
    id: largestField,
    title: 'Largest torque requested',
    hint: 'At the wheels, summed, over the whole drive',
    as: 'torque',
    channel: 'requested_torque',
    expected: null,
    plausible: [100, 50e3],
    optional: false,
  };
}
