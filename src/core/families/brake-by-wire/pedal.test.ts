import { pressureOfFoot } from '../../calculators/brake-force';
import { makeTrace, type Trace } from '../../traces/trace';
import { simulatorTravel } from './geometry';
import {
  unit,
  analyse,
  judge,
  found,
  estimate,
  problemOf,
  noise,
  clock,
  between,
} from '../../../../tests/support/foreign-by-wire';

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

  it('two holds with a hole between them are not one long one', () => {
    const log = heldLog({ seconds: 30 });
    const kept = Array.from(log.time, (_, i) => i).filter((i) => log.time[i] < 12 || log.time[i] > 24);
    const of = (column: Float64Array) => Float64Array.from(kept, (i) => column[i]);
    const holed = makeTrace(
      of(log.time),
      Object.fromEntries(Object.entries(log.columns).map(([id, column]) => [id, of(column)])),
    );
    expect(problemOf(analyse('isolation-hold', holed), 'stroke-creep')).toBe('hold-too-short');
  });

  it('a travel written in whole millimetres is not sure of a millimetre a minute', () => {
    const log = heldLog();
    const coarse = log.columns.pedal_travel.map((value) => Math.round(value * 1e3) * 1e-3);
    expect(judge('isolation-hold', makeTrace(log.time, { ...log.columns, pedal_travel: coarse })).verdict).toBe(
      'undecided',
    );
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
  const at = (share: number) => force.map((f) => share * efficiency * pressureOfFoot(unit, f) + 4e3 * random.normal());
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

  it('a voltage that was written more seldom than the rest is not taken for none', () => {
    const log = footLog({ volts: 12.4 });
    const seldom = log.columns.supply_voltage.map((value, i) => (i % 12 === 0 ? value : Number.NaN));
    const analysis = analyse('fallback', makeTrace(log.time, { ...log.columns, supply_voltage: seldom }));
    expect(problemOf(analysis, 'fallback-pressure')).toBe('supply-not-off');
  });

  it('a press in a moment is no slow one', () => {
    expect(problemOf(analyse('fallback', footLog({ seconds: 0.8 })), 'fallback-pressure')).toBe('pulled-too-quickly');
  });
});
