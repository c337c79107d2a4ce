import type { Stand } from '../../contract/plan';
import { followForce } from '../../physics/follow-force';
import type { Plant, Surroundings } from '../../physics/plant';
import { sagging } from '../../toolboxes/electrical/battery';
import { batteryAbove } from '../../toolboxes/electrical/supply-check-step';
import { masterPressure, servoForce } from '../../toolboxes/servo/servo-law';
import type { MotorBoostCondition } from './faults';
import { assistForce, pushForce, trackShare, travelAt, type MotorBoostUnit } from './geometry';

const { max, min } = Math;

export const rodLag = 0.02;
/** Current awake with nothing asked of it, A, and what the motor draws beyond its holding current while it accelerates, as a share of the rated. */
export const awakeCurrent = 0.6;
const surgeShare = 0.5;
/** It falls asleep after this share of what its sheet allows. */
const sleepsAfter = 0.6;
/** Place of the stroke at which track A is worn. */
const wornAt = 0.55;

/** Dynamics of the unit on its bench: battery, feed and ground, motor on the rod, sensor of two tracks. */
export function motorBoostPlant(unit: MotorBoostUnit, condition: MotorBoostCondition, around: Surroundings): Plant {
  const rod = followForce(rodLag, unit.hysteresis + condition.backlash);
  const battery = sagging(around.supply);
  const worn = wornAt * unit.stroke;
  const state = { assist: 0, output: 0, current: 0, travel: 0, dead: 0, sinceOff: unit.sleepAfter, key: 0, feed: 0 };

  /** What the motor may push with at the voltage that arrives, N; the spring taken off. */
  const available = (voltage: number) => condition.motor * (assistForce(unit, voltage) + unit.springForce);

  return {
    channels: [
      'rod_force',
      'rod_travel',
      'output_pressure',
      'battery_voltage',
      'supply_voltage',
      'ground_voltage',
      'motor_current',
      'sleep_current',
      'sensor_supply',
      'sensor_a',
      'sensor_b',
      'ignition_on',
    ],
    largestStep: 0.002,
    advance(dt, controls) {
      rod.advance(dt, controls.lever);
      state.key = controls.ignition > 0 ? 1 : 0;
      state.sinceOff = state.key > 0 ? 0 : state.sinceOff + dt;
      state.feed = controls.power > 0 && !condition.feedOpen ? 1 : 0;
      const awake = state.feed > 0 && state.key > 0 && !condition.ignitionOpen;
      const voltage =
        state.feed *
        max(
          0,
          battery.voltage(state.current) - state.current * (condition.feedResistance + condition.groundResistance),
        );
      battery.advance(dt, state.current);
      const felt = rod.felt();
      const most = awake ? available(voltage) : 0;
      // The law with what the motor has: below cut-in it stands, without it only the spring is in the way.
      const force = servoForce(unit, felt, most - unit.springForce);
      const wanted = awake && felt >= unit.cutInForce ? min(most, max(0, force - felt + unit.springForce)) : 0;
      state.assist += ((wanted - state.assist) * dt) / condition.lag;
      const pushed = awake && felt < unit.cutInForce ? 0 : max(0, min(force, felt + state.assist - unit.springForce));
      const full = masterPressure(unit, pushed);
      const falling = full < state.output;
      const target = falling ? max(full, min(state.output, condition.residual)) : full;
      state.output += ((target - state.output) * dt) / (falling ? condition.releaseLag : 0.01);
      const holding = state.assist / unit.motorForce;
      const surge = (surgeShare * max(0, wanted - state.assist)) / unit.motorForce;
      const asleep = state.sinceOff > sleepsAfter * unit.sleepAfter ? condition.asleep : awakeCurrent;
      const idle = state.key > 0 && !condition.ignitionOpen ? awakeCurrent : asleep;
      state.current = state.feed * (idle + unit.ratedCurrent * (holding + surge));
      const travel = travelAt(unit, state.output);
      // A wiper that passes the worn place loses its track for a moment.
      if (condition.dropout > 0 && (state.travel - worn) * (travel - worn) < 0) state.dead = condition.dropout;
      else state.dead = max(0, state.dead - dt);
      state.travel = travel;
    },
    read(out) {
      const { current } = state;
      const supplied = state.feed > 0 && state.key > 0 && !condition.ignitionOpen ? unit.sensor.supply : 0;
      const share = trackShare(unit.sensor, state.travel + condition.magnetShift);
      const risen = min(supplied, supplied * share + (condition.trackOffset * supplied) / unit.sensor.supply);
      out[0] = rod.force();
      out[1] = state.travel;
      out[2] = state.output;
      const open = battery.voltage(current);
      out[3] = open;
      out[4] = state.feed * max(0, open - current * (condition.feedResistance + condition.groundResistance));
      out[5] = current * condition.groundResistance;
      out[6] = current;
      // A meter for small currents, bridged while the unit is awake.
      out[7] = min(current, 2);
      out[8] = supplied;
      out[9] = state.dead > 0 ? 0 : risen;
      out[10] = supplied * (1 - share);
      out[11] = state.key;
    },
    snapshot: () => [...Object.values(state), ...rod.snapshot(), ...battery.snapshot()],
    restore(numbers) {
      const keys = Object.keys(state) as (keyof typeof state)[];
      keys.forEach((key, at) => (state[key] = numbers[at]));
      rod.restore(numbers.slice(keys.length, -1));
      battery.restore(numbers.slice(-1));
    },
  };
}

/** The unit on the bench: its rod pushed, a battery on charge behind its feed. */
export const motorBoostBench = {
  lever: { channel: 'rod_force', maximum: (unit) => pushForce(unit, unit.ratedVoltage) * 1.1 },
  supply: { kind: 'voltage', channel: 'supply_voltage', at: (unit) => unit.ratedVoltage * batteryAbove },
} as const satisfies Stand<MotorBoostUnit>;
