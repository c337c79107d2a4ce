import type { Plant, Surroundings } from '../../physics/plant';
import { followForce } from '../../physics/follow-force';
import { chargingCircuit } from '../../toolboxes/store/model/charging-circuit';
import type { Stand } from '../../contract/plan';
import type { PedalValveCondition } from './faults';
import { brakePressure, type PedalValveUnit } from './geometry';

const { max, min } = Math;

const pedalLag = 0.015;
/** The rear spool is moved by the front one and gives a little less. */
export const rearShare = 0.985;
/** The hand pump at the parking port raises its pressure by this, Pa/s; a parking brake's valve leaks it away in the same time. */
const parkingRise = 150e3;

/** Dynamics of the unit where it is mounted. */
export function pedalValvePlant(unit: PedalValveUnit, condition: PedalValveCondition, around: Surroundings): Plant {
  const surroundings = { ambient: around.ambient, environment: around.temperature };
  const charged = around.startsFrom === 'charged';
  const front = chargingCircuit(unit.front, condition.front, surroundings, charged);
  const rear = chargingCircuit(unit.rear, condition.rear, surroundings, charged);
  const pedal = followForce(pedalLag, unit.hysteresis * condition.hysteresis);
  const sound = {
    ...unit,
    modulation: unit.modulation * condition.modulation,
    cutIn: unit.cutIn + condition.cutInShift,
    regulatedMaximum: unit.regulatedMaximum * condition.maximum,
  };
  let frontPort = 0;
  let rearPort = 0;
  let frontTaken = 0;
  let rearTaken = 0;
  let parking = 0;

  /** A brake port on its way to what the spool asks for; returns the fluid that it took from its store. */
  const follow = (port: number, wanted: number, lag: number, dt: number) => {
    const rising = wanted > port;
    const floor = rising ? 0 : min(port, condition.residual);
    return port + (max(wanted, floor) - port) * min(1, dt / (rising ? lag : condition.releaseLag));
  };

  return {
    channels: [
      'pedal_angle',
      'front_pressure',
      'rear_pressure',
      'accumulator_pressure',
      'accumulator_pressure_2',
      'pump_on',
      'pump_on_2',
      'lamp_red',
      'flow',
      'parking_pressure',
      'parking_brake',
    ],
    largestStep: 0.01,
    advance(dt, controls) {
      pedal.advance(dt, controls.lever);
      const asked = brakePressure(sound, pedal.felt());
      const before = [frontPort, rearPort];
      frontPort = follow(frontPort, min(asked, max(0, front.pressure())), condition.frontLag, dt);
      rearPort = follow(rearPort, min(asked * rearShare, max(0, rear.pressure())), condition.rearLag, dt);
      frontTaken = (max(0, frontPort - before[0]) / unit.regulatedMaximum) * unit.front.fluidPerApplication;
      rearTaken = (max(0, rearPort - before[1]) / unit.regulatedMaximum) * unit.rear.fluidPerApplication;
      const live = controls.engine > 0;
      front.advance(dt, { live, bleed: controls.bleed, taken: frontTaken, elsewhere: 0 });
      rear.advance(dt, { live, bleed: controls.bleed, taken: rearTaken, elsewhere: 0 });
      parking = controls.actuate > 0 ? parking + parkingRise * dt : max(0, parking - 4 * parkingRise * dt);
    },
    read(out) {
      out[0] = pedal.force();
      out[1] = frontPort;
      out[2] = rearPort;
      out[3] = front.pressure();
      out[4] = rear.pressure();
      out[5] = front.running() ? 1 : 0;
      out[6] = rear.running() ? 1 : 0;
      out[7] = front.lamp() ? 1 : 0;
      // Past both spools to the tank, with the store's pressure.
      out[8] = (unit.neutralLeak * condition.neutralLeak * max(0, front.pressure())) / unit.front.cutOut;
      out[9] = parking;
      out[10] = parking < unit.parkingRelease ? 1 : 0;
    },
    snapshot: () => [frontPort, rearPort, parking, ...pedal.snapshot(), ...front.snapshot(), ...rear.snapshot()],
    restore(state) {
      [frontPort, rearPort, parking] = state;
      pedal.restore(state.slice(3, 5));
      front.restore(state.slice(5, 11));
      rear.restore(state.slice(11, 17));
    },
  };
}

/** The valve on its machine or bench: pedal with a protractor, gauges on both ports and both stores. */
export const pedalValveBench = {
  lever: { channel: 'pedal_angle', maximum: (unit) => unit.travel },
  supply: { kind: 'pressure', channel: 'accumulator_pressure', at: (unit) => unit.front.cutOut },
} as const satisfies Stand<PedalValveUnit>;
