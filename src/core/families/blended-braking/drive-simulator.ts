import { labelledSeed, randomSource, type RandomSource } from '../../physics/random';
import { makeTrace, type Trace } from '../../traces/trace';
import { torquePerPascal, wheelChannels } from './drive';
import type { BlendedCondition } from './faults';
import type { BlendedUnit } from './geometry';

const { exp, max, min, round } = Math;

/** Steps of the simulation, and rows of its log, s. */
const dt = 5e-3;
const rowSeconds = 0.02;

/** Lag of the motor and of the friction brakes, s; the motor's largest torque (N·m at the wheels) and power (W). */
const motorLag = 0.03;
const frictionLag = 0.045;
const motorTorque = 1200;
const motorPower = 45e3;
/** From so much below its limit on a charge begins to keep the motor from giving, as a share. */
const chargeTaper = 0.04;

/** Rolling and air, as a deceleration, m/s2; how briskly a driver speeds up, m/s2. */
const drag = 0.1;
const pulling = 2.5;

/** Pedal of a stop: travel to each m/s2 that is asked for, m; rate of an ordinary foot, and of a stamp over the panic threshold, m/s. */
const travelPerDeceleration = 0.012;
const ordinaryRate = 0.07;
const stampShare = 2;

/** Store, Pa gauge: full, and what an application takes of it at 1 MPa at the wheels; it is filled at this rate, Pa/s. */
const storeFull = 17e6;
const takenPerPascal = 0.6;
const refill = 0.4e6;

/** Noise of the log, one sigma: N·m, Pa, m/s, m. */
const ordinaryNoise = { torque: 4, pressure: 8e3, speed: 0.02, travel: 0.1e-3 };
/** What the vehicle's sensors are off by, one sigma: share and Pa of a pressure, of the master cylinder's, share of the motor's torque. */
const ordinarySensors = { gain: 0.007, zero: 35e3, masterGain: 0.004, masterZero: 20e3, regen: 0.014 };
/** So little noise that it moves no figure. */
const hardly = 1 / 50;
/** A stop switch closes at this travel, m. */
const switchTravel = 2e-3;

/** One stop of a drive. */
interface Stop {
  readonly from: number;
  readonly to: number;
  readonly deceleration: number;
  readonly panic: boolean;
  /** Share, when it begins. */
  readonly charge: number;
}

function planStops(count: number, random: RandomSource): readonly Stop[] {
  const between = (low: number, high: number) => low + (high - low) * random.uniform();
  return Array.from({ length: count }, (_, at): Stop => {
    const panic = at % 6 === 4;
    return {
      from: between(9, 22),
      to: at % 3 === 2 ? between(4.5, 6) : 0,
      deceleration: panic ? between(5, 6.5) : between(0.9, 2.4),
      panic,
      // The last third of a drive comes down from the pass, the battery full.
      charge: at < (2 * count) / 3 ? between(0.45, 0.75) : between(0.94, 0.99),
    };
  });
}

export interface DriveSetting {
  readonly seed: number;
  readonly stops: number;
  /** Whether the log has the noise and the errors of ordinary sensors; it has when left out. */
  readonly sensors?: 'ordinary' | 'right';
}

/** Everything of a drive that its log tells, at one instant. */
interface Instant {
  speed: number;
  requested: number;
  regen: number;
  friction: number;
  travel: number;
  charge: number;
  store: number;
}

/** What the motor may give: torque, power, charge and the handover, N·m. */
function motorMay(unit: BlendedUnit, speed: number, charge: number): number {
  const { handoverHigh, handoverLow, regenLimitCharge } = unit;
  const taper = min(1, max(0, (speed - handoverLow) / (handoverHigh - handoverLow)));
  const taken = min(1, max(0, (regenLimitCharge - charge) / chargeTaper));
  return min(motorTorque, (motorPower * unit.vehicle.tyreRadius) / max(speed, 1)) * taper * taken;
}

/**
 * A log of a drive as the stand-in's scan tool writes it: stops from several speeds, some of them panics, the last of them with a full
 * battery; the motor limited by its torque, power, the charge and the handover, the friction brakes following what is left by one lag.
 * Columns have rates of their own: what is not asked for in a row is missing there. Deterministic.
 */
export function simulateDrive(
  unit: BlendedUnit,
  condition: BlendedCondition,
  { seed, stops, sensors = 'ordinary' }: DriveSetting,
): Trace {
  const random = randomSource(labelledSeed(seed, 'drive'));
  const log = driveLog(unit, condition, randomSource(labelledSeed(seed, 'log')), sensors);
  const now: Instant = { speed: 0, requested: 0, regen: 0, friction: 0, travel: 0, charge: 0.6, store: storeFull };
  const { mass, tyreRadius } = unit.vehicle;
  const late: number[] = [];
  let applied = 0;
  const step = (requested: number, travel: number, panicSince: number | null) => {
    const may = motorMay(unit, now.speed, now.charge);
    const full = motorMay(unit, now.speed, 0);
    const cut = panicSince !== null && panicSince >= condition.panicLate;
    const asked = cut ? 0 : min(requested, may);
    now.regen += (asked - now.regen) * (1 - exp(-dt / motorLag));
    const missing = condition.unfilled * max(0, min(requested, full) - min(requested, may));
    // What the motor lets go of in the handover reaches the friction brakes late.
    late.push(requested - now.regen);
    const back = round(condition.handoverLate / dt);
    const inHandover = now.speed < unit.handoverHigh && requested > 0;
    const wanted =
      inHandover && late.length > back
        ? min(requested - now.regen, late[late.length - 1 - back])
        : requested - now.regen;
    now.friction += (max(0, wanted - missing) - now.friction) * (1 - exp(-dt / frictionLag));
    const pressure = now.friction / (2 * (unit.vehicle.frontTorque + unit.vehicle.rearTorque));
    now.store += refill * dt - max(0, pressure - applied) * takenPerPascal * condition.storeDrop;
    now.store = min(storeFull, max(pressure, now.store));
    applied = pressure;
    Object.assign(now, { requested, travel });
    const force = (now.regen + now.friction * condition.frictionGain) / tyreRadius;
    now.speed = max(0, now.speed - (force / mass + (now.speed > 0 ? drag : 0)) * dt);
    log.take(now);
  };
  for (const stop of planStops(stops, random)) {
    now.charge = stop.charge;
    while (now.speed < stop.from) {
      now.speed += pulling * dt;
      step(0, 0, null);
    }
    for (let rest = 0; rest < 1.5; rest += dt) {
      now.speed = stop.from;
      step(0, 0, null);
    }
    const full = stop.deceleration * mass * tyreRadius;
    const reach = stop.deceleration * travelPerDeceleration;
    const rate = stop.panic ? stampShare * unit.panicRate : ordinaryRate;
    let since = 0;
    for (; now.speed > stop.to && since < 40; since += dt) {
      const share = min(1, (since * rate) / reach);
      step(full * share, reach * share, stop.panic ? since : null);
    }
    for (let held = 0; held < 0.8 && stop.to === 0; held += dt) step(full, reach, stop.panic ? since : null);
    for (let off = 0; off < 0.4; off += dt) step(full * (1 - off / 0.4), reach * (1 - off / 0.4), null);
    late.length = 0;
  }
  return log.trace();
}

/** Rows that a column is asked for in: every so many of them. */
const asked = { vehicle_speed: 2, battery_charge: 50, lamp_red: 10, lamp_amber: 10, accumulator_pressure: 2 } as const;

/** Writes what a drive shows into rows. */
function driveLog(unit: BlendedUnit, condition: BlendedCondition, random: RandomSource, sensors: 'ordinary' | 'right') {
  const [noisy, off] = sensors === 'ordinary' ? [1, 1] : [hardly, 0];
  const drawn = (standard: number) => off * standard * random.normal();
  const gauge = (gain: number, zero: number) => ({ gain: 1 + drawn(gain), zero: drawn(zero) });
  const wheels = wheelChannels.map(() => gauge(ordinarySensors.gain, ordinarySensors.zero));
  const store = gauge(ordinarySensors.gain, ordinarySensors.zero);
  const masters = [1, 2].map(() => gauge(ordinarySensors.masterGain, ordinarySensors.masterZero));
  const regenGain = 1 + drawn(ordinarySensors.regen);
  const noise = Object.fromEntries(
    Object.entries(ordinaryNoise).map(([id, standard]) => [id, noisy * standard]),
  ) as typeof ordinaryNoise;
  const seenOn = ({ gain, zero }: ReturnType<typeof gauge>, pressure: number) =>
    gain * pressure + zero + noise.pressure * random.normal();
  const columns: Record<string, number[]> = {};
  const time: number[] = [];
  const every = round(rowSeconds / dt);
  const perPascal = torquePerPascal(unit);
  const allWheels = perPascal.reduce((sum, each) => sum + each, 0);
  const lateRows = round(condition.switchLate / rowSeconds);
  const pressed: number[] = [];
  let [ticks, lostUntil] = [0, -1];
  const put = (channel: string, value: number) => {
    const rows = asked[channel as keyof typeof asked] ?? 1;
    (columns[channel] ??= []).push(time.length % rows === 0 ? value : Number.NaN);
  };
  return {
    take(now: Instant): void {
      if (ticks++ % every !== 0) return;
      const pressure = now.friction / allWheels;
      const moving = now.speed > 5;
      if (moving && random.uniform() < (condition.speedLost * rowSeconds) / 60) lostUntil = time.length + 15;
      pressed.push(now.travel > switchTravel ? 1 : 0);
      put('requested_torque', now.requested);
      put('regen_torque', now.regen * regenGain + noise.torque * random.normal());
      wheelChannels.forEach((channel, at) => put(channel, seenOn(wheels[at], pressure)));
      put('vehicle_speed', time.length < lostUntil ? 0 : max(0, now.speed + noise.speed * random.normal()));
      put('pedal_travel', now.travel + noise.travel * random.normal());
      put('battery_charge', now.charge);
      const master = now.travel * 80e6;
      put('master_pressure', seenOn(masters[0], master));
      put('master_pressure_2', seenOn(masters[1], master * (1 + condition.masterGain)));
      put('accumulator_pressure', seenOn(store, now.store));
      put('stop_switch', pressed[pressed.length - 1]);
      put('stop_switch_2', pressed[max(0, pressed.length - 1 - lateRows)]);
      put('lamp_red', now.store < pressure + unit.storeMarginLeast ? 1 : 0);
      put('lamp_amber', condition.speedLost > 0 || condition.masterGain > 0 ? 1 : 0);
      time.push(time.length * rowSeconds);
    },
    trace: (): Trace =>
      makeTrace(
        Float64Array.from(time),
        Object.fromEntries(Object.entries(columns).map(([id, values]) => [id, Float64Array.from(values)])),
      ),
  };
}
