import { byWatch, onGauge } from '../../dials/asked';
import { feltAsked, feltIn, feltOnly, type FeltChoices } from '../../dials/felt';
import { entryFromReadings } from '../../dials/from-readings';
import { systematic } from '../../instruments/uncertainty';
import type { StepContext } from '../../procedure/step-context';
import type { TypedEntry } from '../../procedure/typed-entry';

/** Air may still warm by about this while a needle is watched, K. */
const warming = 0.5;

/** After standing: what is heard as it is opened says less than what a mouth finds of the valve itself. */
const rush: FeltChoices = [
  { code: 'rush-of-air', says: 'sound' },
  { code: 'little-air', says: 'nothing' },
  { code: 'no-air', says: 'fault' },
];
const blown: FeltChoices = [
  { code: 'blows-one-way', says: 'sound' },
  { code: 'blows-both-ways', says: 'fault' },
  { code: 'blows-neither-way', says: 'fault' },
];

/**
 * Entry of a check valve by what an ear or a mouth finds, or from three readings: at the start, after a wait with the source side shut, and after another as long with it
 * open to the air. What more is lost in the second wait came back through the valve; it is stated at `seconds` of the step.
 */
export function checkValveEntry<Unit>(seconds: (context: StepContext<Unit>) => number): TypedEntry<Unit> {
  return entryFromReadings<Unit>({
    characteristics: () => ['reverse-leak'],
    once: (context) => [
      onGauge('at-start', 'supply_vacuum', 'Vacuum at the start', {
        optional: true,
        hint: 'Source side shut, needle standing',
      }),
      byWatch('each-wait', 'Each of both waits', {
        optional: true,
        hint: `The limit is stated at ${seconds(context)} s`,
        plausible: [2, 3_600],
      }),
      onGauge('after-shut', 'supply_vacuum', 'Vacuum after the wait, side shut', { optional: true }),
      onGauge('after-open', 'supply_vacuum', 'Vacuum after as long, side open to the air', { optional: true }),
      feltAsked('rush', 'Or without a gauge: opened after standing', 'ear', rush),
      feltAsked('blown', 'Or taken out and blown through', 'ear', blown),
    ],
    terms: (context) => ({
      'reverse-leak': [
        ...['(', '(', 'after-shut', '−', 'after-open', ')', '−', '(', 'at-start', '−', 'after-shut', ')', ')'],
        ...['×', `${seconds(context)} s`, '÷', 'each-wait'],
      ],
    }),
    reckon: ({ once }, context) => {
      const stated = seconds(context);
      const felt = feltIn(once, 'blown', blown) ?? feltIn(once, 'rush', rush);
      if (felt && once['after-open'] === undefined) return feltOnly(felt, ['reverse-leak']);
      if (once['at-start'] < 2_000) return { code: 'source-never-opened', vacuum: Math.max(0, once['at-start']) };
      const warmed = ((context.ambient.pressure - (once['after-shut'] ?? 0)) * warming) / context.airTemperature;
      return {
        figures: ({ once: read }) => {
          const shut = read['at-start'] - read['after-shut'];
          const open = read['after-shut'] - read['after-open'];
          return { 'reverse-leak': ((open - shut) * stated) / read['each-wait'] };
        },
        besides: { 'reverse-leak': [systematic('gas-heat', warmed / Math.sqrt(3))] },
      };
    },
  });
}
