import { plausibleRange } from '../../dials/plausible-range';
import { expandedUncertainty, readingComponents } from '../../instruments/uncertainty';
import { absent, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { heldWait } from '../../procedure/guide-phase';
import { atMost, type Limit } from '../../procedure/limit';
import { answer, joinAnswers, type Question } from '../../procedure/question';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { TypedEntry } from '../../procedure/typed-entry';
import { ownSamples, samplesBetween } from '../../traces/own-samples';
import { columnOf, type Trace } from '../../traces/trace';
import { analyseAsleep } from '../../toolboxes/electrical/asleep-analysis';
import { asleepEntry } from '../../toolboxes/electrical/asleep-entry';
import type { ByWireUnit } from './geometry';
import { electricHazards, keyOff, provedSafe, wake, type Context, type Measured } from './step-parts';

const { max } = Math;

/** How long the current is read once the unit should be asleep, s; a hand takes its time before a wait begins. */
const readsSafe = 10;
const spare = 5;
/** A bank is read over the last of the wait, s. */
const bankSeconds = 5;
/** A meter was seen to work where it stood so many volts above what it shows at last. */
const fellBy = 1;

/** A bank at the end of its wait. */
interface BankAtEnd {
  readonly reading: number;
  readonly highest: number;
  readonly seconds: number;
  readonly keyOn: boolean;
  readonly keySeen: boolean;
  readonly count: number;
}

function findBank(trace: Trace, { unit }: Context): BankAtEnd | NoEvidence {
  const column = columnOf(trace, 'backup_voltage');
  if (!column)
    return noEvidence(
      unit.noBank ? { code: 'no-bank-fitted' } : { code: 'channel-missing', channel: 'backup_voltage' },
    );
  const samples = ownSamples(trace, column);
  const key = columnOf(trace, 'ignition_on');
  const end = samples.time[samples.time.length - 1] ?? 0;
  let off = trace.time[0] ?? 0;
  if (key) for (let i = 0; i < key.length; i++) if (key[i] > 0.5) off = trace.time[i];
  const last = samplesBetween(samples, end - bankSeconds, end).value;
  return {
    reading: last.reduce((sum, each) => sum + each, 0) / last.length,
    highest: samples.value.reduce((most, each) => max(most, each), -Infinity),
    seconds: end - off,
    keyOn: key ? key[key.length - 1] > 0.5 : false,
    keySeen: key !== undefined && off > trace.time[0],
    count: last.length,
  };
}

function bankEvidence(found: BankAtEnd, { unit }: Context): Judged<BankAtEnd> {
  if (found.count === 0)
    return noEvidence({ code: 'too-few-samples', channel: 'backup_voltage', samples: 0, needed: 1 });
  if (found.keyOn) return noEvidence({ code: 'key-still-on' });
  if (found.seconds < unit.safeWait)
    return noEvidence({ code: 'soak-too-short', seconds: found.seconds, needed: unit.safeWait });
  return evidence(
    found,
    found.keySeen ? [] : [{ code: 'key-off-assumed' }],
    // A lead that has come off reads nothing too, over a bank that is full.
    unit.noBank || found.highest > found.reading + fellBy
      ? []
      : [{ code: 'meter-not-seen-alive', channel: 'backup_voltage' }],
  );
}

/** A bank's voltage (V); below nothing by more than its uncertainty it is a lead the wrong way round. */
function safeVoltage(reading: number, context: Context): Characteristic {
  const meter = context.instruments.get('backup_voltage');
  const components = meter ? readingComponents(meter, reading, context.date) : [];
  return reading < -expandedUncertainty({ value: reading, components })
    ? absent('safe-voltage', { code: 'reads-below-zero', channel: 'backup_voltage', reading })
    : measured('safe-voltage', reading, components);
}

const bankQuestion: Question<Context, BankAtEnd, BankAtEnd> = {
  characteristics: ['safe-voltage'],
  happened: findBank,
  shows: bankEvidence,
  comesTo: ({ reading }, context): StepAnalysis => ({
    characteristics: [safeVoltage(reading, context)],
    events: [],
    notes: [],
  }),
};

/** How it was put to sleep; the last is that it was not. */
const slept = ['By the maker’s service function', 'Key away, doors shut, the wait over', 'It was not'] as const;
const notSlept = slept.length - 1;

const bankSeen = [
  'It fell as the bank drained',
  'It showed a known voltage in the same place',
  'It was not seen to work',
];
const bankNotSeen = bankSeen.length - 1;

const typedSafe: TypedEntry<ByWireUnit> = {
  fields: (context) => [
    {
      id: 'put-to-sleep',
      title: 'Put to sleep',
      hint: 'Awake it may apply itself: at a door, on unlocking, to test itself',
      as: 'state',
      channel: null,
      expected: null,
      plausible: [0, notSlept],
      optional: false,
      choices: slept,
    },
    ...asleepEntry.fields(context, {}),
    ...(context.unit.noBank
      ? []
      : ([
          {
            id: 'waited',
            title: 'Waited',
            hint: 'From the key off to the reading of the bank',
            as: 'time',
            channel: null,
            expected: { low: context.unit.safeWait, high: Infinity },
            plausible: [0, 86_400],
            optional: false,
          },
          {
            id: 'safe-voltage',
            title: 'Bank after the wait',
            hint: 'At its own terminals, by a meter for that voltage',
            as: 'voltage',
            channel: 'backup_voltage',
            expected: { low: 0, high: context.unit.safeVoltage },
            plausible: plausibleRange('voltage', 'backup_voltage', context),
            optional: false,
          },
          {
            id: 'bank-meter-seen',
            title: 'That meter was seen to work',
            hint: 'A lead that has come off reads nothing over a full bank',
            as: 'state',
            channel: null,
            expected: null,
            plausible: [0, bankNotSeen],
            optional: false,
            choices: bankSeen,
          },
        ] as const)),
  ],
  analyse: (values, context) => {
    const asleep = asleepEntry.analyse(values, context);
    const { noBank, safeWait } = context.unit;
    const reading = values['safe-voltage'];
    const [how, seen, waited] = [values['put-to-sleep'], values['bank-meter-seen'], values.waited];
    const ofBank = (): Characteristic => {
      if (noBank) return absent('safe-voltage', { code: 'no-bank-fitted' });
      if (reading === undefined || waited === undefined) return absent('safe-voltage', { code: 'not-read' });
      return waited < safeWait
        ? absent('safe-voltage', { code: 'soak-too-short', seconds: waited, needed: safeWait })
        : safeVoltage(reading, context);
    };
    const doubts = [
      ...(asleep.doubts ?? []),
      ...(how === undefined || how >= notSlept ? [{ code: 'not-put-to-sleep' } as const] : []),
      ...(!noBank && (seen === undefined || seen >= bankNotSeen)
        ? [{ code: 'meter-not-seen-alive', channel: 'backup_voltage' } as const]
        : []),
    ];
    return {
      characteristics: [...asleep.characteristics, ofBank()],
      events: [],
      notes: asleep.notes,
      ...(doubts.length > 0 ? { doubts } : {}),
    };
  },
};

export const makeSafeBefore: Measured = {
  id: 'make-safe-before',
  kind: 'measured',
  title: 'Put to sleep, and prove it',
  why: 'It applies itself, and its bank stays charged. Service function or key away, the wait over, current and bank read.',
  minutes: 17,
  cautions: ['service-mode', 'wakes-by-itself', 'capacitor-bank'],
  optional: false,
  characteristics: ['quiescent-current', 'safe-voltage'],
  proves: electricHazards,
  repeats: 'last',
  feeds: {
    log: {
      needs: [],
      uses: ['sleep_current', 'motor_current', 'backup_voltage', 'ignition_on'],
      leastRows: 10,
      neededRate: 1,
    },
    live: {
      rate: 5,
      startsFrom: 'charged',
      guide: ({ unit }) => {
        const seconds = max(unit.sleepAfter + readsSafe, unit.safeWait) + spare;
        return [wake(3), heldWait({ code: 'key-off-wait', seconds }, keyOff, seconds)];
      },
      bands: ({ unit }) => ({
        sleep_current: [0, unit.quiescentMax],
        ...(unit.noBank ? {} : { backup_voltage: [0, unit.safeVoltage] as const }),
      }),
    },
    dials: typedSafe,
  },
  analyse: (trace, context) =>
    joinAnswers([analyseAsleep(trace, context, { least: readsSafe }), answer(bankQuestion, trace, context)]),
  limits: (analysis, { unit }): Limit[] => {
    const read = analysis.characteristics.some(({ id, kind }) => id === 'safe-voltage' && kind === 'measured');
    return [
      atMost(
        'quiescent-current',
        { value: unit.quiescentMax, source: { kind: 'sheet', field: 'quiescentCurrentMaxMa' } },
        { expected: 0 },
      ),
      ...(!unit.noBank || read
        ? [
            atMost(
              'safe-voltage',
              { value: unit.safeVoltage, source: { kind: 'sheet', field: 'safeVoltageV' } },
              { expected: 0 },
            ),
          ]
        : []),
    ];
  },
  pictures: [{ kind: 'over-time', channels: ['sleep_current', 'backup_voltage'] }],
};

/** Once more before hands go to the bank. */
export const bankDead: Measured = {
  ...makeSafeBefore,
  id: 'bank-dead',
  title: 'Asleep and discharged, once more',
  why: 'The load is joined to the bank by hand: it has been charged since it was last proved safe.',
  interlock: provedSafe.interlock,
  optionalFor: (unit) => unit.bank === null,
};

export const makeSafeAfter: Measured = {
  ...makeSafeBefore,
  id: 'make-safe-after',
  title: 'Put to sleep again',
  why: 'It leaves the bench asleep and discharged, or it moves in the hands of whoever takes it off.',
  interlock: provedSafe.interlock,
};
