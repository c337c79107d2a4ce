import { entryOf } from '../../dials/characteristic-entry';
import { readBenchLog } from '../../formats/bench-log';
import { evaluateStep } from '../../judging/evaluate-unit';
import { makeTrace, type Trace } from '../../traces/trace';
import { sensorNumber } from './sensors';
import {
  kind,
  context,
  stepNamed,
  analyse,
  estimate,
  problemOf,
  noise,
  clock,
  between,
} from '../../../../tests/support/foreign-by-wire';

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
    // A unit with a plunger has no store whose sensor this could be.
    expect(read('# sensor: store\n')).toMatchObject({ ok: false, problems: [{ code: 'bad-field', field: 'sensor' }] });
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
    const typed = entryOf(step).analyse(readings, context);
    expect(estimate(typed, 'sensor-gain@fl').value).toBeCloseTo(1, 4);
    expect(estimate(typed, 'sensor-offset@fl').value).toBeCloseTo(0, 4);
    expect(problemOf(typed, 'sensor-gain@rr')).toBe('another-sensor');
  });
});
