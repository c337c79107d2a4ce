import type { BenchControls } from '../guide-phase';
import { airGasConstant, nozzleFlow } from '../../rig/nozzle';
import type { Plant, PlantConditions } from '../../rig/plant';
import { conditionWith, type PlantCondition } from './faults';
import type { VacuumRemoteUnit } from './geometry';

const { abs, max, min } = Math;

/** Effective orifice areas per shell volume (makers size valves to the shell), m2/m3; and of the hose, m2. */
const atmosphereValvePerShell = 22e-6 / 3.4e-3;
const vacuumValvePerShell = 25e-6 / 3.4e-3;
const hoseArea = 60e-6;
/** Shell that the valve leaks of the fault list are stated for, m3. */
const studiedShell = 3.4e-3;
/** Chamber error at which a control passage stands wide open, Pa. */
const valveWidth = 600;
const tankVolume = 0.03;
/** Bench pump: speed m3/s and ultimate pressure as a fraction of the atmosphere. */
const pumpSpeed = 0.008;
const pumpUltimate = 0.1;
/** First-order lag of the lever's master cylinder, s. */
const leverLag = 0.04;
/** First-order lag of the capped output line while pressure rises, s. */
const outputLag = 0.002;
/** Chamber difference from which assist is on, Pa. */
const assistOn = 500;
/** Hydraulic compliance of the capped output line, m3/Pa (4 cm3 to 7 MPa). */
const outputCompliance = 4e-6 / 7e6;
/** Volumes of a sheet that gives none, from the power piston's size. */
const assumedStroke = 0.06;
/** Stop-lamp switch of a sound unit: closes and opens at, Pa. */
const switchClosesAt = 410_000;
const switchOpensAt = 310_000;

const stateSize = 11;

/**
 * Dynamic model of a remote vacuum unit on its bench: tank, vacuum side and control side filled through
 * orifices, a control valve with friction (play), a slave piston without inertia. Isothermal chambers.
 * Channels: input and output pressure (Pa gauge), supply and control vacuum (Pa), stop switch (0/1).
 */
export function vacuumRemotePlant(unit: VacuumRemoteUnit, conditions: PlantConditions): Plant {
  const condition: PlantCondition = conditionWith(conditions.faults);
  const { ambient, temperature, benchVolume } = conditions;
  const heat = airGasConstant * temperature;
  const shell = unit.shellVolume ?? unit.powerArea * assumedStroke * 1.6;
  const applied = min(unit.appliedVolume ?? shell * 0.45, shell * 0.9);
  const regulated = ambient - conditions.supplyVacuum;
  const springOffset = unit.f * condition.springFactor;
  const boostGain = (unit.efficiency * condition.efficiencyFactor * unit.powerArea) / unit.slaveArea;
  const backFriction = condition.powerFriction * boostGain;
  const hysteresis = min(unit.hysteresis * condition.hysteresisFactor, unit.valveOpening * 0.95);
  const breatherArea = atmosphereValvePerShell * shell * condition.breather;
  const vacuumValveArea = vacuumValvePerShell * shell;

  let tank = 0;
  let supply = 0;
  let control = 0;
  let input = 0;
  let output = 0;
  let play = 0;
  let stroke = 0;
  let bypassClosedAt = 0;
  let switchOn = 0;
  let frictionHold = 0;
  let onTee = 0;

  function begin(): void {
    const evacuated = conditions.startsFrom === 'evacuated';
    tank = regulated;
    supply = evacuated ? regulated : ambient;
    control = evacuated ? regulated : ambient;
  }
  begin();

  /** Follows the control valve's friction: the valve sees the input only once play is used up. */
  function followPlay(): void {
    const pushed = input - condition.controlDrag;
    if (pushed - play > condition.controlStick) play = pushed;
    const released = input + hysteresis;
    if (play - released > condition.controlStick) play = released;
  }

  function balance(difference: number): number {
    const through = condition.bypassBlocked ? unit.a * input : input;
    const boosted = unit.a * input + boostGain * difference - springOffset;
    if (boosted <= input) return through;
    return input + (boosted - input) * (1 - condition.checkSlip);
  }

  function moveHydraulics(dt: number, controls: BenchControls): void {
    const difference = control - supply;
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

  function moveAir(dt: number, controls: BenchControls): void {
    const difference = control - supply;
    const wanted = unit.controlRatio * (play - unit.valveOpening);
    const error = wanted - difference;
    const opening = min(1, abs(error) / valveWidth);
    const inlet = error > 0 ? breatherArea * opening : 0;
    const passage = error < 0 ? vacuumValveArea * opening : 0;
    const atmosphereArea = inlet + condition.atmosphereValveLeak;
    const intoControl = nozzleFlow(atmosphereArea, ambient, control, temperature);
    // A valve's leak goes with the size of its seat, and that with the shell.
    const leaks = condition.diaphragmLeak + (condition.vacuumValveLeak * shell) / studiedShell;
    const across = nozzleFlow(passage + leaks, control, supply, temperature);
    const open = controls.source > 0 && controls.isolated === 0 && controls['unit-shut'] === 0 ? 1 : 0;
    const toTank = nozzleFlow(hoseArea * condition.hose * open, supply, tank, temperature);

    const newStroke = max(0, (output - bypassClosedAt) * outputCompliance) / unit.slaveArea;
    const movedTo = bypassClosedAt > 0 && output > input ? newStroke : 0;
    const swept = (unit.powerArea * (movedTo - stroke)) / dt;
    stroke = movedTo;
    const supplyVolume = applied + benchVolume - min(unit.powerArea * stroke, 0.5 * applied);
    const controlVolume = shell - applied + unit.powerArea * stroke;
    supply += (dt * (heat * (across - toTank) + supply * swept)) / supplyVolume;
    control += (dt * (heat * (intoControl - across) - control * swept)) / controlVolume;

    const pumping = tank > regulated ? pumpSpeed * (tank - pumpUltimate * ambient) : 0;
    tank += (dt * (heat * toTank - pumping)) / tankVolume;
  }

  return {
    channels: ['input_pressure', 'output_pressure', 'supply_vacuum', 'control_vacuum', 'stop_switch'],
    largestStep: 0.001,
    advance(dt, controls) {
      if (controls.source === 0 && controls.isolated === 0 && controls['unit-shut'] === 0) {
        // Source off and line open: the bench vents the unit.
        supply += ((ambient - supply) * dt) / 0.3;
        control += ((ambient - control) * dt) / 0.3;
      }
      moveHydraulics(dt, controls);
      followPlay();
      moveAir(dt, controls);
      onTee = controls['unit-shut'];
      const closes = switchClosesAt + condition.switchShift;
      if (input > closes) switchOn = 1;
      else if (input < min(closes - 1, switchOpensAt + condition.switchShift)) switchOn = 0;
    },
    read(out) {
      out[0] = input;
      out[1] = output;
      out[2] = ambient - (onTee > 0 ? tank : supply);
      out[3] = ambient - (onTee > 0 ? tank : control);
      out[4] = switchOn;
    },
    snapshot: () => [tank, supply, control, input, output, play, stroke, bypassClosedAt, switchOn, frictionHold, onTee],
    restore(state) {
      if (state.length !== stateSize) throw new Error(`plant state has ${state.length} numbers, needs ${stateSize}`);
      [tank, supply, control, input, output, play, stroke, bypassClosedAt, switchOn, frictionHold, onTee] = state;
    },
  };
}
