import type { Plant, Surroundings } from '../../../physics/plant';
import { airSide, airStateSize, assistOn, leverLag } from '../unit/air-side';
import type { PlantCondition } from '../unit/faults';
import { stopLamp } from '../unit/stop-lamp';
import type { ServoUnit } from './servo';
import { fullForce } from './servo';

const { max, min } = Math;

/** First-order lag of rod, lever and load cell while the pull rises, s. */
const rodLag = 0.0015;
/** A control unit of its own has room for larger valves than one that sits in a shell. */
const controlUnitValves = 2.5;
/** Travel of the power piston at full pull against the bench's spring, m. */
const fullTravel = 0.03;

const stateSize = airStateSize + 4;

/**
 * Dynamic model of a servo cylinder on its bench: the air side with its reservoir, a control unit that the lever's line
 * ends in, and a power piston that pulls a sprung load cell by its rod.
 * Channels: input pressure (Pa gauge), rod force (N), supply and control vacuum (Pa), stop switch (0/1).
 */
export function servoCylinderPlant(unit: ServoUnit, condition: PlantCondition, around: Surroundings): Plant {
  const air = airSide(unit, around, condition, {
    ...unit.cylinder,
    reservoir: unit.reservoir,
    valves: controlUnitValves,
  });
  const gain = unit.efficiency * condition.efficiencyFactor * unit.powerArea;
  const spring = unit.springForce * condition.springFactor;
  const backFriction = condition.powerFriction * gain;
  const full = max(1, fullForce(unit, unit.ratedVacuum));
  const stays = condition.residualShare * full;

  // Fields of one object: a number in a variable of a closure would be boxed anew in every step.
  const pull = { input: 0, force: 0, frictionHold: 0, switchOn: 0, begun: false };

  return {
    channels: ['input_pressure', 'rod_force', 'supply_vacuum', 'control_vacuum', 'stop_switch'],
    largestStep: 0.001,
    advance(dt, controls) {
      air.vent(dt, controls);
      // The line ends in the control unit: whatever leaks from there or past its piston is lost to the input.
      if (controls['input-shut'] > 0) pull.input -= dt * (condition.inputLeak + condition.outputLeak) * pull.input;
      else pull.input += ((controls.lever - pull.input) * dt) / leverLag;
      air.follow(pull.input);
      const difference = air.difference();
      const balance = max(0, gain * difference - spring);
      // Power-side friction: the pull stays until the balance has fallen by twice the friction.
      pull.frictionHold = max(balance, min(pull.frictionHold, balance + backFriction * difference));
      if (pull.force > stays) pull.begun = true;
      const target = pull.begun ? max(pull.frictionHold, stays) : pull.frictionHold;
      const backLag =
        difference > assistOn ? max(condition.releaseLag, condition.assistReleaseLag) : condition.releaseLag;
      pull.force += ((target - pull.force) * dt) / (target < pull.force ? max(backLag, rodLag) : rodLag);
      air.move(dt, controls, (fullTravel * pull.force) / full);
      pull.switchOn = stopLamp(pull.switchOn, pull.input, condition.switchShift);
    },
    read(out) {
      out[0] = pull.input;
      out[1] = pull.force;
      out[2] = air.supplyVacuum();
      out[3] = air.controlVacuum();
      out[4] = pull.switchOn;
    },
    // A rod that has pulled once is one that holds what friction and a weak spring leave.
    snapshot: () => [
      ...air.snapshot(),
      pull.input,
      pull.force,
      pull.frictionHold,
      pull.switchOn + (pull.begun ? 2 : 0),
    ],
    restore(state) {
      if (state.length !== stateSize) throw new Error(`plant state has ${state.length} numbers, needs ${stateSize}`);
      air.restore(state.slice(0, airStateSize));
      let flags = 0;
      [pull.input, pull.force, pull.frictionHold, flags] = state.slice(airStateSize);
      pull.begun = flags >= 2;
      pull.switchOn = flags % 2;
    },
  };
}
