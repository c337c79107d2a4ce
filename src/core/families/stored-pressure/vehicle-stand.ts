import type { Plant, Surroundings } from '../../physics/plant';
import { followForce } from '../../physics/follow-force';
import { chargingCircuit } from '../../toolboxes/store/model/charging-circuit';
import type { Stand } from '../../contract/plan';
import type { StoredPressureCondition } from './faults';
import { brakePressure, pressForce, type StoredPressureUnit } from './geometry';

const { max, min } = Math;

const pedalLag = 0.02;
export const portLag = 0.03;
/** A bump lifts the wheel and lets it down again over this, s. */
export const bumpPeriod = 1.2;
/** Travel of the body on its springs at rest, and how far a bump pushes it, m. */
const atRest = 0.09;
const bumpHeight = 0.03;

/** Dynamics of the unit where it is mounted. */
export function storedPressurePlant(
  unit: StoredPressureUnit,
  condition: StoredPressureCondition,
  around: Surroundings,
): Plant {
  const surroundings = { ambient: around.ambient, environment: around.temperature };
  const charged = around.startsFrom === 'charged';
  // The levelling's leak is added where it is open, not counted in the circuit's own.
  const ownLeak = unit.second.internalLeak - unit.levellingLeak;
  const first = chargingCircuit(unit.first, condition.first, surroundings, charged);
  const second = chargingCircuit({ ...unit.second, internalLeak: ownLeak }, condition.second, surroundings, charged);
  const pedal = followForce(pedalLag, 0);
  const metering = {
    ...unit,
    meteringSlope: unit.meteringSlope * condition.slope,
    cutInForce: unit.cutInForce + condition.cutInShift,
  };
  let front = 0;
  let rear = 0;
  let engine = 0;
  let bumping = 0;

  /** Share of a full application that a port has taken since it stood at `was`. */
  const taken = (port: number, was: number) => max(0, port - was) / unit.regulatedMaximum;

  return {
    channels: [
      'pedal_force',
      'front_pressure',
      'rear_pressure',
      'accumulator_pressure',
      'accumulator_pressure_2',
      'pump_on',
      'pump_on_2',
      'lamp_red',
      'lamp_amber',
      'engine_on',
      'air_temperature',
      'ride_height',
    ],
    largestStep: 0.02,
    advance(dt, controls) {
      engine = controls.engine > 0 ? 1 : 0;
      pedal.advance(dt, controls.lever);
      bumping = controls.actuate > 0 ? bumping + dt : 0;
      const shaken = bumping > 0 ? condition.bump * max(0, Math.sin((2 * Math.PI * bumping) / bumpPeriod)) : 0;
      const asked = brakePressure(metering, pedal.force());
      const [frontWas, rearWas] = [front, rear];
      front += (max(shaken, min(asked, max(0, first.pressure()))) - front) * min(1, dt / portLag);
      rear += (max(shaken, min(asked * condition.balance, max(0, second.pressure()))) - rear) * min(1, dt / portLag);
      const live = controls.engine > 0;
      const levelling =
        controls['levelling-shut'] > 0
          ? 0
          : (unit.levellingLeak * condition.levelling * max(0, second.pressure())) / unit.second.cutOut;
      first.advance(dt, {
        live,
        bleed: controls.bleed,
        taken: taken(front, frontWas) * unit.first.fluidPerApplication,
        elsewhere: 0,
      });
      second.advance(dt, {
        live,
        bleed: controls.bleed,
        taken: taken(rear, rearWas) * unit.second.fluidPerApplication,
        elsewhere: levelling,
      });
    },
    read(out) {
      out[0] = pedal.force();
      out[1] = front;
      out[2] = rear;
      out[3] = first.pressure();
      out[4] = second.pressure();
      out[5] = first.running() ? 1 : 0;
      out[6] = second.running() ? 1 : 0;
      out[7] = first.lamp() ? 1 : 0;
      out[8] = second.lamp() ? 1 : 0;
      out[9] = engine;
      out[10] = around.temperature;
      out[11] = atRest - bumpHeight * (bumping > 0 ? Math.sin((2 * Math.PI * bumping) / bumpPeriod) : 0);
    },
    snapshot: () => [front, rear, engine, bumping, ...pedal.snapshot(), ...first.snapshot(), ...second.snapshot()],
    restore(state) {
      [front, rear, engine, bumping] = state;
      pedal.restore(state.slice(4, 6));
      first.restore(state.slice(6, 12));
      second.restore(state.slice(12, 18));
    },
  };
}

/** The system in its vehicle: engine-driven pumps, gauges on both spheres' blocks and both brake circuits. */
export const storedPressureVehicle = {
  lever: { channel: 'pedal_force', maximum: (unit) => pressForce(unit) * 1.3 },
  supply: { kind: 'pressure', channel: 'accumulator_pressure', at: (unit) => unit.first.cutOut },
} as const satisfies Stand<StoredPressureUnit>;
