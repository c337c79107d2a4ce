import { onGauge } from '../../dials/asked';
import { feltAsked, feltIn, feltOnly, type FeltChoices } from '../../dials/felt';
import { entryFromReadings } from '../../dials/from-readings';
import type { TypedEntry } from '../../procedure/typed-entry';

/** Entry of a pedal's drop as assist comes: millimetres by a rule, or what the foot felt. `back` is what a pedal that pushes back speaks of. */
export function pedalDropEntry(back: 'sound' | 'fault'): TypedEntry<unknown> {
  const felt: FeltChoices = [
    { code: 'sank-and-stayed', says: 'sound' },
    { code: 'sank-and-came-back', says: back },
    { code: 'stayed-up', says: 'short' },
    { code: 'to-the-floor', says: 'fault' },
  ];
  return entryFromReadings({
    characteristics: () => ['pedal-sink'],
    once: () => [
      onGauge('sank', 'pedal_travel', 'The pedal sank by', {
        by: 'rule',
        optional: true,
        hint: 'Under a still foot, as the engine starts',
      }),
      feltAsked('felt', 'Or by foot alone', 'foot', felt),
    ],
    reckon: ({ once }) => {
      const said = feltIn(once, 'felt', felt);
      if (said && once.sank === undefined) return feltOnly(said, ['pedal-sink']);
      return { figures: (moved) => ({ 'pedal-sink': moved.once.sank }) };
    },
  });
}
