import { onGauge } from '../../dials/asked';
import { footAsked, footRead } from '../../dials/foot';
import { feltAsked, feltIn, feltOnly, type FeltChoices } from '../../dials/felt';
import { entryFromReadings } from '../../dials/from-readings';
import { systematic } from '../../instruments/uncertainty';
import type { TypedEntry } from '../../procedure/typed-entry';
import type { CharacteristicId } from '../../quantities/characteristics';

/** Below this the unassisted push gives nothing that a quotient could be formed with, Pa. */
const leastOff = 50e3;
/** Two pushes of one foot that are held by eye or by feel differ by about this, one sigma, as a share. */
const sameFoot = 0.05;

const lighter: FeltChoices = [
  { code: 'much-lighter', says: 'sound' },
  { code: 'little-lighter', says: 'nothing' },
  { code: 'no-lighter', says: 'short' },
];

/**
 * Entry of two pushes of one foot, without and with assist: the force that was there, and both pressures on one gauge. Limits follow
 * at that force; of one that nobody knows, only the ratio is judged.
 */
export function forcePairEntry(
  gauge: string,
  ids: { readonly off?: CharacteristicId; readonly on?: CharacteristicId; readonly ratio: CharacteristicId },
): TypedEntry<unknown> {
  return entryFromReadings({
    characteristics: () => [...(ids.off ? [ids.off] : []), ...(ids.on ? [ids.on] : []), ids.ratio],
    once: () => [
      ...footAsked,
      onGauge('off', gauge, 'Pressure without assist', { optional: true, hint: 'Engine off, what is stored used up' }),
      onGauge('on', gauge, 'Pressure with assist', { optional: true, hint: 'Engine running, the same foot' }),
      feltAsked('lighter', 'Or by foot alone: the pedal is', 'foot', lighter),
    ],
    terms: () => ({ [ids.ratio]: ['on', '÷', 'off'] }),
    reckon: ({ once }, context) => {
      const { off, on } = once;
      const felt = feltIn(once, 'lighter', lighter);
      if (felt && on === undefined) return feltOnly(felt, [ids.ratio]);
      if (off !== undefined && off < leastOff) return { code: 'unassisted-too-small', pressure: off };
      const foot = footRead(once, context);
      return {
        figures: ({ once: read }) => ({
          ...(ids.off ? { [ids.off]: read.off } : {}),
          ...(ids.on ? { [ids.on]: read.on } : {}),
          [ids.ratio]: read.on / read.off,
        }),
        besides: { [ids.ratio]: [systematic('force-match', (sameFoot * on) / off)] },
        also: foot
          ? { pedalForce: foot.force, pedalForceStandard: foot.standard }
          : { pedalForce: null, notes: [{ code: 'foot-not-known' }] },
      };
    },
  });
}
