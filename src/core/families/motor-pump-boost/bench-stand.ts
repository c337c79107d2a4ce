import type { Stand } from '../../contract/plan';
import type { Plant, Surroundings } from '../../physics/plant';
import { chargingCircuit } from '../../toolboxes/store/model/charging-circuit';
import { followForce } from '../../physics/follow-force';
import type { MotorPumpCondition } from './faults';
import { motorLoad, outputAt, pushForce, type MotorPumpUnit } from './geometry';

const { exp, max, min } = Math;

/** First-order lags of the rod and of the output, s. */
const rodLag = 0.02;
const outputLag = 0.02;
/** A motor starts with a surge that dies away, s. */
const surge = 1.5;
const surgeLag = 0.12;
/** A battery on charge stands this far above the rated voltage. */
const batteryAbove = 1.05;

/** Dynamics of the unit where it is mounted. */
export function motorPumpPlant(unit: MotorPumpUnit, condition: MotorPumpCondition, around: Surroundings): Plant {
  const circuit = chargingCircuit(
    unit.store,
    condition,
    { ambient: around.ambient, environment: around.temperature },
    around.startsFrom === 'charged',
  );
  const rod = followForce(rodLag, unit.hysteresis);
  const full = unit.strokeForce;
  let output = 0;
  let applied = 0;
  let current = 0;
  let started = 0;
  const battery = unit.ratedVoltage * batteryAbove;

  return {
    channels: [
      'rod_force',
      'output_pressure',
      'accumulator_pressure',
      'pump_on',
      'lamp_red',
      'motor_current',
      'supply_voltage',
    ],
    largestStep: 0.02,
    advance(dt, controls) {
      rod.advance(dt, controls.lever);
      // A stroke takes its fluid as it is made, up to a full one; it goes back to the reservoir when it is let off.
      const stroke = min(1.2, rod.force() / full);
      const taken = stroke > applied ? (stroke - applied) * unit.store.fluidPerApplication : 0;
      applied = stroke;
      circuit.advance(dt, { live: controls.power > 0, bleed: controls.bleed, taken, elsewhere: 0 });
      const target = outputAt(unit, rod.felt(), max(0, circuit.pressure()));
      output += ((target - output) * dt) / outputLag;
      started = circuit.running() ? started + dt : 0;
      const load = motorLoad(unit, condition.current, circuit.pressure() / unit.store.cutOut);
      current = circuit.running() ? load * (1 + surge * exp(-started / surgeLag)) : 0;
    },
    read(out) {
      out[0] = rod.force();
      out[1] = output;
      out[2] = circuit.pressure();
      out[3] = circuit.running() ? 1 : 0;
      out[4] = circuit.lamp() ? 1 : 0;
      out[5] = current;
      out[6] = battery - current * condition.resistance;
    },
    snapshot: () => [output, applied, current, started, ...rod.snapshot(), ...circuit.snapshot()],
    restore(state) {
      let rest: number[];
      [output, applied, current, started, ...rest] = state;
      rod.restore(rest.slice(0, 2));
      circuit.restore(rest.slice(2));
    },
  };
}

/** The unit on the bench: its rod pushed, its motor supplied, a gauge and a bleed valve on its store. */
export const motorPumpBench = {
  lever: { channel: 'rod_force', maximum: (unit) => max(pushForce(unit), unit.strokeForce) * 1.1 },
  supply: { kind: 'pressure', channel: 'accumulator_pressure', at: (unit) => unit.store.cutOut },
} as const satisfies Stand<MotorPumpUnit>;
