import { contextAt } from '../../formats/site-file';
import { readBenchLog } from '../../formats/bench-log';
import { checkKind } from '../../formats/unit-sheet';
import { expandedUncertainty } from '../../instruments/uncertainty';
import type { Instrument } from '../../instruments/instrument';
import { evaluateStep, evaluateUnit, type JudgedStep } from '../../judging/evaluate-unit';
import { labelledSeed, randomSource, type RandomSource } from '../../physics/random';
import type { StepContext } from '../../procedure/step-context';
import type { StepAnalysis } from '../../procedure/step-analysis';
import { lockOf } from '../../procedure/interlock';
import { makeTrace, type Trace } from '../../traces/trace';
import { findStep, kindNamed } from '..';
import {
  bankEnergy,
  masterPressureAt,
  preparePlunger,
  sensorRatio,
  simulatorForce,
  simulatorTravel,
  type PlungerUnit,
} from './geometry';
import { plungerSchema } from './sheet';
import { sensorNumber } from './sensors';
import { transferTable } from './transfer-step';

/*
 * Logs of somebody else's bench: written here sample by sample, with their own rates, noise and habits. None of it comes from the stand-in.
 */

const kind = kindNamed('brake-by-wire', 'plunger');
const checked = checkKind(kind, 'unit', kind.sheet.example.spec, 'unit');
if (!checked.ok) throw new Error('the example is not valid');
const context = contextAt(
  checked.value,
  { altitudeM: 1420, airTemperatureC: 11 },
  '2026-11-27',
  'bench',
) as StepContext<PlungerUnit>;
const spec = plungerSchema.parse(kind.sheet.example.spec);
const unit = preparePlunger(spec);

/** The workshop's own gauges at the wheels: named, so that no line is suspected between. */
const named = (channel: string): Instrument => ({
  channel,
  name: 'Wheel gauge',
  range: 25e6,
  resolution: 0,
  classFraction: 0.004,
  classOf: 'reading',
  calibratedOn: '2026-06-01',
  dueOn: '2027-06-01',
});
const withGauges: StepContext<PlungerUnit> = {
  ...context,
  instruments: new Map([
    ...context.instruments,
    ...['fl', 'fr', 'rl', 'rr'].map((wheel) => [`wheel_pressure_${wheel}`, named(`wheel_pressure_${wheel}`)] as const),
  ]),
};

const stepNamed = (id: string) => {
  const step = findStep(kind, id);
  if (!step || step.kind !== 'measured') throw new Error(`${id} is not measured`);
  return step;
};
const analyse = (id: string, trace: Trace, here: StepContext<PlungerUnit> = context) =>
  stepNamed(id).analyse(trace, here);
const judge = (id: string, trace: Trace) =>
  evaluateStep(kind, stepNamed(id), [{ trace }], { context, policy: 'guarded' });
const found = (analysis: StepAnalysis, id: string) => analysis.characteristics.find((each) => each.id === id)!;
const estimate = (analysis: StepAnalysis, id: string) => {
  const characteristic = found(analysis, id);
  if (characteristic.kind !== 'measured') throw new Error(`${id}: ${JSON.stringify(characteristic)}`);
  return { value: characteristic.estimate.value, expanded: expandedUncertainty(characteristic.estimate) };
};
const problemOf = (analysis: StepAnalysis, id: string) => {
  const characteristic = found(analysis, id);
  return characteristic.kind === 'measured' ? null : characteristic.problem.code;
};

const noise = (seed: number, label: string): RandomSource => randomSource(labelledSeed(seed, label));
const clock = (seconds: number, rate: number) =>
  Float64Array.from({ length: Math.round(seconds * rate) }, (_, i) => i / rate);
const between = (t: number, from: number, to: number) => Math.max(0, Math.min(1, (t - from) / (to - from)));

describe('the figures of a decoupled unit', () => {
  it('a sensor gives 0.50 V at nothing, 0.66 V at 1 MPa and 2.10 V at 10 MPa; on 4.92 V it gives 2.066 V', () => {
    const at = (pressure: number, supply = 5) => supply * sensorRatio(unit.sensor, pressure);
    expect([at(0), at(1e6), at(10e6)].map((volts) => Number(volts.toFixed(4)))).toEqual([0.5, 0.66, 2.1]);
    expect(at(10e6, 4.92)).toBeCloseTo(2.0664, 4);
    const row = transferTable(unit, 5).find(([pressure]) => pressure === 10e6)!;
    expect(row[1]).toBeCloseTo(2.1, 9);
    expect(row[2]).toBeLessThan(2.1);
    expect(row[3]).toBeGreaterThan(2.1);
  });

  it('the foot alone makes (500 N·4·0.9·0.95 − 60 N)/444.9 mm² = 3,709 kPa', () => {
    expect(masterPressureAt(unit, 500) / 1e3).toBeCloseTo(3709, 0);
    expect(masterPressureAt(unit, 5)).toBe(0);
  });

  it('a bank of 60 F between 15 V and 9 V holds 4,320 J: seven stops of 600 J', () => {
    expect(bankEnergy(60, 15, 9)).toBe(4320);
    expect(bankEnergy(60, 8, 9)).toBe(0);
  });

  it('a simulator is soft to its change and stiff beyond, and its travel is the inverse of its force', () => {
    expect(simulatorForce(unit.simulator, 0.036)).toBeCloseTo(20 + 72, 9);
    expect(simulatorForce(unit.simulator, 0.046)).toBeCloseTo(20 + 72 + 80, 9);
    for (const travel of [0, 0.01, 0.036, 0.05])
      expect(simulatorTravel(unit.simulator, simulatorForce(unit.simulator, travel))).toBeCloseTo(travel, 12);
  });
});

interface WheelTruth {
  readonly gain: number;
  readonly offset: number;
  readonly deadTime: number;
  readonly lag: number;
}

/** Steps of a scan tool's own making: levels and times unlike the stand-in's, pressures by a fine walk that is exact from one tenth of a millisecond to the next. */
function trackingLog(
  seed: number,
  rate: number,
  truth: WheelTruth,
  channels: readonly string[] = ['fl'],
  between: 'on-rows' | 'between-rows' = 'on-rows',
): Trace {
  const random = noise(seed, 'tracking');
  const levels = [0, 3.1e6, 0.9e6, 6.4e6, 2.2e6, 8.8e6, 1.5e6, 0];
  const hold = 1.6 + 0.6 * random.uniform();
  const time = clock(levels.length * hold, rate);
  // A tool that asks whenever it likes is only seen to have asked at its next row.
  const asked = (t: number) => levels[Math.min(levels.length - 1, Math.floor(t / (hold + 0.00371)))];
  const target = time.map((t) =>
    between === 'on-rows' ? levels[Math.min(levels.length - 1, Math.floor(t / hold))] : asked(t),
  );
  const fine = 1e-4;
  const ahead = Math.round(truth.deadTime / fine);
  const past: number[] = [];
  let [p, k] = [truth.offset, 0];
  const gaugeGain = 1 + (0.004 / Math.sqrt(3)) * random.normal();
  const pressure = time.map((until, i) => {
    for (; k * fine < until - 1e-9; k++) {
      // What stands in the log is held until its next row.
      const row = Math.min(target.length - 1, Math.floor(k * fine * rate + 1e-6));
      past.push(between === 'on-rows' ? target[row] : asked(k * fine));
      const late = past[Math.max(0, past.length - 1 - ahead)] ?? 0;
      p += (1 - Math.exp(-fine / truth.lag)) * (truth.offset + truth.gain * (past.length - 1 >= ahead ? late : 0) - p);
    }
    return i === 0 ? truth.offset : p;
  });
  return makeTrace(
    time,
    Object.fromEntries(
      channels.flatMap((wheel) => [
        [`target_pressure_${wheel}`, target],
        [`wheel_pressure_${wheel}`, pressure.map((value) => value * gaugeGain + 7e3 * random.normal())],
      ]),
    ),
  );
}

describe('wheels behind their targets', () => {
  it('three hundred logs of 50 to 1,000 Hz: gain within 1 %, times within 5 %, U as often as it says', () => {
    const counts: Record<string, number> = {};
    const runs = 300;
    for (let seed = 0; seed < runs; seed++) {
      const random = noise(seed, 'unit');
      const truth = {
        gain: 0.9 + 0.2 * random.uniform(),
        offset: 60e3 * random.uniform(),
        deadTime: Math.round(120 + 400 * random.uniform()) * 1e-4,
        lag: 0.03 + 0.1 * random.uniform(),
      };
      const rate = [50, 100, 200, 500, 1000][seed % 5];
      const analysis = analyse('tracking', trackingLog(seed, rate, truth), withGauges);
      const check = (id: string, value: number, share: number) => {
        const { value: seen, expanded } = estimate(analysis, id);
        expect([seed, id, Math.abs(seen / value - 1) < share]).toEqual([seed, id, true]);
        if (Math.abs(seen - value) <= expanded) counts[id] = (counts[id] ?? 0) + 1;
      };
      check('tracking-gain@fl', truth.gain, 0.01);
      check('dead-time@fl', truth.deadTime, 0.05);
      check('lag@fl', truth.lag, 0.05);
    }
    const all = Object.values(counts).reduce((sum, each) => sum + each, 0) / (3 * runs);
    expect(all).toBeGreaterThan(0.93);
    expect(all).toBeLessThan(0.97);
    for (const each of Object.values(counts)) expect(each / runs).toBeGreaterThan(0.91);
  });

  const sound = { gain: 1, offset: 0, deadTime: 0.02, lag: 0.05 };

  it('steps that were asked for between two rows make no dead time surer than it is', () => {
    let within = 0;
    for (let seed = 0; seed < 100; seed++) {
      const truth = { gain: 1, offset: 0, deadTime: 0.03, lag: 0.06 };
      const log = trackingLog(seed, [50, 80, 100, 200][seed % 4], truth, ['fl'], 'between-rows');
      const { value, expanded } = estimate(analyse('tracking', log, withGauges), 'dead-time@fl');
      if (Math.abs(value - truth.deadTime) <= expanded) within++;
    }
    expect(within).toBeGreaterThan(92);
  });

  it('gives no time below 50 Hz, and says why; the gain it gives', () => {
    const analysis = analyse('tracking', trackingLog(1, 40, sound));
    expect(problemOf(analysis, 'lag@fl')).toBe('sampled-too-slowly');
    expect(problemOf(analysis, 'overshoot@fl')).toBe('sampled-too-slowly');
    expect(estimate(analysis, 'tracking-gain@fl').value).toBeCloseTo(1, 2);
  });

  it('gives no time either where the target was told more seldom than that, however quick the gauge', () => {
    const log = trackingLog(9, 200, sound);
    const seldom = log.columns.target_pressure_fl.map((value, i) => (i % 20 === 0 ? value : Number.NaN));
    const analysis = analyse('tracking', makeTrace(log.time, { ...log.columns, target_pressure_fl: seldom }));
    expect(problemOf(analysis, 'dead-time@fl')).toBe('sampled-too-slowly');
    expect(estimate(analysis, 'tracking-gain@fl').value).toBeCloseTo(1, 1);
  });

  it('of a log of one wheel the others are missing, and the step is not passed', () => {
    const result = judge('tracking', trackingLog(2, 200, sound));
    expect(result.verdict).toBe('undecided');
    expect(result.characteristics.find((each) => each.id === 'lag@rr')).toMatchObject({
      kind: 'absent',
      problem: { code: 'channel-missing' },
    });
    expect(judge('tracking', trackingLog(2, 200, sound, ['fl', 'fr', 'rl', 'rr'])).verdict).toBe('pass');
  });

  it('a wheel that moves before it is asked to has another clock', () => {
    const log = trackingLog(3, 200, sound);
    const early = log.columns.wheel_pressure_fl.map((_, i, all) => all[Math.min(all.length - 1, i + 12)]);
    const analysis = analyse('tracking', makeTrace(log.time, { ...log.columns, wheel_pressure_fl: early }));
    expect(problemOf(analysis, 'dead-time@fl')).toBe('follows-before');
  });

  it('a gauge that stands still at a wheel is no wheel that follows', () => {
    const log = trackingLog(4, 200, sound, ['fl', 'fr', 'rl', 'rr']);
    const still = log.columns.wheel_pressure_fl.map(() => 2.4e6);
    expect(judge('tracking', makeTrace(log.time, { ...log.columns, wheel_pressure_rr: still })).verdict).toBe('fail');
  });

  it('ringing is an overshoot, as a share of its step', () => {
    const log = trackingLog(5, 500, sound);
    const rung = log.columns.wheel_pressure_fl.map((value, i) => {
      const since = log.time[i] - firstRise(log);
      return since > 0.06 && since < 1 ? value + 3.1e6 * 0.2 * Math.exp(-since / 0.4) : value;
    });
    const { value } = estimate(
      analyse('tracking', makeTrace(log.time, { ...log.columns, wheel_pressure_fl: rung })),
      'overshoot@fl',
    );
    expect(value).toBeGreaterThan(0.06);
    expect(value).toBeLessThan(0.13);
  });

  it('says that the supply was weak where it was, and gives the same figures on 11.2 V as on 14.4 V', () => {
    const log = trackingLog(6, 200, sound, ['fl', 'fr', 'rl', 'rr']);
    const on = (volts: number) =>
      judge('tracking', makeTrace(log.time, { ...log.columns, supply_voltage: log.time.map(() => volts) }));
    const notes = (volts: number) => on(volts).analyses[0].notes.map((note) => note.code);
    expect([on(11.2).verdict, on(14.4).verdict]).toEqual(['pass', 'pass']);
    expect(notes(11.2)).toContain('weak-supply');
    expect(notes(14.4)).not.toContain('weak-supply');
  });
});

const firstRise = (log: Trace) => log.time[log.columns.target_pressure_fl.findIndex((value) => value > 0)];

interface SensorHabits {
  readonly seed?: number;
  readonly supply?: number;
  readonly offset?: number;
  readonly gain?: number;
  readonly bend?: number;
  readonly at?: number;
  readonly levels?: readonly number[];
}

/** A dead-weight tester's levels, each held for a while, 20 rows a second. */
function sensorLog({
  seed = 1,
  supply = 5,
  offset = 0,
  gain = 1,
  bend = 0,
  at,
  levels = [0, 4e6, 11e6, 17e6],
}: SensorHabits): Trace {
  const random = noise(seed, 'sensor');
  const time = clock(levels.length * 4, 20);
  const pressure = time.map((t) => {
    const level = Math.min(levels.length - 1, Math.floor(t / 4));
    const before = levels[Math.max(0, level - 1)];
    return before + (levels[level] - before) * between(t - level * 4, 0, 0.8);
  });
  const ratio = pressure.map(
    (p) => 0.1 + offset * 0.8 + (gain * 0.8 * p) / 25e6 + bend * 0.8 * Math.sin((Math.PI * p) / 17e6),
  );
  return makeTrace(time, {
    reference_pressure: pressure.map((p) => p + 3e3 * random.normal()),
    sensor_supply: time.map(() => supply + 0.001 * random.normal()),
    sensor_a: ratio.map((r) => supply * r + 0.001 * random.normal()),
    ...(at === undefined ? {} : { sensor_at: time.map(() => at) }),
  });
}

describe('a pressure sensor against a gauge', () => {
  const fl = sensorNumber('fl');

  it('zero, gain and bend are told apart, on 4.6 V as on 5.2 V', () => {
    for (const supply of [4.6, 5, 5.2]) {
      const shifted = analyse('sensor-transfer', sensorLog({ supply, offset: 0.02, at: fl }));
      expect(estimate(shifted, 'sensor-offset@fl').value).toBeCloseTo(0.02, 3);
      expect(estimate(shifted, 'sensor-gain@fl').value).toBeCloseTo(1, 2);
      const flat = analyse('sensor-transfer', sensorLog({ supply, gain: 0.95, at: fl }));
      expect(estimate(flat, 'sensor-offset@fl').value).toBeCloseTo(0, 3);
      expect(estimate(flat, 'sensor-gain@fl').value).toBeCloseTo(0.95, 2);
      const bent = analyse('sensor-transfer', sensorLog({ supply, bend: 0.04, at: fl }));
      expect(estimate(bent, 'linearity@fl').value).toBeGreaterThan(0.015);
    }
  });

  it('different sensors are never averaged: each keeps its own run, and what nobody held is not passed', () => {
    const step = stepNamed('sensor-transfer');
    const all = ['master', 'fl', 'fr', 'rl', 'rr'] as const;
    const runs = all.map((place) => ({
      trace: sensorLog({ seed: 7, at: sensorNumber(place), offset: place === 'rl' ? 0.03 : 0 }),
    }));
    const whole = evaluateStep(kind, step, runs, { context, policy: 'guarded' });
    expect(whole.verdict).toBe('fail');
    expect(whole.checks.filter((check) => check.verdict.kind === 'fail').map((check) => check.characteristic)).toEqual([
      'sensor-offset@rl',
    ]);
    const some = evaluateStep(kind, step, runs.slice(0, 3), { context, policy: 'guarded' });
    expect(some.verdict).toBe('undecided');
    expect(some.doubts).toEqual([]);
  });

  it('a log says which it is in a line of its own, and one that names none says so', () => {
    const rows = ['0', '1', '2', '3', '4', '5'].flatMap((second) =>
      Array.from(
        { length: 10 },
        (_, i) =>
          `${second}.${i},${Math.floor(Number(second) / 2) * 6000},5,${0.5 + Math.floor(Number(second) / 2) * 0.96}`,
      ),
    );
    const text = `time [s],reference_pressure [kPa],sensor_supply [V],sensor_a [V]\n${rows.join('\n')}\n`;
    const step = stepNamed('sensor-transfer');
    const read = (head: string) => readBenchLog(`${head}${text}`, 'log.csv', { step: step.id, ...step.feeds.log });
    const saidFl = read('# sensor: FL\n');
    if (!saidFl.ok) throw new Error(JSON.stringify(saidFl.problems));
    expect(estimate(step.analyse(saidFl.value.trace, context), 'sensor-gain@fl').value).toBeCloseTo(1, 2);
    const none = read('');
    expect(none.ok && problemOf(step.analyse(none.value.trace, context), 'sensor-gain@fl')).toBe('sensor-not-named');
    expect(read('# sensor: left one\n')).toMatchObject({
      ok: false,
      problems: [{ code: 'bad-field', field: 'sensor' }],
    });
  });

  it('two levels are too few, and a sensor without supply says nothing', () => {
    expect(problemOf(analyse('sensor-transfer', sensorLog({ at: fl, levels: [0, 9e6] })), 'sensor-gain@fl')).toBe(
      'too-few-levels',
    );
    expect(problemOf(analyse('sensor-transfer', sensorLog({ at: fl, supply: 0.4 })), 'sensor-gain@fl')).toBe(
      'sensor-not-supplied',
    );
  });

  it('by a plain voltmeter: three readings typed for one sensor, the others left open', () => {
    const step = stepNamed('sensor-transfer');
    const readings = {
      sensor: 1,
      supply: 4.92,
      'pressure-1': 0,
      'signal-1': 0.492,
      'pressure-2': 5e6,
      'signal-2': 1.2792,
      'pressure-3': 10e6,
      'signal-3': 2.0664,
    };
    const typed = step.feeds.dials!.analyse(readings, context);
    expect(estimate(typed, 'sensor-gain@fl').value).toBeCloseTo(1, 4);
    expect(estimate(typed, 'sensor-offset@fl').value).toBeCloseTo(0, 4);
    expect(problemOf(typed, 'sensor-gain@rr')).toBe('another-sensor');
  });
});

/** A press by hand over a simulator of these figures, 40 rows a second: N, N/mm, mm. */
function pressLog({
  seed = 1,
  k1 = 2,
  k2 = 8,
  change = 36,
  reach = 52,
  key = 1 as number | null,
  preload = 20,
} = {}): Trace {
  const random = noise(seed, 'press');
  const time = clock(14, 40);
  const travel = time.map((t) => reach * Math.sin((Math.PI / 2) * between(t, 1.5, 9)) * (1 - between(t, 10.5, 12.5)));
  const force = travel.map((x) => (x < 0.05 ? 0 : preload + k1 * Math.min(x, change) + k2 * Math.max(0, x - change)));
  return makeTrace(time, {
    pedal_force: force.map((f) => f + 1.5 * random.normal()),
    pedal_travel: travel.map((x) => 1e-3 * (x + 0.05 * random.normal())),
    ...(key === null ? {} : { ignition_on: time.map(() => key) }),
  });
}

describe('the feel of a pedal', () => {
  it('finds both stages and where they meet', () => {
    for (let seed = 0; seed < 20; seed++) {
      const analysis = analyse('simulator-curve', pressLog({ seed }));
      expect(estimate(analysis, 'stage-1-stiffness').value / 2e3).toBeCloseTo(1, 1);
      expect(estimate(analysis, 'stage-2-stiffness').value / 8e3).toBeCloseTo(1, 1);
      expect(Math.abs(estimate(analysis, 'stage-change-travel').value - 0.036)).toBeLessThan(0.0015);
    }
    expect(judge('simulator-curve', pressLog()).verdict).toBe('pass');
  });

  it('a press that stops short says how far it had to go, and has neither of the last two', () => {
    const analysis = analyse('simulator-curve', pressLog({ reach: 25 }));
    expect(estimate(analysis, 'stage-1-stiffness').value).toBeCloseTo(2e3, -2);
    expect(found(analysis, 'stage-2-stiffness')).toMatchObject({
      kind: 'absent',
      problem: { code: 'stage-not-reached' },
    });
    expect(judge('simulator-curve', pressLog({ reach: 25 })).verdict).toBe('undecided');
  });

  it('a spring that never gets stiff is a finding, not a short press', () => {
    const soft = judge('simulator-curve', pressLog({ k2: 2 }));
    expect(soft.verdict).toBe('fail');
    expect(problemOf(soft.analyses[0], 'stage-change-travel')).toBe('no-second-stage');
  });

  it('without power it is no simulator that is pressed; where nobody recorded it that is said', () => {
    expect(problemOf(analyse('simulator-curve', pressLog({ key: 0 })), 'stage-1-stiffness')).toBe('not-awake');
    const unseen = judge('simulator-curve', pressLog({ key: null }));
    expect([unseen.verdict, unseen.analyses[0].notes.map((note) => note.code)]).toEqual(['pass', ['power-not-seen']]);
  });
});

/** A pedal held for some time: mm/min of creep, N that the foot loses over it. */
function heldLog({
  seed = 1,
  creep = 0,
  tires = 0,
  seconds = 30,
  wheel = 6e6 as number | null,
  plunger = 0,
} = {}): Trace {
  const random = noise(seed, 'held');
  const time = clock(seconds + 8, 20);
  const on = time.map((t) => between(t, 2, 4) * (1 - between(t, seconds + 4, seconds + 5)));
  const held = time.map((t) => Math.max(0, Math.min(seconds, t - 4)));
  const force = on.map((each, i) => each * (170 - (tires * held[i]) / seconds));
  return makeTrace(time, {
    pedal_force: force.map((f) => f + random.normal()),
    pedal_travel: force.map(
      (f, i) => simulatorTravel(unit.simulator, f) + (on[i] * creep * 1e-3 * held[i]) / 60 + 0.03e-3 * random.normal(),
    ),
    plunger_travel: on.map((each, i) => each * (0.03 + (plunger * 1e-3 * held[i]) / 60) + 0.03e-3 * random.normal()),
    ...(wheel === null ? {} : { wheel_pressure_fl: on.map((each) => each * wheel + 5e3 * random.normal()) }),
  });
}

describe('a pedal held with the source up', () => {
  it('what stands still passes; what sinks, is pushed back, or is followed by its plunger fails', () => {
    expect(judge('isolation-hold', heldLog()).verdict).toBe('pass');
    expect(judge('isolation-hold', heldLog({ creep: 4 })).verdict).toBe('fail');
    expect(judge('isolation-hold', heldLog({ creep: -4 })).verdict).toBe('fail');
    expect(judge('isolation-hold', heldLog({ plunger: 5 })).verdict).toBe('fail');
    expect(estimate(analyse('isolation-hold', heldLog({ creep: 4 })), 'stroke-creep').value * 60e3).toBeCloseTo(4, 0);
  });

  it('a foot that tires is no leak', () => {
    const { value, expanded } = estimate(analyse('isolation-hold', heldLog({ tires: 25 })), 'stroke-creep');
    expect(Math.abs(value)).toBeLessThan(expanded);
    expect(judge('isolation-hold', heldLog({ tires: 25 })).verdict).not.toBe('fail');
  });

  it('too short, or with the source down, or with nobody to say, passes nothing', () => {
    expect(problemOf(analyse('isolation-hold', heldLog({ seconds: 12 })), 'stroke-creep')).toBe('hold-too-short');
    expect(problemOf(analyse('isolation-hold', heldLog({ wheel: 20e3 })), 'stroke-creep')).toBe('source-not-up');
    expect(judge('isolation-hold', heldLog({ wheel: null })).verdict).toBe('undecided');
  });
});

/** A press by the foot alone, 25 rows a second. */
function footLog({
  seed = 1,
  efficiency = 1,
  rear = 1,
  top = 600,
  volts = 0 as number | null,
  seconds = 6,
} = {}): Trace {
  const random = noise(seed, 'foot');
  const time = clock(seconds + 4, 25);
  const force = time.map((t) => top * between(t, 1, 1 + seconds) * (1 - between(t, seconds + 2, seconds + 3)));
  const at = (share: number) =>
    force.map((f) => share * efficiency * masterPressureAt(unit, f) + 4e3 * random.normal());
  return makeTrace(time, {
    pedal_force: force.map((f) => f + random.normal()),
    wheel_pressure_fl: at(1),
    wheel_pressure_fr: at(1),
    wheel_pressure_rl: at(rear),
    wheel_pressure_rr: at(rear),
    ...(volts === null ? {} : { supply_voltage: time.map(() => volts) }),
  });
}

describe('by the foot alone', () => {
  it('is what the pedal’s ratio gives at 500 N, of the lower axle', () => {
    expect(estimate(analyse('fallback', footLog()), 'fallback-pressure').value / 3709e3).toBeCloseTo(1, 2);
    expect(estimate(analyse('fallback', footLog({ rear: 0.7 })), 'fallback-pressure').value / 3709e3).toBeCloseTo(
      0.7,
      2,
    );
    expect(judge('fallback', footLog()).verdict).toBe('pass');
    expect(judge('fallback', footLog({ rear: 0.4 })).verdict).toBe('fail');
  });

  it('a force that was not reached gives no value', () => {
    expect(problemOf(analyse('fallback', footLog({ top: 430 })), 'fallback-pressure')).toBe('reference-not-reached');
  });

  it('with the power on it is not the foot that is measured, whoever says so', () => {
    expect(problemOf(analyse('fallback', footLog({ volts: 12.4 })), 'fallback-pressure')).toBe('supply-not-off');
    expect(problemOf(analyse('fallback', footLog({ volts: null, efficiency: 1.6 })), 'fallback-pressure')).toBe(
      'more-than-the-foot',
    );
    expect(judge('fallback', footLog({ volts: null })).verdict).toBe('undecided');
  });

  it('a press in a moment is no slow one', () => {
    expect(problemOf(analyse('fallback', footLog({ seconds: 0.8 })), 'fallback-pressure')).toBe('pulled-too-quickly');
  });
});

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
      expect(Math.abs(value - truth)).toBeLessThan(expanded + 0.015 * truth);
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
    const typed = stepNamed('backup').feeds.dials!.analyse(readings, context);
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

/** The fastest press: the foot in `foot` s, a lag a wheel, `rate` rows a second. */
function stampLog({ foot = 0.05, lags = [0.04, 0.04, 0.04, 0.04], rate = 250, level = 8e6 } = {}): Trace {
  const time = clock(5, rate);
  const target = time.map((t) => level * between(t, 1, 1 + foot));
  const names = ['fl', 'fr', 'rl', 'rr'];
  const columns: Record<string, Float64Array> = {};
  names.forEach((wheel, at) => {
    let p = 0;
    columns[`target_pressure_${wheel}`] = target;
    columns[`wheel_pressure_${wheel}`] = target.map((asked) => (p += ((asked - p) * (1 / rate)) / lags[at]));
  });
  return makeTrace(time, columns);
}

describe('the fastest press', () => {
  it('is as slow as its slowest wheel', () => {
    const quick = estimate(analyse('panic', stampLog()), 'rise-time').value;
    expect(quick).toBeGreaterThan(0.09);
    expect(quick).toBeLessThan(0.15);
    const slow = judge('panic', stampLog({ lags: [0.04, 0.04, 0.12, 0.04] }));
    expect(slow.verdict).toBe('fail');
    expect(judge('panic', stampLog()).verdict).toBe('pass');
  });

  it('a slow foot, a slow log, or a press of nothing times no unit', () => {
    expect(problemOf(analyse('panic', stampLog({ foot: 0.6 })), 'rise-time')).toBe('pressed-slowly');
    expect(problemOf(analyse('panic', stampLog({ rate: 50 })), 'rise-time')).toBe('sampled-too-slowly');
    expect(problemOf(analyse('panic', stampLog({ level: 0.4e6 })), 'rise-time')).toBe('not-applied');
  });
});

/** Pressed and let go; `left` Pa stay at one wheel, `idle` Pa stand there before anybody presses. */
function letGoLog({ left = 0, idle = 0, tail = 4, asleep = true } = {}): Trace {
  const time = clock(9 + tail, 50);
  const on = time.map((t) => between(t, 4, 5) * (1 - between(t, 8, 8.05)));
  const pressure = (stays: number) => {
    let p = 0;
    return on.map((each, i) => {
      const aim = Math.max(each * 6e6, time[i] > 2 ? (time[i] > 8 ? stays : idle) : 0);
      return (p += ((aim - p) * 0.02) / 0.06);
    });
  };
  const none = pressure(0);
  return makeTrace(time, {
    pedal_force: on.map((each) => each * 150),
    wheel_pressure_fl: pressure(left),
    wheel_pressure_fr: none,
    wheel_pressure_rl: none,
    wheel_pressure_rr: none,
    ...(asleep ? { ignition_on: time.map((t) => (t > 2 ? 1 : 0)) } : {}),
  });
}

describe('waking up and letting go', () => {
  it('a wheel that keeps pressure fails, one that lets go passes', () => {
    expect(judge('release', letGoLog()).verdict).toBe('pass');
    const drags = judge('release', letGoLog({ left: 300e3, idle: 300e3 }));
    expect(drags.verdict).toBe('fail');
    expect(estimate(drags.analyses[0], 'wheel-residual@fl').value).toBeCloseTo(300e3, -4);
    expect(drags.analyses[0].notes.map((note) => note.code)).toContain('self-applied');
  });

  it('what stood there before it was pressed is not taken for a gauge’s zero', () => {
    const analysis = analyse('release', letGoLog({ left: 300e3, idle: 300e3, asleep: false }));
    expect(estimate(analysis, 'wheel-residual@fl').value).toBeCloseTo(300e3, -4);
  });

  it('a log that ends before it was let go shows no release', () => {
    const log = letGoLog();
    const cut = {
      time: log.time.subarray(0, 380),
      columns: Object.fromEntries(Object.entries(log.columns).map(([id, column]) => [id, column.subarray(0, 380)])),
    };
    expect(problemOf(analyse('release', cut), 'wheel-release-time')).toBe('no-release');
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
  });
});
