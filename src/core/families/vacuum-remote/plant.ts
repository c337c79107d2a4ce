import type { BenchControls } from '../guide-phase';
import type { Plant, PlantConditions } from '../../rig/plant';
import { airSide, airStateSize } from './air-side';
import { withFaults } from '../common/model-fault';
import { soundCondition, vacuumRemoteFaults } from './faults';
import type { InLineUnit } from './geometry';
import { stopLamp } from './stop-lamp';

const { max, min } = Math;

/** First-order lag of the lever's master cylinder, s. */
export const leverLag = 0.04;
/** First-order lag of the capped output line while pressure rises, s. */
const outputLag = 0.002;
/** Chamber difference from which assist is on, Pa. */
export const assistOn = 500;
/** Hydraulic compliance of the capped output line, m3/Pa (4 cm3 to 7 MPa). */
const outputCompliance = 4e-6 / 7e6;

const stateSize = airStateSize + 5;

/**
 * Dynamic model of a remote vacuum unit on its bench: the air side, and a slave piston without inertia.
 * Channels: input and output pressure (Pa gauge), supply and control vacuum (Pa), stop switch (0/1).
 */
export function vacuumRemotePlant(unit: InLineUnit, conditions: PlantConditions): Plant {
  const condition = withFaults(soundCondition(), vacuumRemoteFaults, conditions.faults, undefined);
  const air = airSide(unit, conditions, condition, {
    shell: unit.shellVolume,
    applied: unit.appliedVolume,
    reservoir: 0,
    valves: 1,
  });
  const springOffset = unit.f * condition.springFactor;
  const boostGain = (unit.efficiency * condition.efficiencyFactor * unit.powerArea) / unit.slaveArea;
  const backFriction = condition.powerFriction * boostGain;

  let input = 0;
  let output = 0;
  let bypassClosedAt = 0;
  let switchOn = 0;
  let frictionHold = 0;

  function balance(difference: number): number {
    const through = condition.bypassBlocked ? unit.a * input : input;
    const boosted = unit.a * input + boostGain * difference - springOffset;
    if (boosted <= input) return through;
    return input + (boosted - input) * (1 - condition.checkSlip);
  }

  function moveHydraulics(dt: number, controls: BenchControls): void {
    const difference = air.difference();
    const shut = controls['input-shut'] > 0;
    if (shut) {
      const slip = condition.slaveBypass * (output - input);
      const fallsTogether = output - input < 1;
      input += dt * (0.5 * slip - condition.inputLeak * input - (fallsTogether ? condition.outputLeak * input : 0));
      output += dt * (-slip - condition.outputLeak * output - (fallsTogether ? condition.inputLeak * output : 0));
    } else {
      input += ((controls.lever - input) * dt) / leverLag;
      let target = balance(difference);
      // Power-side friction: the output stays until the balance has fallen by twice the friction.
      frictionHold = max(target, min(frictionHold, target + backFriction * difference));
      target = bypassClosedAt > 0 ? max(frictionHold, condition.residual) : frictionHold;
      const backLag =
        difference > assistOn ? max(condition.releaseLag, condition.assistReleaseLag) : condition.releaseLag;
      output += ((target - output) * dt) / (target < output ? backLag : outputLag);
    }
    if (output > input + 1 && bypassClosedAt === 0) bypassClosedAt = max(input, 1);
    if (output <= input + 1 && condition.residual === 0) bypassClosedAt = 0;
  }

  /** Travel of the power piston: what the capped line gave way since the bypass closed, m. */
  function stroke(): number {
    if (!(bypassClosedAt > 0 && output > input)) return 0;
    return max(0, (output - bypassClosedAt) * outputCompliance) / unit.slaveArea;
  }

  return {
    channels: ['input_pressure', 'output_pressure', 'supply_vacuum', 'control_vacuum', 'stop_switch'],
    largestStep: 0.001,
    advance(dt, controls) {
      air.vent(dt, controls);
      moveHydraulics(dt, controls);
      air.follow(input);
      air.move(dt, controls, stroke());
      switchOn = stopLamp(switchOn, input, condition.switchShift);
    },
    read(out) {
      out[0] = input;
      out[1] = output;
      out[2] = air.supplyVacuum();
      out[3] = air.controlVacuum();
      out[4] = switchOn;
    },
    snapshot: () => [...air.snapshot(), input, output, bypassClosedAt, switchOn, frictionHold],
    restore(state) {
      if (state.length !== stateSize) throw new Error(`plant state has ${state.length} numbers, needs ${stateSize}`);
      air.restore(state.slice(0, airStateSize));
      [input, output, bypassClosedAt, switchOn, frictionHold] = state.slice(airStateSize);
    },
  };
}
