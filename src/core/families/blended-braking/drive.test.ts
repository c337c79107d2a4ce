import fc from 'fast-check';
import { makeTrace, type Trace } from '../../traces/trace';
import { expandedUncertainty } from '../../instruments/uncertainty';
import { dice } from '../../../../tests/support/second-writer/logger';
import { drawTool, driveThrough, noTrouble, writeDrive } from '../../../../tests/support/second-writer/drives';
import { clockedIn, drivenIn, ownSensors, shuttle } from '../../../../tests/support/driven-vehicle';
import { closureOf } from './closure';
import { readDrive, samplesOf } from './drive';
import { clockUnder, onClock, stretchesOf, windowMeans } from './drive-clock';
import { bridged, longestDisagreement, speedDropouts, timeOn } from './drive-states';
import { brakedStretches, frictionGain, stretchesNeeded } from './friction-gain';
import { panicDelays, panicEvents } from './panic';
import { masterDifference, storeMargin } from './pressure-order';
import { unfilledTorque } from './regen-limit';

const samples = (time: readonly number[], value: readonly number[]) => ({
  time: Float64Array.from(time),
  value: Float64Array.from(value),
});
const evenly = (count: number, step: number) => Array.from({ length: count }, (_, i) => i * step);

/** A drive in which all that is asked for is given: `give` says which share of it by the motor, `short` what is missing. */
function braked({
  rate = 50,
  seconds = 20,
  short = 0,
  motor = 0.5,
  turned = false,
}: {
  readonly rate?: number;
  readonly seconds?: number;
  readonly short?: number;
  readonly motor?: number;
  readonly turned?: boolean;
}): Trace {
  const time = Float64Array.from(evenly(seconds * rate, 1 / rate));
  const requested = time.map((t) => (t > 2 && t < seconds - 2 ? 2000 : 0));
  const toEach = 2 * (shuttle.vehicle.frontTorque + shuttle.vehicle.rearTorque);
  const wheel = requested.map((asked) => (asked === 0 ? 0 : (asked * (1 - motor) - short) / toEach));
  return makeTrace(time, {
    requested_torque: requested,
    regen_torque: requested.map((asked) => (turned ? -1 : 1) * asked * motor),
    ...Object.fromEntries(['fl', 'fr', 'rl', 'rr'].map((at) => [`wheel_pressure_${at}`, wheel])),
  });
}

const closedIn = (trace: Trace) => closureOf(shuttle, drivenIn(trace), ownSensors, [])!;

describe('a clock under columns of different rates', () => {
  it('a line is a line at any rate, and nothing is told beyond its ends', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.02, max: 0.4, noNaN: true }),
        fc.double({ min: -9, max: 9, noNaN: true }),
        (step, slope) => {
          const own = samples(
            evenly(40, step),
            evenly(40, step).map((t) => 3 + slope * t),
          );
          const clock = clockUnder([own, samples([-1, -0.99], [0, 0])]);
          const { value, known } = onClock(own, clock, 'straight');
          for (let i = 0; i < clock.count; i++) {
            const t = clock.start + i * clock.step;
            expect(known[i] === 1).toBe(t > -1e-6 && t < 39 * step + 1e-6);
            if (known[i] === 1) expect(value[i]).toBeCloseTo(3 + slope * t, 6);
          }
        },
      ),
      { numRuns: 50 },
    );
  });

  it('a gap of more than half a second and five intervals is not bridged; a held state does not slope', () => {
    const own = samples([0, 0.1, 0.2, 1.1, 1.2], [0, 1, 1, 0, 0]);
    const clock = { start: 0, step: 0.05, count: 25 };
    const straight = onClock(own, clock, 'straight');
    expect([straight.known[3], straight.known[10], straight.known[23]]).toEqual([1, 1, 1]);
    const lost = samples([0, 0.01, 0.02, 0.03, 0.04, 0.05, 2, 2.01], [1, 1, 1, 1, 1, 1, 5, 5]);
    expect(onClock(lost, { start: 0, step: 0.01, count: 202 }, 'straight').known[100]).toBe(0);
    expect(onClock(samples([0, 0.1, 0.2], [0, 1, 1]), { start: 0, step: 0.05, count: 5 }, 'held').value[1]).toBe(0);
  });

  it('windows are known where all of them is', () => {
    const known = Uint8Array.from([1, 1, 1, 0, 1, 1]);
    const means = windowMeans(
      { value: Float64Array.from([1, 2, 3, 9, 5, 7]), known },
      { start: 0, step: 0.1, count: 6 },
      0.2,
    );
    expect([...means.known]).toEqual([1, 1, 0, 0, 1, 0]);
    expect([means.value[0], means.value[1], means.value[4]]).toEqual([1.5, 2.5, 6]);
    expect(stretchesOf(known)).toEqual([
      [0, 3],
      [4, 6],
    ]);
  });
});

describe('what closes in a drive', () => {
  it('4 MPa on 2,290 mm² at 130 mm with 0.38 are 905 N·m a wheel', () => {
    expect(shuttle.vehicle.frontTorque * 4e6).toBeCloseTo(905, 0);
  });

  it('nothing is missing where all is given; what is missing is the bias', () => {
    expect(closedIn(braked({})).bias.value).toBeCloseTo(0, 6);
    const short = closedIn(braked({ short: 150 }));
    expect(short.bias.value).toBeCloseTo(150, 6);
    expect(short.rms.value).toBeCloseTo(150, 6);
    expect(short.worst.estimate.value).toBeCloseTo(150, 6);
  });

  it('what is given twice as much of is twice the bias, and when a drive was makes no difference', () => {
    const one = braked({ short: 100 });
    const later = { ...one, time: one.time.map((t) => t + 12_345) };
    expect(closedIn(later).bias.value).toBeCloseTo(closedIn(one).bias.value, 6);
    const doubled = {
      ...one,
      columns: Object.fromEntries(Object.entries(one.columns).map(([id, column]) => [id, column.map((v) => 2 * v)])),
    };
    expect(closedIn(doubled).bias.value).toBeCloseTo(200, 6);
  });

  it('the motor’s torque is turned where the log counts it the other way', () => {
    const drive = drivenIn(braked({ turned: true, short: 80 }));
    expect(drive.turned).toEqual(['regen_torque']);
    expect(closureOf(shuttle, drive, ownSensors, [])!.bias.value).toBeCloseTo(80, 6);
    expect(drivenIn(braked({})).turned).toEqual([]);
  });

  it('what the log lacks is named, and a drive without braking is none', () => {
    const { time, columns } = braked({});
    const left = ['regen_torque', 'wheel_pressure_rl'];
    const rest = Object.fromEntries(Object.entries(columns).filter(([id]) => !left.includes(id)));
    expect(readDrive(makeTrace(time, rest), shuttle)).toEqual({
      kind: 'missing',
      channels: ['regen_torque', 'wheel_pressure_rl'],
    });
    const seldom = columns.wheel_pressure_fr.map((value, i) => (i % 10 === 0 ? value : Number.NaN));
    expect(readDrive(makeTrace(time, { ...columns, wheel_pressure_fr: seldom }), shuttle)).toEqual({
      kind: 'too-slow',
      channel: 'wheel_pressure_fr',
      interval: expect.closeTo(0.2, 3),
    });
    const never = { ...columns, requested_torque: columns.requested_torque.map(() => 0) };
    expect(readDrive(makeTrace(time, never), shuttle)).toEqual({ kind: 'nobody-brakes' });
  });
});

describe('a drive by another tool', () => {
  const { vehicle } = shuttle;
  const rightTool = { gains: [0, 0, 0, 0], zeros: [0, 0, 0, 0], regenGain: 0, rate: 100, wheelRate: 100 };

  it('linings that give 85 % show in what slowing down took', () => {
    const luck = dice(41);
    const drive = driveThrough(luck, vehicle, {
      stops: 24,
      panics: false,
      trouble: { ...noTrouble, frictionGain: 0.85 },
    });
    const trace = writeDrive(luck, drive, vehicle, { ...drawTool(luck), ...rightTool, regenSign: 1 });
    // The pressures that are asked for make less torque than they say.
    const asked = Object.fromEntries(
      Object.entries(trace.columns).map(([id, column]) => [
        id,
        id.startsWith('wheel') ? column.map((p) => p / 0.85) : column,
      ]),
    );
    const told = makeTrace(trace.time, asked);
    const read = drivenIn(told);
    const stretches = brakedStretches(shuttle, read, clockedIn(told, read, 'vehicle_speed'));
    expect(stretches.length).toBeGreaterThanOrEqual(stretchesNeeded);
    const gain = frictionGain(stretches, ownSensors)!;
    expect(Math.abs(gain.value - 0.85)).toBeLessThan(expandedUncertainty(gain));
    expect(expandedUncertainty(gain)).toBeLessThan(0.12);
    expect(frictionGain(stretches.slice(0, 9), ownSensors)).toBeNull();
  });

  it('a panic that the motor does not notice for 0.4 s is answered that late, others at once', () => {
    const delaysOf = (panicLate: number) => {
      const luck = dice(77);
      const drive = driveThrough(luck, vehicle, { stops: 14, panics: true, trouble: { ...noTrouble, panicLate } });
      const trace = writeDrive(luck, drive, vehicle, { ...drawTool(luck), ...rightTool, pressureNoise: 2e3 });
      const travel = samplesOf(trace, 'pedal_travel')!;
      const events = panicEvents(travel, shuttle.panicRate);
      expect(events.length).toBe(drive.panics.length);
      return panicDelays(drivenIn(trace), events, travel, 0.01);
    };
    const [soon, late] = [0, 0.6].map(delaysOf);
    const longest = (panics: typeof soon) =>
      Math.max(...panics.map((each) => (each.kind === 'answered' ? each.delay.value : Infinity)));
    expect(longest(soon)).toBeLessThan(0.5);
    expect(longest(late)).toBeGreaterThan(longest(soon) + 0.2);
  });

  it('a panic that nobody brakes, that is cut short, or that the log leaves out is said to be that', () => {
    const trace = braked({ motor: 0.5 });
    const travel = samples([0, 20], [0, 0]);
    const kindsAt = (log: Trace, ...at: number[]) =>
      panicDelays(drivenIn(log), at, travel, 0.01).map(({ kind }) => kind);
    // Braking lasts from 2 to 18 s, half of it by the motor: it never lets go. At 19 s nobody brakes.
    expect(kindsAt(trace, 3, 18.5)).toEqual(['not-answered', 'not-braked']);
    const lost = trace.time.map((t, i) => (t > 5 && t < 6 ? Number.NaN : trace.columns.wheel_pressure_rr[i]));
    const gap = makeTrace(trace.time, { ...trace.columns, wheel_pressure_rr: lost });
    expect(kindsAt(gap, 4.5, 10)).toEqual(['not-recorded', 'not-answered']);
    expect(drivenIn(gap).leftOut).toBeCloseTo(1, 1);
    expect(drivenIn(trace).leftOut).toBe(0);
  });

  it('what the motor leaves out at a full battery is the torque that nobody filled in', () => {
    const trace = braked({ short: 120 });
    const drive = drivenIn(trace);
    const closure = closureOf(shuttle, drive, ownSensors, [])!;
    const charged = (share: number) => ({
      value: new Float64Array(drive.clock.count).fill(share),
      known: new Uint8Array(drive.clock.count).fill(1),
    });
    expect(unfilledTorque(shuttle, drive, closure, charged(0.95), ownSensors)!.value).toBeCloseTo(120, 6);
    expect(unfilledTorque(shuttle, drive, closure, charged(0.6), ownSensors)).toBeNull();
  });
});

it('closure that is next to nothing is known no better than its bias', () => {
  const { bias, rms } = closedIn(braked({}));
  expect(rms.value).toBeLessThan(1e-6);
  expect(expandedUncertainty(rms)).toBeGreaterThanOrEqual(0.9 * expandedUncertainty(bias));
});

describe('states and pressures of a drive', () => {
  it('a speed that falls away and comes back is bridged; hard braking is none', () => {
    const time = evenly(200, 0.05);
    const braking = time.map((t) => Math.max(0, 25 - 8 * Math.max(0, t - 4)));
    expect(speedDropouts(samples(time, braking))).toEqual([]);
    const lost = braking.map((v, i) => (i > 40 && i < 44 ? 0 : v));
    const dropouts = speedDropouts(samples(time, lost));
    expect(dropouts).toHaveLength(1);
    expect(dropouts[0].from).toBeCloseTo(2, 6);
    expect(dropouts[0].to).toBeCloseTo(2.2, 6);
    const mended = bridged(samples(time, lost), dropouts);
    expect(Math.min(...mended.value.slice(0, 60))).toBeGreaterThan(20);
  });

  it('a speed that leaps up and comes back is bridged where it leapt; one that wakes up late is only awake', () => {
    const time = evenly(200, 0.05);
    const braking = time.map((t) => Math.max(0, 25 - 2 * Math.max(0, t - 4)));
    const leapt = braking.map((v, i) => (i === 60 ? 3 * v : v));
    const [leap, ...others] = speedDropouts(samples(time, leapt));
    expect(others).toEqual([]);
    expect(leap.from).toBeCloseTo(2.95, 6);
    expect(leap.to).toBeCloseTo(3.05, 6);
    expect(Math.max(...bridged(samples(time, leapt), [leap]).value)).toBeLessThan(25.01);
    expect(
      speedDropouts(
        samples(
          time,
          braking.map((v, i) => (i < 30 ? 0 : v)),
        ),
      ),
    ).toEqual([]);
  });

  it('two switches disagree for as long as one of them is late, where both are recorded', () => {
    const time = evenly(300, 0.02);
    const one = samples(
      time,
      time.map((t) => (t >= 1 && t < 3 ? 1 : 0)),
    );
    const late = samples(
      time,
      time.map((t) => (t >= 1.24 && t < 3.06 ? 1 : 0)),
    );
    const found = longestDisagreement(one, late);
    expect(found.seconds).toBeCloseTo(0.24, 6);
    expect(found.at).toBeCloseTo(1, 6);
    expect(longestDisagreement(one, one).seconds).toBe(0);
    const stops = { time: late.time.slice(0, 55), value: late.value.slice(0, 55) };
    expect(longestDisagreement(one, stops).seconds).toBeLessThan(0.61);
    expect(timeOn(one)).toEqual({ on: expect.closeTo(2, 6), known: expect.closeTo(299 * 0.02, 6) });
  });

  it('the store is held against the highest wheel, and the masters against each other, as long as it lasts', () => {
    const time = evenly(500, 0.02);
    const of = (at: (t: number) => number) => ({ samples: samples(time, time.map(at)), instrument: undefined });
    const clock = { start: 0, step: 0.02, count: 500 };
    const braking = Uint8Array.from(time, (t) => (t > 2 && t < 8 ? 1 : 0));
    const columns = [of(() => 2e6), of((t) => (t > 5 && t < 6 ? 6e6 : 3e6))];
    const wheels = columns.map((each) => onClock(each.samples, clock, 'straight'));
    const noise = { requested: 0, regen: 0, wheels: [0, 0] };
    // A spike of one sample is no margin.
    const store = of((t) => (Math.abs(t - 4) < 0.01 ? 0 : 9e6));
    const margin = storeMargin(store, { clock, braking, wheels, noise }, new Map(), '2026-11-27')!;
    expect(margin.estimate.value / 1e6).toBeCloseTo(3, 6);
    expect(margin.at).toBeGreaterThan(5 - 1e-6);
    const apart = masterDifference(
      of(() => 5e6),
      of((t) => (t > 3 && t < 3.5 ? 4.7e6 : 5e6)),
      '2026-11-27',
    )!;
    expect(apart.estimate.value / 1e3).toBeCloseTo(300, 6);
    // What a vehicle's sensor reads wrong is the finding, not its uncertainty.
    expect(expandedUncertainty(apart.estimate)).toBeLessThan(50e3);
  });
});
