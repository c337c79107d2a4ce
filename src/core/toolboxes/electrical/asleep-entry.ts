import { plausibleRange } from '../../dials/plausible-range';
import { readingComponents } from '../../instruments/uncertainty';
import { nothingMeasured } from '../../procedure/analysis-result';
import type { TypedEntry } from '../../procedure/typed-entry';
import { currentAsleep } from './asleep-analysis';
import type { SleepingUnit } from './supplied-unit';

/** How a meter was seen to work before its little was believed; the last is that it was not. */
const seenAlive = [
  'It fell as the unit fell asleep',
  'It showed a known load in the same place',
  'It was not seen to work',
] as const;
const notSeen = seenAlive.length - 1;

/** The current asleep, typed: with how the meter was seen to work, for one that is open reads nothing too. */
export const asleepEntry: TypedEntry<SleepingUnit> = {
  fields: (context) => [
    {
      id: 'quiescent-current',
      title: 'Current asleep',
      hint: 'Off a meter in the feed, once the sheet’s time is over',
      as: 'small-current',
      channel: 'sleep_current',
      expected: { low: 0, high: context.unit.quiescentMax },
      plausible: plausibleRange('small-current', 'sleep_current', context),
      optional: false,
    },
    {
      id: 'meter-seen',
      title: 'The meter was seen to work',
      hint: 'A meter that is open or blown reads nothing too',
      as: 'state',
      channel: null,
      expected: null,
      plausible: [0, notSeen],
      optional: false,
      choices: seenAlive,
    },
  ],
  analyse: (values, context) => {
    const reading = values['quiescent-current'];
    const seen = values['meter-seen'];
    if (reading === undefined) return nothingMeasured(['quiescent-current'], { code: 'not-read' });
    const instrument = context.instruments.get('sleep_current');
    const typed = currentAsleep(
      'sleep_current',
      reading,
      instrument ? readingComponents(instrument, reading, context.date) : [],
    );
    return {
      characteristics: [typed],
      events: [],
      notes: [],
      ...(seen === undefined || seen >= notSeen
        ? { doubts: [{ code: 'meter-not-seen-alive', channel: 'sleep_current' } as const] }
        : {}),
    };
  },
};
