import { heldWait } from '../../procedure/guide-phase';
import { goneOnce } from '../../procedure/interlock';
import { atMost } from '../../procedure/limit';
import { analyseAsleep } from '../../toolboxes/electrical/asleep-analysis';
import { asleepEntry } from '../../toolboxes/electrical/asleep-entry';
import { supplyCheckStep } from '../../toolboxes/electrical/supply-check-step';
import type { MotorBoostUnit } from './geometry';
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

const asleepFeeds = (least: number): Measured['feeds'] => ({
  log: {
    needs: ['motor_current'],
    uses: ['sleep_current', 'ignition_on'],
    leastRows: 10,
    neededRate: 1,
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
  dials: asleepEntry,
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
  proves: ['motion'],
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
  interlock: goneOnce('motion'),
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

export const supplyCheck = supplyCheckStep<MotorBoostUnit>({
  lever,
  top: pushTop,
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
  guards: provedSafe,
  cautions: ['wakes-by-itself', 'fluid-jet'],
});
