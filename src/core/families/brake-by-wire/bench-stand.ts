import type { Stand } from '../../contract/plan';
import type { BenchControls } from '../../physics/bench-controls';
import { pressureOfFoot } from '../../calculators/brake-force';
import { followForce } from '../../physics/follow-force';
import type { Plant, Surroundings } from '../../physics/plant';
import { sagging } from '../../toolboxes/electrical/battery';
import { batteryAbove } from '../../toolboxes/electrical/supply-check-step';
import { chargingCircuit, type ChargingCircuit } from '../../toolboxes/store/model/charging-circuit';
import type { AccumulatorCondition, ByWireCondition } from './faults';
import {
  bankDrain,
  forceForShare,
  sensorRatio,
  simulatorTravel,
  targetAt,
  wheelCompliance,
  wheels,
  type AccumulatorUnit,
  type ByWireUnit,
  type PlungerUnit,
} from './geometry';
import { sensorAt } from './sensors';

const { abs, ceil, exp, max, min, round } = Math;

/** Lags of the foot, of the pedal behind it, and of a hand pump's gauge, s. */
const footLag = 0.01;
const pedalLag = 0.005;
const referenceLag = 0.1;
/** The rear axle is asked for this share of what the front is. */
export const rearShare = 0.75;
/** Current awake with nothing asked of it, A, and it falls asleep after this share of what its sheet allows. */
export const awakeCurrent = 1.2;
const sleepsAfter = 0.6;
/** What a motor draws to hold its hardest braking, as a share of the rated, and to change a pressure. */
const holdShare = 0.75;
const surgeShare = 0.25;
/** A pump draws this share of the rated current at no pressure, the rest with it. */
const pumpIdle = 0.35;
/** Time constants: without power the pedal reaches the wheels, a bank is charged, s; what it is charged through is no load of a meter. */
const fallbackLag = 0.04;
const bankCharge = 8;
/** Load that a bank is tried with draws this share of what would empty it in a minute. */
const loadSeconds = 60;
/** Pedal and wheels are moved in steps of this while anything moves, s; at rest in the bench's own. Commands are kept back so many of them. */
const quickStep = 0.002;
const largestStep = 0.02;
const kept = 40;
/** Below these nothing moves: N, m, Pa. */
const still = { force: 0.1, travel: 1e-6, pressure: 1e3 } as const;

/** Share of the way that a first-order lag goes in a step. */
const towards = (dt: number, lag: number) => 1 - exp(-dt / lag);

/** What makes the pressure. */
interface Source {
  readonly channels: readonly string[];
  /** Moves on with what the wheels took in `dt` and hold now (m3), and says what current it draws (A). */
  readonly advance: (
    dt: number,
    now: { awake: boolean; controls: BenchControls; taken: number; held: number },
  ) => number;
  /** Highest that it can give a wheel, Pa gauge. */
  readonly most: () => number;
  readonly read: (out: Float64Array, from: number) => void;
  readonly snapshot: () => number[];
  readonly restore: (numbers: readonly number[]) => void;
}

const commonChannels = [
  'pedal_force',
  'pedal_travel',
  'master_pressure',
  ...wheels.map((wheel) => `wheel_pressure_${wheel}`),
  ...wheels.map((wheel) => `target_pressure_${wheel}`),
  'battery_voltage',
  'supply_voltage',
  'ground_voltage',
  'motor_current',
  'sleep_current',
  'ignition_on',
  'sensor_supply',
  'sensor_a',
  'sensor_at',
  'reference_pressure',
  'backup_voltage',
  'backup_current',
] as const;

/** Resistance (ohm) of the load that a bank is tried with. */
export function bankLoad({ bank }: ByWireUnit): number {
  return bank ? loadSeconds / bank.capacitance : 1;
}

/** Dynamics of a decoupled unit on its bench: pedal and simulator, four wheels behind their valves, battery, bank and sensors. */
function byWirePlant(unit: ByWireUnit, condition: ByWireCondition, around: Surroundings, source: Source): Plant {
  const foot = followForce(footLag, 0);
  const battery = sagging(around.supply);
  const charged = around.startsFrom === 'charged';
  const commands = new Float64Array(kept);
  let position = 0;
  const pressures = new Float64Array(wheels.length);
  const targets = new Float64Array(wheels.length);
  const state = {
    travel: 0,
    crept: 0,
    sinceOff: unit.sleepAfter,
    key: 0,
    feed: 0,
    current: 0,
    bank: charged && unit.bank ? unit.bank.full : 0,
    load: 0,
    reference: 0,
    at: 0,
  };
  const keys = Object.keys(state) as (keyof typeof state)[];
  const bank = unit.bank;
  const drain = bankDrain(unit);

  const heldByWheels = () => pressures.reduce((sum, pressure) => sum + pressure * wheelCompliance, 0);

  function movePedal(dt: number, awake: boolean): void {
    const { simulator } = unit;
    const { stiffer } = condition;
    const stiff = {
      ...simulator,
      stiffness1: simulator.stiffness1 * stiffer,
      stiffness2: simulator.stiffness2 * stiffer,
    };
    const aim = awake
      ? simulatorTravel(stiff, foot.force()) + state.crept
      : (heldByWheels() / unit.masterArea) * unit.pedalRatio;
    state.travel += (aim - state.travel) * towards(dt, pedalLag);
    const held = awake && foot.force() > simulator.preload;
    // What has crept is gone once the pedal is let go.
    state.crept = held ? state.crept + condition.creep * dt : 0;
  }

  /** The wheels' pressures; returns the fluid that they took, m3. */
  function moveWheels(dt: number, awake: boolean): number {
    const asked = awake ? targetAt(unit, state.travel) : 0;
    commands[position] = asked;
    position = (position + 1) % kept;
    const back = min(kept - 1, max(1, round(condition.deadTime / dt)));
    const late = commands[(position - 1 - back + 2 * kept) % kept];
    let taken = 0;
    wheels.forEach((wheel, at) => {
      const share = at < 2 ? 1 : rearShare;
      const { gain, offset, slower } = condition.wheels[wheel];
      targets[at] = asked * share;
      const aim = awake ? min(source.most(), max(0, offset + gain * late * share)) : pressureOfFoot(unit, foot.force());
      const lag = awake ? unit.timeConstant * slower : fallbackLag;
      const before = pressures[at];
      const wanted = (aim - before) * towards(dt, lag);
      const most = condition.rateLimit * dt;
      pressures[at] = max(0, before + (awake ? max(-most, min(most, wanted)) : wanted));
      if (awake) taken += max(0, pressures[at] - before) * wheelCompliance;
    });
    return taken;
  }

  function moveBank(dt: number, controls: BenchControls): void {
    if (!bank) return;
    const resistance = condition.bankResistance;
    const capacitance = bank.capacitance * condition.capacitance;
    state.load = controls['bank-load'] > 0 ? state.bank / (bankLoad(unit) + resistance) : 0;
    const charging = state.feed * state.key * (1 - (controls['bank-load'] > 0 ? 1 : 0));
    state.bank += charging > 0 ? ((bank.full - state.bank) * dt) / bankCharge : (-state.bank * dt) / drain;
    state.bank = max(0, state.bank - (state.load / capacitance) * dt);
  }

  return {
    channels: [...commonChannels, ...source.channels],
    largestStep,
    advance(dt, controls) {
      state.key = controls.ignition > 0 ? 1 : 0;
      state.feed = controls.power > 0 ? 1 : 0;
      state.sinceOff = state.key > 0 ? 0 : state.sinceOff + dt;
      const awake = state.key > 0 && state.feed > 0;
      const resting =
        controls.lever <= 0 &&
        foot.force() < still.force &&
        state.travel < still.travel &&
        pressures.every((pressure) => pressure < still.pressure);
      const pieces = resting ? 1 : ceil(dt / quickStep - 1e-9);
      let taken = 0;
      for (let piece = 0; piece < pieces; piece++) {
        foot.advance(dt / pieces, controls.lever);
        movePedal(dt / pieces, awake);
        taken += moveWheels(dt / pieces, awake);
      }
      const drawn = source.advance(dt, { awake, controls, taken, held: heldByWheels() });
      const asleep = state.sinceOff > sleepsAfter * unit.sleepAfter ? condition.asleep : awakeCurrent;
      state.current = state.feed * ((awake ? awakeCurrent : asleep) + (awake ? drawn : 0));
      battery.advance(dt, state.current);
      moveBank(dt, controls);
      state.at = controls['sensor-at'];
      state.reference += (controls['hand-pump'] - state.reference) * towards(dt, referenceLag);
    },
    read(out) {
      const { current } = state;
      const open = battery.voltage(current);
      const supplied = state.feed > 0 && state.key > 0 ? unit.sensor.supply : 0;
      const sensor = sensorAt(state.at);
      const off = sensor ? condition.sensors[sensor] : { offset: 0, gain: 1 };
      const span = unit.sensor.full - unit.sensor.offset;
      const slope = sensorRatio(unit.sensor, state.reference) - unit.sensor.offset;
      out[0] = foot.force();
      out[1] = state.travel;
      out[2] = pressureOfFoot(unit, foot.force());
      for (let at = 0; at < 4; at++) {
        out[3 + at] = pressures[at];
        out[7 + at] = targets[at];
      }
      out[11] = open;
      out[12] = state.feed * max(0, open - current * (condition.feedResistance + condition.groundResistance));
      out[13] = current * condition.groundResistance;
      out[14] = current;
      // A meter for small currents, bridged while the unit is awake.
      out[15] = min(current, 2);
      out[16] = state.key;
      out[17] = supplied;
      out[18] = supplied * min(1, unit.sensor.offset + off.offset * span + off.gain * slope);
      out[19] = state.at;
      out[20] = state.reference;
      out[21] = max(0, state.bank - state.load * condition.bankResistance);
      out[22] = state.load;
      source.read(out, commonChannels.length);
    },
    snapshot: () => [
      ...keys.map((key) => state[key]),
      position,
      ...commands,
      ...pressures,
      ...targets,
      ...foot.snapshot(),
      ...battery.snapshot(),
      ...source.snapshot(),
    ],
    restore(numbers) {
      let at = 0;
      const take = (count: number) => numbers.slice(at, (at += count));
      const own = take(keys.length);
      keys.forEach((key, k) => (state[key] = own[k]));
      [position] = take(1);
      commands.set(take(kept));
      pressures.set(take(wheels.length));
      targets.set(take(wheels.length));
      foot.restore(take(2));
      battery.restore(take(1));
      source.restore(numbers.slice(at));
    },
  };
}

/** A plunger that a motor drives: it stands where the wheels' fluid has it, and creeps past a leaking seal while it holds. */
function plungerSource(unit: PlungerUnit, condition: ByWireCondition): Source {
  const state = { volume: 0, crept: 0, speed: 0 };
  const full = unit.working * wheelCompliance * (2 + 2 * rearShare);
  const travel = () => state.volume / unit.plungerArea + state.crept;
  return {
    channels: ['plunger_travel', 'motor_speed'],
    advance(dt, { awake, taken, held, controls }) {
      const before = travel();
      state.volume = awake ? held : 0;
      const holding = state.volume / full;
      if (!awake || controls.lever < unit.simulator.preload) state.crept = 0;
      else if (holding > 0.05) state.crept += condition.plungerCreep * dt;
      const rising = taken / dt / unit.plungerArea;
      // A spindle of 5 mm to the turn.
      state.speed = abs(travel() - before) / dt / 5e-3;
      return unit.ratedCurrent * (holdShare * min(1, holding) + surgeShare * min(1, rising / 0.2));
    },
    // At the end of its stroke it gives no more.
    most: () => (travel() >= unit.plungerStroke ? 0 : Infinity),
    read(out, from) {
      out[from] = min(unit.plungerStroke, travel());
      out[from + 1] = state.speed;
    },
    snapshot: () => [state.volume, state.crept, state.speed],
    restore: ([volume, crept, speed]) => void Object.assign(state, { volume, crept, speed }),
  };
}

/** A pump with its store behind inlet and outlet valves: a wheel gets no more than the store has. */
function storeSource(unit: AccumulatorUnit, circuit: ChargingCircuit): Source {
  return {
    channels: ['accumulator_pressure', 'pump_on', 'lamp_red'],
    advance(dt, { awake, controls, taken }) {
      circuit.advance(dt, { live: awake, bleed: controls.bleed, taken, elsewhere: 0 });
      const share = circuit.pressure() / unit.store.cutOut;
      return circuit.running() ? unit.ratedCurrent * 0.95 * (pumpIdle + (1 - pumpIdle) * share) : 0;
    },
    most: () => max(0, circuit.pressure()),
    read(out, from) {
      out[from] = circuit.pressure();
      out[from + 1] = circuit.running() ? 1 : 0;
      out[from + 2] = circuit.lamp() ? 1 : 0;
    },
    snapshot: circuit.snapshot,
    restore: circuit.restore,
  };
}

export function plungerPlant(unit: PlungerUnit, condition: ByWireCondition, around: Surroundings): Plant {
  return byWirePlant(unit, condition, around, plungerSource(unit, condition));
}

export function accumulatorPlant(unit: AccumulatorUnit, condition: AccumulatorCondition, around: Surroundings): Plant {
  const circuit = chargingCircuit(
    unit.store,
    condition.circuit,
    { ambient: around.ambient, environment: around.temperature },
    around.startsFrom === 'charged',
  );
  return byWirePlant(unit, condition, around, storeSource(unit, circuit));
}

/** The unit on the bench: its pedal pressed, a battery on charge behind its feed. */
export const byWireBench = {
  lever: { channel: 'pedal_force', maximum: (unit) => max(unit.fallbackForce, forceForShare(unit, 1)) * 1.2 },
  supply: { kind: 'voltage', channel: 'supply_voltage', at: (unit) => unit.ratedVoltage * batteryAbove },
} as const satisfies Stand<ByWireUnit>;
