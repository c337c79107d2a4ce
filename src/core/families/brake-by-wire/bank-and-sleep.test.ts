import { entryOf } from '../../dials/characteristic-entry';
import { evaluateStep, evaluateUnit, type JudgedStep } from '../../judging/evaluate-unit';
import { lockOf } from '../../procedure/interlock';
import { makeTrace, type Trace } from '../../traces/trace';
import { kindNamed } from '..';
import { bankEnergy, preparePlunger } from './geometry';
import { plungerSchema } from './sheet';
import {
  kind,
  context,
  spec,
  stepNamed,
  analyse,
  judge,
  estimate,
  problemOf,
  noise,
  clock,
} from '../../../../tests/support/foreign-by-wire';

/** A bank of `farads` behind `ohms`, loaded by a resistor, 10 rows a second; it drains itself by `drain` of itself a second. */
function bankLog({
  seed = 1,
  farads = 60,
  ohms = 0.03,
  full = 15,
  load = 1.2,
  seconds = 20,
  drain = 0,
  charging = 0,
} = {}): Trace {
  const random = noise(seed, 'bank');
  const time = clock(seconds + 12, 10);
  let inner = full;
  const voltage = new Float64Array(time.length);
  const current = new Float64Array(time.length);
  time.forEach((t, i) => {
    const on = t >= 8 && t < 8 + seconds;
    for (let k = 0; k < 100; k++) {
      const flows = on ? inner / (load + ohms) : 0;
      inner += 1e-3 * (charging - flows / farads - drain * inner);
    }
    current[i] = on ? inner / (load + ohms) : 0;
    voltage[i] = inner - current[i] * ohms;
  });
  return makeTrace(time, {
    backup_voltage: voltage.map((v) => v + 0.002 * random.normal()),
    backup_current: current.map((a) => a + 0.01 * random.normal()),
  });
}

describe('a backup bank under load', () => {
  it('holds what its own capacitance and voltage say, whatever it loses by itself', () => {
    for (const drain of [0, 0.001, 0.003]) {
      const log = bankLog({ drain });
      const open = log.columns.backup_voltage[78];
      const { value, expanded } = estimate(analyse('backup', log), 'backup-energy');
      const truth = bankEnergy(60, open, 9);
      expect([drain, Math.abs(value / truth - 1) < 0.03]).toEqual([drain, true]);
      expect(Math.abs(value - truth)).toBeLessThan(expanded + 0.005 * truth);
    }
    expect(judge('backup', bankLog()).verdict).toBe('pass');
  });

  it('too small a bank, or one that is nearly empty, fails', () => {
    expect(judge('backup', bankLog({ farads: 20, seconds: 8 })).verdict).toBe('fail');
    const empty = judge('backup', bankLog({ full: 8.5 }));
    expect(empty.verdict).toBe('fail');
    expect(empty.analyses[0].notes.map((note) => note.code)).toContain('bank-below-least');
  });

  it('with its charger on, without a load or with too little of one it says nothing', () => {
    expect(problemOf(analyse('backup', bankLog({ charging: 0.3 })), 'backup-energy')).toBe('charger-still-on');
    expect(problemOf(analyse('backup', bankLog({ seconds: 0 })), 'backup-energy')).toBe('load-not-seen');
    expect(problemOf(analyse('backup', bankLog({ load: 40 })), 'backup-energy')).toBe('bank-hardly-fell');
  });

  it('typed off two meters and a watch it is the same bank', () => {
    const readings = {
      open: 15,
      'first-voltage': 14.63,
      'first-current': 12.2,
      'last-voltage': 11.1,
      'last-current': 9.25,
      seconds: 20,
    };
    const typed = entryOf(stepNamed('backup')).analyse(readings, context);
    // 214.5 C over 3.62 V behind 30 mΩ: 59.25 F.
    expect(estimate(typed, 'backup-energy').value).toBeCloseTo(bankEnergy(59.25, 15, 9), -1);
  });

  it('need not be done where the sheet has no bank, and must where it has', () => {
    const { backupCapacitanceF, backupVoltageFullV, backupVoltageMinV, energyPerStopJ, ...without } = spec;
    expect([backupCapacitanceF, backupVoltageFullV, backupVoltageMinV, energyPerStopJ]).not.toContain(undefined);
    const optional = (sheet: typeof spec) => {
      const here = { ...context, unit: preparePlunger(plungerSchema.parse(sheet)) };
      return evaluateUnit(kind, ['backup'], [], { context: here, policy: 'guarded' }).verdict;
    };
    expect([optional(spec), optional(without as typeof spec)]).toEqual(['incomplete', 'pass']);
  });
});

/** Key off at 5 s, then asleep and draining: A and V. */
function safeLog({ asleep = 0.008, bank = 15 as number | null, tau = 500, minutes = 16, lead = true } = {}): Trace {
  const time = clock(minutes * 60, 1);
  return makeTrace(time, {
    ignition_on: time.map((t) => (t < 5 ? 1 : 0)),
    sleep_current: time.map((t) => (t < 120 ? 1.2 : asleep) + (t % 2) * 1e-4),
    ...(bank === null
      ? {}
      : { backup_voltage: time.map((t) => (lead ? bank * Math.exp(-Math.max(0, t - 5) / tau) : 0) + (t % 3) * 1e-3) }),
  });
}

describe('asleep and discharged, and proved', () => {
  it('a bank that drained and a unit that sleeps are safe', () => {
    expect(judge('make-safe-before', safeLog()).verdict).toBe('pass');
  });

  it('a bank still charged, a unit still awake, a wait too short and a lead that came off are not', () => {
    expect(judge('make-safe-before', safeLog({ tau: 5000 })).verdict).toBe('fail');
    expect(judge('make-safe-before', safeLog({ asleep: 0.4 })).verdict).toBe('fail');
    expect(judge('make-safe-before', safeLog({ minutes: 12 })).verdict).toBe('undecided');
    expect(judge('make-safe-before', safeLog({ lead: false })).verdict).toBe('undecided');
    expect(judge('make-safe-before', safeLog({ bank: null })).verdict).toBe('undecided');
  });

  it('a sheet that is silent about its bank does not say that there is none: it is measured all the same', () => {
    const { backupCapacitanceF, backupVoltageFullV, backupVoltageMinV, energyPerStopJ, ...silent } = spec;
    expect([backupCapacitanceF, backupVoltageFullV, backupVoltageMinV, energyPerStopJ]).not.toContain(undefined);
    const judgedWith = (more: object, log: Trace) => {
      const here = { ...context, unit: preparePlunger(plungerSchema.parse({ ...silent, ...more })) };
      return evaluateStep(kind, stepNamed('make-safe-before'), [{ trace: log }], { context: here, policy: 'guarded' });
    };
    expect(judgedWith({}, safeLog({ bank: null })).verdict).toBe('undecided');
    expect(judgedWith({}, safeLog({ tau: 5000 })).verdict).toBe('fail');
    expect(judgedWith({}, safeLog()).verdict).toBe('pass');
    const none = judgedWith({ backupBank: 'none' }, safeLog({ bank: null }));
    expect(none.verdict).toBe('pass');
    expect(problemOf(none.analyses[0], 'safe-voltage')).toBe('no-bank-fitted');
    // What is measured counts, whatever the sheet says.
    expect(judgedWith({ backupBank: 'none' }, safeLog({ tau: 5000 })).verdict).toBe('fail');
    expect(plungerSchema.safeParse({ ...spec, backupBank: 'none' }).success).toBe(false);
  });

  it('typed, it asks how the unit was put to sleep, how long was waited and how the meters were seen to work', () => {
    const step = stepNamed('make-safe-before') as JudgedStep;
    const typed = (readings: Record<string, number>) =>
      evaluateStep(kind, step, [{ readings }], { context, policy: 'guarded' }).verdict;
    const good = {
      'put-to-sleep': 0,
      'quiescent-current': 0.006,
      'meter-seen': 0,
      waited: 960,
      'safe-voltage': 2.2,
      'bank-meter-seen': 0,
    };
    expect(typed(good)).toBe('pass');
    expect(typed({ ...good, 'put-to-sleep': 2 })).toBe('undecided');
    expect(typed({ ...good, waited: 600 })).toBe('undecided');
    expect(typed({ ...good, 'bank-meter-seen': 2 })).toBe('undecided');
    expect(typed({ ...good, 'safe-voltage': 11 })).toBe('fail');
    const { waited, ...unwaited } = good;
    expect([waited, typed(unwaited)]).toEqual([960, 'undecided']);
  });
});

describe('interlocks of decoupled units', () => {
  const accumulator = kindNamed('brake-by-wire', 'accumulator');

  it('hands go to a bank only while it is proved discharged: what wakes the unit charges it again', () => {
    const plan = kind.plans[0].steps;
    const lock = (...runs: string[]) =>
      lockOf(
        kind.steps,
        plan,
        'backup',
        runs.map((step) => ({ step, verdict: 'pass' as const })),
      );
    expect(lock()).toEqual({ code: 'not-proved', hazard: 'motion', step: 'bank-dead' });
    expect(lock('make-safe-before')).toBeNull();
    expect(lock('make-safe-before', 'supply-check')).toEqual({
      code: 'back-since',
      hazard: 'motion',
      step: 'bank-dead',
    });
    expect(lock('make-safe-before', 'supply-check', 'bank-dead')).toBeNull();
    expect(lock('make-safe-before', 'bank-dead', 'backup')).toEqual({
      code: 'back-since',
      hazard: 'motion',
      step: 'bank-dead',
    });
  });

  it('a store is dead only by its own gauge, however soundly the unit sleeps', () => {
    const plan = accumulator.plans[0].steps;
    const lock = (id: string, ...runs: string[]) =>
      lockOf(
        accumulator.steps,
        plan,
        id,
        runs.map((step) => ({ step, verdict: 'pass' as const })),
      );
    expect(lock('make-dead-before')?.code).toBe('not-proved');
    expect(lock('hands-look', 'make-safe-before')).toMatchObject({ hazard: 'pressure' });
    expect(lock('hands-look', 'make-safe-before', 'make-dead-before')).toBeNull();
    expect(lock('charge-from-empty', 'make-safe-before', 'make-dead-before')).toBeNull();
    expect(lock('hands-look', 'make-safe-before', 'make-dead-before', 'tracking')?.code).toBe('back-since');
    // Putting it to sleep once more wakes it first, and its pump has run.
    expect(lock('hands-look', 'make-safe-before', 'make-dead-before', 'make-safe-before')).toMatchObject({
      code: 'back-since',
      hazard: 'pressure',
    });
  });
});
