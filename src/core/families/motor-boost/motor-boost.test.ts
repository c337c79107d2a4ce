import { entryOf } from '../../dials/characteristic-entry';
import { contextAt } from '../../formats/site-file';
import { checkKind } from '../../formats/unit-sheet';
import { randomSource, labelledSeed } from '../../physics/random';
import type { StepContext } from '../../procedure/step-context';
import type { StepAnalysis } from '../../procedure/step-analysis';
import { judgeStep, stepVerdict } from '../../judging/judge-step';
import { liveFeed, type MeasuredStep } from '../../procedure/step-definition';
import { runByItself } from '../../rig/run-by-itself';
import { ordinaryNoise, standInRig } from '../../rig/stand-in-rig';
import { motorBoostPlant } from './bench-stand';
import { soundMotorBoost } from './faults';
import { makeTrace, type Trace } from '../../traces/trace';
import { findStep, kindNamed } from '..';
import { assistForce, outputAt, prepareMotorBoost, trackShare, type MotorBoostUnit } from './geometry';
import { motorBoostSchema } from './sheet';
import { analyseAsleep } from '../../toolboxes/electrical/asleep-analysis';
import { analyseTracks } from './track-analysis';

/*
 * Logs of somebody else's bench: written here sample by sample, with their own rates, noise and habits. None of it comes from the stand-in.
 */

const kind = kindNamed('motor-boost');
const checked = checkKind(kind, 'booster', kind.sheet.example.spec, 'booster');
if (!checked.ok) throw new Error('the example is not valid');
const context = contextAt(
  checked.value,
  { altitudeM: 1420, airTemperatureC: 11 },
  '2026-11-23',
  'bench',
) as StepContext<MotorBoostUnit>;
const unit = prepareMotorBoost(motorBoostSchema.parse(kind.sheet.example.spec));

const found = (analysis: StepAnalysis, id: string) => analysis.characteristics.find((each) => each.id === id)!;
const valueOf = (analysis: StepAnalysis, id: string): number => {
  const characteristic = found(analysis, id);
  return characteristic.kind === 'measured' ? characteristic.estimate.value : Number.NaN;
};

describe('the law of a motor booster', () => {
  it('has the motor for what vacuum is elsewhere: full at the rated voltage, in proportion below it', () => {
    expect(assistForce(unit, 12)).toBe(2600 - 120);
    expect(assistForce(unit, 14.4)).toBe(2600 - 120);
    expect(assistForce(unit, 6)).toBe(1300 - 120);
  });

  it('without power is the foot less the spring: (1000 N − 120 N)·0.95 − 60 N over 444.9 mm² is 1,744 kPa', () => {
    expect(outputAt(unit, 1000, 0) / 1e3).toBeCloseTo(1744, 0);
  });

  it('has tracks that run from 0.5 V to 4.5 V over 40 mm', () => {
    expect(5 * trackShare(unit.sensor, 0)).toBeCloseTo(0.5, 12);
    expect(5 * trackShare(unit.sensor, 0.02)).toBeCloseTo(2.5, 12);
    expect(5 * trackShare(unit.sensor, 0.04)).toBeCloseTo(4.5, 12);
  });
});

interface Habits {
  readonly seed: number;
  readonly rate?: number;
  /** V added to track A; m by which the magnet is off; times (s) and lengths (s) at which track A is dead. */
  readonly offset?: number;
  readonly shift?: number;
  readonly dead?: readonly (readonly [number, number])[];
  readonly supply?: number;
  readonly withSupply?: boolean;
  readonly reach?: number;
}

/** A stroke out and back by hand: uneven speed, 3 mV of noise, a supply that wanders a little. */
function strokeLog({
  seed,
  rate = 200,
  offset = 0,
  shift = 0,
  dead = [],
  supply = 5,
  withSupply = true,
  reach = 36,
}: Habits): Trace {
  const random = randomSource(labelledSeed(seed, 'hand'));
  const seconds = 9 + 4 * random.uniform();
  const count = Math.round(seconds * rate);
  const bend = 0.3 * random.uniform();
  const time = Float64Array.from({ length: count }, (_, i) => i / rate);
  const along = (t: number) => Math.max(0, Math.min(1, (t - 0.8) / (seconds - 1.6)));
  const travel = time.map((t) => {
    const x = along(t);
    return (reach * 1e-3 * (1 - Math.cos(2 * Math.PI * (x + bend * x * (1 - x))))) / 2;
  });
  const volts = time.map((t) => supply * (1 + 0.004 * Math.sin(t)));
  const noisy = (value: number) => value + 0.003 * random.normal();
  const a = time.map((t, i) =>
    dead.some(([at, long]) => t >= at && t < at + long)
      ? 0.01
      : noisy(volts[i] * (0.1 + (0.8 * (travel[i] + shift)) / 0.04) + (offset * volts[i]) / 5),
  );
  const b = time.map((_, i) => noisy(volts[i] * (0.9 - (0.8 * (travel[i] + shift)) / 0.04)));
  return makeTrace(time, {
    rod_travel: travel.map((x) => x + 0.02e-3 * random.normal()),
    sensor_a: a,
    sensor_b: b,
    ...(withSupply ? { sensor_supply: volts.map((v) => noisy(v)) } : {}),
  });
}

describe('two tracks over travel', () => {
  const step = findStep(kind, 'sensor-tracks')!;

  it('finds nothing on five hundred sound strokes, and no dropout', () => {
    let off = 0;
    for (let seed = 0; seed < 500; seed++) {
      const analysis = analyseTracks(strokeLog({ seed, supply: 4.8 + 0.0008 * seed }), context);
      expect([seed, valueOf(analysis, 'dropouts')]).toEqual([seed, 0]);
      const limits = step.kind === 'measured' ? step.limits(analysis, context) : [];
      for (const { characteristic, low, high } of limits) {
        const value = valueOf(analysis, characteristic);
        if (!(value >= (low ?? -Infinity) && value <= (high ?? Infinity))) off++;
      }
    }
    expect(off).toBe(0);
  });

  it('tells an offset of one track, a shifted magnet and a dropout of 5 ms apart in ninety-nine of a hundred', () => {
    let [offsets, shifts, dropouts] = [0, 0, 0];
    const strokes = 200;
    for (let seed = 0; seed < strokes; seed++) {
      const offset = analyseTracks(strokeLog({ seed, offset: 0.25 }), context);
      if (
        valueOf(offset, 'sum-error') > 0.2 &&
        valueOf(offset, 'track-offset@a') > 0.2 &&
        Math.abs(valueOf(offset, 'track-offset@b')) < 0.05
      )
        offsets++;
      const shift = analyseTracks(strokeLog({ seed, shift: 2e-3 }), context);
      if (
        valueOf(shift, 'sum-error') < 0.1 &&
        valueOf(shift, 'track-offset@a') > 0.15 &&
        valueOf(shift, 'track-offset@b') < -0.15
      )
        shifts++;
      const dropout = analyseTracks(strokeLog({ seed, dead: [[2.5 + 0.013 * seed, 0.005]] }), context);
      if (valueOf(dropout, 'dropouts') === 1) dropouts++;
    }
    expect(offsets / strokes).toBeGreaterThanOrEqual(0.99);
    expect(shifts / strokes).toBeGreaterThanOrEqual(0.99);
    expect(dropouts / strokes).toBeGreaterThanOrEqual(0.99);
  });

  it('counts a stretch once however long up to 200 ms, two as two, and a track that stays away as broken', () => {
    const count = (dead: Habits['dead']) => valueOf(analyseTracks(strokeLog({ seed: 3, dead }), context), 'dropouts');
    expect(count([[3, 0.15]])).toBe(1);
    expect(
      count([
        [3, 0.02],
        [5, 0.02],
      ]),
    ).toBe(2);
    const broken = found(analyseTracks(strokeLog({ seed: 3, dead: [[3, 0.6]] }), context), 'sum-error');
    expect(broken).toMatchObject({ kind: 'beyond', side: 'above' });
  });

  it('says nothing of dropouts below 100 Hz, and why', () => {
    const analysis = analyseTracks(strokeLog({ seed: 4, rate: 50 }), context);
    expect(found(analysis, 'dropouts')).toMatchObject({ kind: 'absent', problem: { code: 'sampled-too-slowly' } });
    expect(valueOf(analysis, 'track-gain@a')).toBeCloseTo(1, 1);
  });

  it('takes swapped columns for what they are, and rows that lack a track for nothing', () => {
    const log = strokeLog({ seed: 8 });
    const { sensor_a, sensor_b } = log.columns;
    const swapped = analyseTracks(
      makeTrace(log.time, { ...log.columns, sensor_a: sensor_b, sensor_b: sensor_a }),
      context,
    );
    expect(found(swapped, 'track-gain@a')).toMatchObject({ kind: 'absent', problem: { code: 'tracks-swapped' } });
    const holed = sensor_a.map((value, i) => (i % 7 === 3 ? Number.NaN : value));
    const analysis = analyseTracks(makeTrace(log.time, { ...log.columns, sensor_a: holed }), context);
    expect(valueOf(analysis, 'dropouts')).toBe(0);
    expect(valueOf(analysis, 'track-gain@a')).toBeCloseTo(1, 2);
  });

  it('is ratiometric: a supply of 4.5 V changes nothing', () => {
    const analysis = analyseTracks(strokeLog({ seed: 5, supply: 4.5 }), context);
    expect(valueOf(analysis, 'track-gain@a')).toBeCloseTo(1, 2);
    expect(Math.abs(valueOf(analysis, 'track-offset@a'))).toBeLessThan(0.02);
  });

  it('says that it took the supply of the sheet, that a stroke was too short, that nothing was fed', () => {
    const codes = (trace: Trace) => {
      const analysis = analyseTracks(trace, context);
      return [
        ...analysis.notes,
        ...analysis.characteristics.flatMap((each) => (each.kind === 'absent' ? [each.problem] : [])),
      ].map((each) => each.code);
    };
    expect(codes(strokeLog({ seed: 6, withSupply: false }))).toContain('sensor-supply-assumed');
    expect(codes(strokeLog({ seed: 6, reach: 12 }))).toContain('stroke-too-short');
    expect(codes(strokeLog({ seed: 6, supply: 0.1 }))).toContain('sensor-not-supplied');
  });
});

/** A night in a log of one sample a second: awake, then asleep, with a key that was or was not recorded. */
function nightLog({
  asleep,
  offAt = 60,
  sleepsAt = 300,
  seconds = 900,
  withKey = true,
  keyOn = false,
}: {
  readonly asleep: number;
  readonly offAt?: number;
  readonly sleepsAt?: number;
  readonly seconds?: number;
  readonly withKey?: boolean;
  readonly keyOn?: boolean;
}): Trace {
  const time = Float64Array.from({ length: seconds }, (_, i) => i);
  return makeTrace(time, {
    motor_current: time.map((t) => (t < offAt + sleepsAt ? 0.62 : asleep)),
    ...(withKey ? { ignition_on: time.map((t) => (keyOn || t < offAt ? 1 : 0)) } : {}),
  });
}

describe('current asleep', () => {
  it('is the mean from ten minutes after the key went off', () => {
    expect(
      valueOf(analyseAsleep(nightLog({ asleep: 0.012 }), context, { least: 60 }), 'quiescent-current'),
    ).toBeCloseTo(0.012, 6);
  });

  it('that runs backwards, read or typed, proves nothing asleep', () => {
    const backwards = { kind: 'absent', problem: { code: 'current-negative' } };
    const read = analyseAsleep(nightLog({ asleep: -0.35 }), context, { least: 60 });
    expect(found(read, 'quiescent-current')).toMatchObject(backwards);
    const typed = entryOf(findStep(kind, 'make-safe-before') as MeasuredStep<unknown>).analyse(
      { 'quiescent-current': -0.35, 'meter-seen': 0 },
      context,
    );
    expect(found(typed, 'quiescent-current')).toMatchObject(backwards);
  });

  it('a meter that reads nothing from first to last may be open: no pass stands on it', () => {
    const dead = makeTrace(nightLog({ asleep: 0 }).time, {
      motor_current: nightLog({ asleep: 0 }).time.map(() => 0),
      ignition_on: nightLog({ asleep: 0 }).columns.ignition_on,
    });
    expect(analyseAsleep(dead, context, { least: 60 }).doubts).toContainEqual({
      code: 'meter-not-seen-alive',
      channel: 'motor_current',
    });
    expect(analyseAsleep(nightLog({ asleep: 0.012 }), context, { least: 60 }).doubts ?? []).toEqual([]);
  });

  it('needs a minute of it, and a key that is off', () => {
    const short = analyseAsleep(nightLog({ asleep: 0.012, seconds: 700 }), context, { least: 60 });
    expect(found(short, 'quiescent-current')).toMatchObject({ kind: 'absent', problem: { code: 'soak-too-short' } });
    const on = analyseAsleep(nightLog({ asleep: 0.012, keyOn: true }), context, { least: 60 });
    expect(found(on, 'quiescent-current')).toMatchObject({ kind: 'absent', problem: { code: 'key-still-on' } });
  });

  it('without the key’s signal is counted from the start of the log, and that is said', () => {
    const analysis = analyseAsleep(nightLog({ asleep: 0.012, withKey: false, offAt: 0 }), context, { least: 60 });
    expect(valueOf(analysis, 'quiescent-current')).toBeCloseTo(0.012, 6);
    expect(analysis.notes).toContainEqual({ code: 'key-off-assumed' });
  });
});

describe('the same unit on another battery', () => {
  const step = findStep(kind, 'assist-curve') as MeasuredStep<unknown>;
  const pushedOn = (battery: number) => {
    const plant = motorBoostPlant(unit, soundMotorBoost(), {
      mounted: 'bench',
      ambient: 85_400,
      temperature: 284,
      supply: battery,
      benchVolume: 0,
      startsFrom: 'charged',
    });
    const rig = standInRig({
      plant,
      leverChannel: 'rod_force',
      instruments: context.instruments,
      benchSeed: 4,
      runSeed: 8,
      sampleRate: 200,
      noise: ordinaryNoise,
      pairError: 0,
    });
    const analysis = step.analyse(runByItself(rig, liveFeed(step).guide(context)), context);
    const checks = judgeStep(analysis.characteristics, step.limits(analysis, context), 'guarded');
    return { analysis, verdict: stepVerdict(checks) };
  };

  it.each([11.2, 12.6, 14.4])('passes on %s V', (battery) => {
    const { analysis, verdict } = pushedOn(battery);
    expect([battery, verdict]).toEqual([battery, 'pass']);
    const weak = analysis.notes.some((note) => note.code === 'weak-supply');
    expect(weak).toBe(battery < 12);
  });
});
