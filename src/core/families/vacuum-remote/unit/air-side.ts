import { exchangeAir, wallConductance } from '../../../physics/air-chamber';
import { airGasConstant, nozzleFlow } from '../../../physics/nozzle';
import type { Surroundings } from '../../../physics/plant';
import type { BenchControls } from '../../../physics/bench-controls';
import type { PlantCondition } from './faults';
import type { RemoteUnit } from './remote-unit';

const { abs, min } = Math;

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
/** Volumes of a sheet that gives none, from the power piston's size. */
const assumedStroke = 0.06;

/** First-order lag of the lever's master cylinder, s. */
export const leverLag = 0.04;

/** Chamber difference from which assist is on, Pa. */
export const assistOn = 500;

/** Numbers in an air side's snapshot. */
export const airStateSize = 8;

/** Volumes that a bench evacuates: the shell, its vacuum side when applied (m3; null where nobody measured), and what stands beside it. */
export interface AirVolumes {
  readonly shell: number | null;
  readonly applied: number | null;
  readonly reservoir: number;
  /** Valve areas over what a shell of this size usually has. */
  readonly valves: number;
}

/** Chambers of a remote unit with the bench that evacuates them, advanced in small steps. Pa absolute. */
export interface AirSide {
  /** Chamber difference D = control − supply, Pa. */
  difference(): number;
  /** Lets the bench vent the unit where the source is off and the line open; before everything else of a step. */
  vent(dt: number, controls: BenchControls): void;
  /** The control valve sees the input (Pa gauge) only once its friction is used up. */
  follow(input: number): void;
  /** Air through valves, leaks and hose, with the power piston moved to `stroke` (m). */
  move(dt: number, controls: BenchControls, stroke: number): void;
  supplyVacuum(): number;
  controlVacuum(): number;
  snapshot(): number[];
  restore(state: readonly number[]): void;
}

/** Friction of the control valve in a condition, Pa: never so much that it would stay open at rest. */
export function wornHysteresis(unit: RemoteUnit, { hysteresisFactor }: PlantCondition): number {
  return min(unit.hysteresis * hysteresisFactor, unit.valveOpening * 0.95);
}

/** Effective area by which air comes across to the vacuum side of a shell (m3), m2: a valve's leak goes with its seat, and that with the shell. */
export function acrossLeakOf(condition: PlantCondition, shell: number): number {
  return condition.diaphragmLeak + (condition.vacuumValveLeak * shell) / studiedShell;
}

/**
 * Tank, vacuum side and control side filled through orifices, and a control valve with friction (play). The unit's
 * chambers exchange heat with their walls; the tank is large and keeps its temperature.
 */
export function airSide(
  unit: RemoteUnit,
  around: Surroundings,
  condition: PlantCondition,
  volumes: AirVolumes,
): AirSide {
  const { ambient, temperature, benchVolume } = around;
  const heat = airGasConstant * temperature;
  const { reservoir } = volumes;
  const shell = volumes.shell ?? unit.powerArea * assumedStroke * 1.6;
  const applied = min(volumes.applied ?? shell * 0.45, shell * 0.9);
  const regulated = ambient - around.supply;
  const hysteresis = wornHysteresis(unit, condition);
  const breatherArea = atmosphereValvePerShell * shell * volumes.valves * condition.breather;
  const vacuumValveArea = vacuumValvePerShell * shell * volumes.valves;
  const acrossLeak = acrossLeakOf(condition, shell);

  const begin = around.startsFrom === 'evacuated' ? regulated : ambient;
  const supply = { pressure: begin, temperature };
  const control = { pressure: begin, temperature };
  const supplyWalls = wallConductance(reservoir + applied + benchVolume);
  const controlWalls = wallConductance(shell - applied);
  // Fields of one object: a number in a variable of a closure would be boxed anew in every step.
  const air = {
    tank: regulated,
    play: 0,
    stroke: 0,
    onTee: 0,
  };

  return {
    difference: () => control.pressure - supply.pressure,
    vent(dt, controls) {
      if (controls.source !== 0 || controls.isolated !== 0 || controls['unit-shut'] !== 0) return;
      for (const chamber of [supply, control]) chamber.pressure += ((ambient - chamber.pressure) * dt) / 0.3;
    },
    follow(input) {
      const pushed = input - condition.controlDrag;
      if (pushed - air.play > condition.controlStick) air.play = pushed;
      const released = input + hysteresis;
      if (air.play - released > condition.controlStick) air.play = released;
    },
    move(dt, controls, movedTo) {
      const difference = control.pressure - supply.pressure;
      const wanted = unit.controlRatio * (air.play - unit.valveOpening);
      const error = wanted - difference;
      const opening = min(1, abs(error) / valveWidth);
      const inlet = error > 0 ? breatherArea * opening : 0;
      const passage = error < 0 ? vacuumValveArea * opening : 0;
      const atmosphereArea = inlet + condition.atmosphereValveLeak;
      const intoControl = nozzleFlow(atmosphereArea, ambient, control.pressure, temperature);
      const intoReservoir =
        condition.reservoirLeak > 0 ? nozzleFlow(condition.reservoirLeak, ambient, supply.pressure, temperature) : 0;
      const acrossFrom = difference > 0 ? control.temperature : supply.temperature;
      const across = nozzleFlow(passage + acrossLeak, control.pressure, supply.pressure, acrossFrom);
      const open = controls.source > 0 && controls.isolated === 0 && controls['unit-shut'] === 0 ? 1 : 0;
      const toTankFrom = supply.pressure > air.tank ? supply.temperature : temperature;
      const toTank = nozzleFlow(hoseArea * condition.hose * open, supply.pressure, air.tank, toTankFrom);

      const swept = (unit.powerArea * (movedTo - air.stroke)) / dt;
      air.stroke = movedTo;
      const supplyVolume = reservoir + applied + benchVolume - min(unit.powerArea * air.stroke, 0.5 * applied);
      const controlVolume = shell - applied + unit.powerArea * air.stroke;
      const supplied = {
        mass: across + intoReservoir - toTank,
        heat: across * acrossFrom + intoReservoir * temperature - toTank * toTankFrom,
        growth: -swept,
      };
      const controlled = {
        mass: intoControl - across,
        heat: intoControl * temperature - across * acrossFrom,
        growth: swept,
      };
      exchangeAir(supply, dt, supplyVolume, supplied, supplyWalls, temperature);
      exchangeAir(control, dt, controlVolume, controlled, controlWalls, temperature);

      const pumping = air.tank > regulated ? pumpSpeed * (air.tank - pumpUltimate * ambient) : 0;
      air.tank += (dt * (heat * toTank - pumping)) / tankVolume;
      air.onTee = controls['unit-shut'];
    },
    supplyVacuum: () => ambient - (air.onTee > 0 ? air.tank : supply.pressure),
    controlVacuum: () => ambient - (air.onTee > 0 ? air.tank : control.pressure),
    snapshot: () => [
      air.tank,
      supply.pressure,
      supply.temperature,
      control.pressure,
      control.temperature,
      air.play,
      air.stroke,
      air.onTee,
    ],
    restore(state) {
      [air.tank, supply.pressure, supply.temperature, control.pressure, control.temperature] = state;
      [air.play, air.stroke, air.onTee] = state.slice(5);
    },
  };
}
