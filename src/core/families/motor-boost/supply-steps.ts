import { plausibleRange } from '../../dials/plausible-range';
import { readingComponents } from '../../instruments/uncertainty';
import { nothingMeasured } from '../../procedure/analysis-result';
import { heldWait } from '../../procedure/guide-phase';
import { atMost } from '../../procedure/limit';
import { pushForce } from './geometry';
import { batteryAbove } from './bench-stand';
import {
  keyOff,
  keyOn,
  lever,
  letGo,
  provedSafe,
  pushTop,
  restAwake,
  wake,
  type Context,
  type Measured,
} from './step-parts';
import { analyseAsleep, analyseSupply, currentAsleep } from './supply-analysis';

/** How long the current is read once the unit should be asleep, s: to prove it safe, and to judge its drain. */
const readsSafe = 10;
const readsDrain = 60;
/** A hand takes its time before a wait begins: so much longer is waited, s. */
const spare = 5;

const asleepLimit = ({ unit }: Context) =>
  atMost(
    'quiescent-current',
    { value: unit.quiescentMax, source: { kind: 'sheet', field: 'quiescentCurrentMaxMa' } },
    { expected: 0 },
  );

/** How a meter was seen to work before its little was believed; the last is that it was not. */
const seenAlive = [
  'It fell as the unit fell asleep',
  'It showed a known load in the same place',
  'It was not seen to work',
] as const;
const notSeen = seenAlive.length - 1;

/** The current asleep, typed: with how the meter was seen to work, for one that is open reads nothing too. */
const asleepTyped: NonNullable<Measured['feeds']['dials']> = {
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

const asleepFeeds = (least: number): Measured['feeds'] => ({
  log: {
    needs: ['motor_current'],
    uses: ['sleep_current', 'ignition_on'],
    leastRows: 10,
  },
  live: {
    rate: 10,
    startsFrom: 'charged',
    guide: ({ unit }) => {
      const seconds = unit.sleepAfter + least + spare;
      return [wake(3), heldWait({ code: 'key-off-wait', seconds }, keyOff, seconds)];
    },
    bands: ({ unit }) => ({ sleep_current: [0, unit.quiescentMax] }),
  },
  dials: asleepTyped,
});

export const makeSafeBefore: Measured = {
  id: 'make-safe-before',
  kind: 'measured',
  title: 'Make safe, and prove it',
  why: 'Awake it moves by itself. Key away or service mode, the wait over, and the current read.',
  minutes: 12,
  cautions: ['wakes-by-itself', 'service-mode'],
  optional: false,
  characteristics: ['quiescent-current'],
  pressure: 'proves-dead',
  repeats: 'last',
  feeds: asleepFeeds(readsSafe),
  analyse: (trace, context) => analyseAsleep(trace, context, { least: readsSafe }),
  limits: (_analysis, context) => [asleepLimit(context)],
  pictures: [{ kind: 'over-time', channels: ['sleep_current'] }],
};

export const makeSafeAfter: Measured = {
  ...makeSafeBefore,
  id: 'make-safe-after',
  title: 'Make safe again',
  why: 'It leaves the bench asleep, proved by its current, or it moves in the hands of whoever takes it off.',
  ...provedSafe,
};

export const drain: Measured = {
  id: 'drain',
  kind: 'measured',
  title: 'Current asleep',
  why: 'What it draws long after the key is off empties a battery: read for a minute once it should sleep.',
  minutes: 12,
  cautions: ['wakes-by-itself'],
  optional: false,
  characteristics: ['quiescent-current'],
  ...provedSafe,
  feeds: asleepFeeds(readsDrain),
  analyse: (trace, context) => analyseAsleep(trace, context, { least: readsDrain }),
  limits: (_analysis, context) => [asleepLimit(context)],
  pictures: [{ kind: 'over-time', channels: ['sleep_current'] }],
};

export const supplyCheck: Measured = {
  id: 'supply-check',
  kind: 'measured',
  title: 'Supply under load',
  why: 'A motor that gets too little voltage is weak through no fault of its own: read while it draws most.',
  minutes: 4,
  cautions: ['wakes-by-itself', 'fluid-jet'],
  optional: false,
  characteristics: ['supply-drop', 'ground-drop'],
  ...provedSafe,
  feeds: {
    log: {
      needs: ['motor_current', 'battery_voltage', 'supply_voltage'],
      uses: ['ground_voltage', lever],
      leastRows: 12,
    },
    live: {
      startsFrom: 'charged',
      guide: (context) => {
        const top = pushTop(context);
        return [
          wake(3),
          {
            instruction: { code: 'pull-to-hold', channel: lever, level: top, seconds: 2 },
            controls: keyOn,
            lever: { to: top, seconds: 1.5 },
            end: { kind: 'input-held', level: top, tolerance: 0.08 * top, seconds: 2.5 },
          },
          letGo,
          restAwake(2),
        ];
      },
      bands: ({ unit }) => ({
        battery_voltage: [unit.ratedVoltage * 0.95, unit.ratedVoltage * (batteryAbove + 0.05)],
        supply_voltage: [unit.ratedVoltage * 0.92, unit.ratedVoltage * (batteryAbove + 0.05)],
        ground_voltage: [0, unit.spec.groundDropMaxV],
        [lever]: [0, pushForce(unit, unit.ratedVoltage) * 1.05],
      }),
    },
  },
  analyse: analyseSupply,
  limits: (_analysis, { unit: { spec } }) => [
    atMost(
      'supply-drop',
      { value: spec.supplyDropMaxV, source: { kind: 'sheet', field: 'supplyDropMaxV' } },
      { expected: 0 },
    ),
    atMost(
      'ground-drop',
      { value: spec.groundDropMaxV, source: { kind: 'sheet', field: 'groundDropMaxV' } },
      { expected: 0 },
    ),
  ],
  pictures: [{ kind: 'over-time', channels: ['supply_voltage', 'battery_voltage', 'motor_current'] }],
};
