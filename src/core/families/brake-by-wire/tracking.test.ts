import { makeTrace, type Trace } from '../../traces/trace';
import {
  withGauges,
  analyse,
  judge,
  estimate,
  problemOf,
  noise,
  clock,
} from '../../../../tests/support/foreign-by-wire';

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
  const follows = 1 - Math.exp(-fine / truth.lag);
  let [p, k] = [truth.offset, 0];
  const gaugeGain = 1 + (0.004 / Math.sqrt(3)) * random.normal();
  const pressure = time.map((until, i) => {
    for (; k * fine < until - 1e-9; k++) {
      // What stands in the log is held until its next row.
      const row = Math.min(target.length - 1, Math.floor(k * fine * rate + 1e-6));
      past.push(between === 'on-rows' ? target[row] : asked(k * fine));
      const late = past[Math.max(0, past.length - 1 - ahead)] ?? 0;
      p += follows * (truth.offset + truth.gain * (past.length - 1 >= ahead ? late : 0) - p);
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
  it('many logs of 50 to 1,000 Hz: gain within 1 %, times within 5 %, U as often as it says', () => {
    const counts: Record<string, number> = {};
    const runs = 150;
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
