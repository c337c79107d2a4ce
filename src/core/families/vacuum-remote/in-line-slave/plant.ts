import type { BenchControls } from '../../../physics/bench-controls';
import type { Plant, Surroundings } from '../../../physics/plant';
import { airSide, airStateSize, leverLag, assistOn } from '../unit/air-side';
import type { PlantCondition } from '../unit/faults';
import type { InLineUnit } from './geometry';
import { stopLamp } from '../unit/stop-lamp';

const { max, min } = Math;
/** First-order lag of the capped output line while pressure rises, s. */
const outputLag = 0.002;
/** Hydraulic compliance of the capped output line, m3/Pa (4 cm3 to 7 MPa). */
const outputCompliance = 4e-6 / 7e6;

const stateSize = airStateSize + 5;

/**
 * Dynamic model of a remote vacuum unit on its bench: the air side, and a slave piston without inertia.
 * Channels: input and output pressure (Pa gauge), supply and control vacuum (Pa), stop switch (0/1).
 */
export function vacuumRemotePlant(unit: InLineUnit, condition: PlantCondition, around: Surroundings): Plant {
  const air = airSide(unit, around, condition, {
    shell: unit.shellVolume,
    applied: unit.appliedVolume,
    reservoir: 0,
    valves: 1,
  });
  const springOffset = unit.f * condition.springFactor;
  const boostGain = (unit.efficiency * condition.efficiencyFactor * unit.powerArea) / unit.slaveArea;
  const backFriction = condition.powerFriction * boostGain;

  // Fields of one object: a number in a variable of a closure would be boxed anew in every step.
  const line = { input: 0, output: 0, bypassClosedAt: 0, switchOn: 0, frictionHold: 0 };

  function balance(difference: number): number {
    const through = condition.bypassBlocked ? unit.a * line.input : line.input;
    const boosted = unit.a * line.input + boostGain * difference - springOffset;
    if (boosted <= line.input) return through;
    return line.input + (boosted - line.input) * (1 - condition.checkSlip);
  }

  function moveHydraulics(dt: number, controls: BenchControls): void {
    const difference = air.difference();
    const shut = controls['input-shut'] > 0;
    if (shut) {
      const slip = condition.slaveBypass * (line.output - line.input);
      const fallsTogether = line.output - line.input < 1;
      line.input +=
        dt * (0.5 * slip - condition.inputLeak * line.input - (fallsTogether ? condition.outputLeak * line.input : 0));
      line.output +=
        dt * (-slip - condition.outputLeak * line.output - (fallsTogether ? condition.inputLeak * line.output : 0));
    } else {
      line.input += ((controls.lever - line.input) * dt) / leverLag;
      let target = balance(difference);
      // Power-side friction: the output stays until the balance has fallen by twice the friction.
      line.frictionHold = max(target, min(line.frictionHold, target + backFriction * difference));
      target = line.bypassClosedAt > 0 ? max(line.frictionHold, condition.residual) : line.frictionHold;
      const backLag =
        difference > assistOn ? max(condition.releaseLag, condition.assistReleaseLag) : condition.releaseLag;
      line.output += ((target - line.output) * dt) / (target < line.output ? backLag : outputLag);
    }
    if (line.output > line.input + 1 && line.bypassClosedAt === 0) line.bypassClosedAt = max(line.input, 1);
    if (line.output <= line.input + 1 && condition.residual === 0) line.bypassClosedAt = 0;
  }

  /** Travel of the power piston: what the capped line gave way since the bypass closed, m. */
  function stroke(): number {
    if (!(line.bypassClosedAt > 0 && line.output > line.input)) return 0;
    return max(0, (line.output - line.bypassClosedAt) * outputCompliance) / unit.slaveArea;
  }

  return {
    channels: ['input_pressure', 'output_pressure', 'supply_vacuum', 'control_vacuum', 'stop_switch'],
    largestStep: 0.001,
    advance(dt, controls) {
      air.vent(dt, controls);
      moveHydraulics(dt, controls);
      air.follow(line.input);
      air.move(dt, controls, stroke());
      line.switchOn = stopLamp(line.switchOn, line.input, condition.switchShift);
    },
    read(out) {
      out[0] = line.input;
      out[1] = line.output;
      out[2] = air.supplyVacuum();
      out[3] = air.controlVacuum();
      out[4] = line.switchOn;
    },
    snapshot: () => [...air.snapshot(), line.input, line.output, line.bypassClosedAt, line.switchOn, line.frictionHold],
    restore(state) {
      if (state.length !== stateSize) throw new Error(`plant state has ${state.length} numbers, needs ${stateSize}`);
      air.restore(state.slice(0, airStateSize));
      [line.input, line.output, line.bypassClosedAt, line.switchOn, line.frictionHold] = state.slice(airStateSize);
    },
  };
}
