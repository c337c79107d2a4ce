import { contextAt } from '../../formats/site-file';
import { checkKind } from '../../formats/unit-sheet';
import { labelledSeed, randomSource } from '../../physics/random';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { analyseDrops } from '../../toolboxes/electrical/drops-analysis';
import { makeTrace, type Trace } from '../../traces/trace';
import { kindNamed } from '..';
import type { MotorBoostUnit } from './geometry';

/* Pushes on somebody else's bench, written here sample by sample: none of it comes from the stand-in. */

const kind = kindNamed('motor-boost');
const checked = checkKind(kind, 'booster', kind.sheet.example.spec, 'booster');
if (!checked.ok) throw new Error('the example is not valid');
const site = { altitudeM: 1420, airTemperatureC: 11 };
const context = contextAt(checked.value, site, '2026-11-23', 'bench') as StepContext<MotorBoostUnit>;

const found = (analysis: StepAnalysis, id: string) => analysis.characteristics.find((each) => each.id === id)!;
const valueOf = (analysis: StepAnalysis, id: string): number => {
  const characteristic = found(analysis, id);
  return characteristic.kind === 'measured' ? characteristic.estimate.value : Number.NaN;
};

/** A push with a foot that wavers: current, battery, unit and ground, each on its own noise. */
function pushLog({
  feed,
  ground,
  battery = 12.8,
  most = 40,
  withGround = true,
  open = false,
}: {
  readonly feed: number;
  readonly ground: number;
  readonly battery?: number;
  readonly most?: number;
  readonly withGround?: boolean;
  readonly open?: boolean;
}): Trace {
  const random = randomSource(labelledSeed(9, 'push'));
  const time = Float64Array.from({ length: 900 }, (_, i) => i / 100);
  const current = time.map((t) =>
    open ? 0 : 0.5 + most * Math.max(0, Math.min(1, (t - 2) / 1.5, (8 - t) / 1.2)) * (1 + 0.01 * Math.sin(9 * t)),
  );
  const noisy = (sigma: number) => sigma * random.normal();
  return makeTrace(time, {
    motor_current: current.map((i) => i + noisy(0.2)),
    battery_voltage: current.map(() => battery + noisy(0.01)),
    supply_voltage: current.map((i) => (open ? 0.02 : battery - i * (feed + ground)) + noisy(0.01)),
    ...(withGround ? { ground_voltage: current.map((i) => i * ground + noisy(0.002)) } : {}),
  });
}

describe('feed and ground under load', () => {
  it('are read where the current is largest and restated to the rated one', () => {
    const half = analyseDrops(pushLog({ feed: 0.008, ground: 0.003, most: 20 }), context);
    expect(valueOf(half, 'supply-drop')).toBeCloseTo(0.32, 1);
    expect(valueOf(half, 'ground-drop')).toBeCloseTo(0.12, 2);
    expect(half.notes).toContainEqual({
      code: 'drop-as-read',
      part: 'ground',
      drop: expect.closeTo(0.06, 2),
      current: expect.closeTo(20.65, 1),
      rated: 40,
    });
    expect(half.notes).toContainEqual({ code: 'resistance-of', part: 'ground', ohm: expect.closeTo(0.003, 4) });
  });

  it('a drop above its limit stands as it was read, whatever the current', () => {
    expect(
      valueOf(analyseDrops(pushLog({ feed: 0.09, ground: 0.002, most: 7 }), context), 'supply-drop'),
    ).toBeGreaterThan(0.6);
  });

  it('say nothing below a fifth of the rated current', () => {
    expect(found(analyseDrops(pushLog({ feed: 0.008, ground: 0.003, most: 6 }), context), 'supply-drop')).toMatchObject(
      {
        kind: 'absent',
        problem: { code: 'current-too-small' },
      },
    );
  });

  it('an open feed is a drop of nearly all of the battery, and said', () => {
    const open = analyseDrops(pushLog({ feed: 0, ground: 0, open: true }), context);
    expect(valueOf(open, 'supply-drop')).toBeGreaterThan(12);
    expect(open.notes).toContainEqual({ code: 'feed-open', voltage: expect.any(Number) });
  });

  it('a feed that gives way in the middle of a push is judged by what it left, and one that is switched off at rest is not', () => {
    const sound = pushLog({ feed: 0.003, ground: 0.002 });
    const from = (seconds: number) => {
      const off = (column: Float64Array) => column.map((each, i) => (sound.time[i] < seconds ? each : 0.02));
      const { motor_current, supply_voltage } = sound.columns;
      return makeTrace(sound.time, {
        ...sound.columns,
        motor_current: off(motor_current),
        supply_voltage: off(supply_voltage),
      });
    };
    expect(valueOf(analyseDrops(from(5.2), context), 'supply-drop')).toBeGreaterThan(12);
    expect(valueOf(analyseDrops(from(8.2), context), 'supply-drop')).toBeCloseTo(0.12, 1);
  });

  it('a lead of the meter that falls off while the current goes on is no open feed', () => {
    const sound = pushLog({ feed: 0.003, ground: 0.002 });
    const supply_voltage = sound.columns.supply_voltage.map((each, i) => (sound.time[i] < 5.2 ? each : 0.02));
    const log = makeTrace(sound.time, { ...sound.columns, supply_voltage });
    expect(found(analyseDrops(log, context), 'supply-drop')).toMatchObject({
      kind: 'absent',
      problem: { code: 'lead-off', channel: 'supply_voltage' },
    });
  });

  it('without the ground’s own voltage the ground counts with the feed, and that is said', () => {
    const both = analyseDrops(pushLog({ feed: 0.006, ground: 0.004, withGround: false }), context);
    expect(valueOf(both, 'supply-drop')).toBeCloseTo(0.4, 1);
    expect(both.notes).toContainEqual({ code: 'ground-in-feed' });
    expect(found(both, 'ground-drop')).toMatchObject({ kind: 'absent', problem: { code: 'channel-missing' } });
  });

  it('a drop that physics forbids is a finding: measured against the battery’s negative, or with leads swapped', () => {
    const swapped = pushLog({ feed: 0.006, ground: 0.01 });
    const ground = swapped.columns.ground_voltage.map((value) => -value);
    const analysis = analyseDrops(makeTrace(swapped.time, { ...swapped.columns, ground_voltage: ground }), context);
    expect(found(analysis, 'ground-drop')).toMatchObject({
      kind: 'absent',
      problem: { code: 'drop-negative', part: 'ground' },
    });
    const high = swapped.columns.supply_voltage.map((value, i) => value + 0.03 * swapped.columns.motor_current[i]);
    const feed = analyseDrops(makeTrace(swapped.time, { ...swapped.columns, supply_voltage: high }), context);
    expect(found(feed, 'supply-drop')).toMatchObject({
      kind: 'absent',
      problem: { code: 'drop-negative', part: 'feed' },
    });
  });

  it('do not hang on the battery: 11.2 V and 14.4 V give the same resistances', () => {
    for (const battery of [11.2, 14.4])
      expect(
        valueOf(analyseDrops(pushLog({ feed: 0.007, ground: 0.002, battery }), context), 'supply-drop'),
      ).toBeCloseTo(0.28, 1);
  });
});
