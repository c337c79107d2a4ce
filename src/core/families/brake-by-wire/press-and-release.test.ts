import { makeTrace, type Trace } from '../../traces/trace';
import { analyse, judge, estimate, problemOf, clock, between } from '../../../../tests/support/foreign-by-wire';

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

  it('a wheel that gets nothing is not the quickest of them, and one that nobody asked is said', () => {
    const log = stampLog();
    const dead = log.columns.wheel_pressure_rr.map((_, i) => 6e3 * Math.sin(i));
    const result = judge('panic', makeTrace(log.time, { ...log.columns, wheel_pressure_rr: dead }));
    expect(result.verdict).toBe('fail');
    expect(problemOf(result.analyses[0], 'rise-time')).toBe('never-reached');
    const unasked = judge('panic', makeTrace(log.time, { ...log.columns, target_pressure_rr: dead.map(() => 0) }));
    expect(unasked.verdict).toBe('undecided');
    expect(unasked.doubts).toEqual([expect.objectContaining({ code: 'not-applied', channel: 'target_pressure_rr' })]);
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
