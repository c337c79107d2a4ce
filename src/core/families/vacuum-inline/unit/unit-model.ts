import { exchangeAir, wallConductance, type AirChamber } from '../../../physics/air-chamber';
import { nozzleFlow } from '../../../physics/nozzle';
import type { InlineCondition } from './faults';
import type { VacuumInlineUnit } from './geometry';
import { assistForce } from './quasi-static';
import { travelAt } from './reserve-prediction';

const { abs, max, min } = Math;

/** Effective areas of the valve's passages per shell volume, m2/m3, and of the check valve, m2. */
const inletPerShell = 6.5e-3;
const passagePerShell = 7.5e-3;
const checkValveArea = 30e-6;
/** Chamber error at which a passage of the valve stands wide open where both chambers are alike, Pa. */
const valveWidth = 600;
/** First-order lag of the output while it rises, s. */
const riseLag = 0.002;
/** A piston at home is within this, m. */
const atHome = 1e-6;

/** What the unit breathes and is pushed by, at one instant. Pa absolute, N. */
export interface UnitSurroundings {
  readonly ambient: number;
  readonly temperature: number;
  /** Pressure at the end of the hose, upstream of the check valve. */
  readonly hose: number;
  readonly rodForce: number;
}

/** Dynamic state of a unit, its master cylinder and the brakes behind it. */
export interface UnitState {
  readonly front: AirChamber;
  readonly rear: AirChamber;
  /** Rod force as the valve feels it, friction taken up, N. */
  felt: number;
  /** Pa gauge. */
  output: number;
  /** m */
  travel: number;
  /** Output lost past the master cylinder's seal in this application, Pa. */
  crept: number;
}

/** The unit in motion: chambers, control valve with friction, piston without inertia, check valve. */
export interface UnitModel {
  readonly state: UnitState;
  /** Advances by `dt` s and returns the mass that left through the check valve into the hose, kg (negative: came in). */
  advance(dt: number, around: UnitSurroundings): number;
}

/**
 * Dynamic model of a pedal-operated vacuum unit: front and rear chamber filled through orifices (isentropic
 * nozzle flow; chambers exchange heat with their walls), a control valve that shuts the vacuum passage and opens the air inlet as the
 * servo law asks, rod friction as play, the brakes' fluid as travel in proportion to pressure.
 */
export function unitModel(
  unit: VacuumInlineUnit,
  condition: InlineCondition,
  start: {
    /** Pa absolute, K, m3. */
    readonly front: number;
    readonly rear: number;
    readonly temperature: number;
    readonly benchVolume: number;
  },
): UnitModel {
  const servoRatio = unit.servoRatio * condition.servoFactor;
  const jumpIn = condition.jumpIn ? unit.jumpInForce : 0;
  const spring = unit.springForce * condition.springFactor;
  const gain = unit.efficiency * unit.area;
  const inletArea = inletPerShell * unit.shellVolume * condition.inlet;
  const passageArea = passagePerShell * unit.shellVolume;
  // A small rear chamber answers faster: the valve's error band grows with it, so that it settles.
  const width = valveWidth * max(1, unit.shellVolume / (2 * unit.rearVolume));
  const checkArea = checkValveArea * condition.checkArea;
  const frontWalls = wallConductance(unit.frontVolume + start.benchVolume);
  const rearWalls = wallConductance(unit.rearVolume);
  const state: UnitState = {
    front: { pressure: start.front, temperature: start.temperature },
    rear: { pressure: start.rear, temperature: start.temperature },
    felt: 0,
    output: 0,
    travel: 0,
    crept: 0,
  };
  const { front, rear } = state;

  function follow(rodForce: number): void {
    if (rodForce > state.felt) state.felt = rodForce;
    state.felt = min(state.felt, rodForce + unit.hysteresis);
  }

  /** Chamber difference that the valve asks for, Pa; null while it is at rest. */
  function wantedDifference(): number | null {
    if (state.felt < unit.cutInForce) return null;
    const wanted = jumpIn + servoRatio * (state.felt - unit.cutInForce);
    return max(0, wanted - state.felt + spring) / gain;
  }

  function moveOutput(dt: number, ambient: number): void {
    const assist = gain * (rear.pressure - front.pressure) - spring;
    const powered = assistForce(unit, ambient - front.pressure) > 0;
    const force = powered && state.felt < unit.cutInForce ? 0 : max(0, state.felt + assist);
    const full = max(0, force * unit.masterEfficiency - unit.masterSpring) / unit.masterArea;
    const wasApplied = state.output > 50e3;
    state.crept = wasApplied ? state.crept + dt * condition.masterBypass * state.output : 0;
    const target = max(0, full - state.crept);
    const falling = target < state.output;
    const floor = wasApplied && condition.residual > 0 ? condition.residual : 0;
    const lag = falling ? max(riseLag, condition.releaseLag) : riseLag;
    state.output += ((max(target, falling ? min(floor, state.output) : 0) - state.output) * dt) / lag;
  }

  return {
    state,
    advance(dt, { ambient, temperature, hose, rodForce }) {
      follow(rodForce);
      const wanted = wantedDifference();
      const difference = rear.pressure - front.pressure;
      const error = wanted === null ? -Infinity : wanted - difference;
      const opening = min(1, abs(error) / width);
      const inlet = (error > 0 ? inletArea * opening : 0) + condition.atmosphereValveLeak;
      const passage = error < 0 ? passageArea * opening : 0;
      const leaks = condition.diaphragmLeak + (wanted === null ? 0 : condition.vacuumValveLeak);
      const intoRear = nozzleFlow(inlet, ambient, rear.pressure, temperature);
      const acrossFrom = difference > 0 ? rear.temperature : front.temperature;
      const across = nozzleFlow(passage + leaks, rear.pressure, front.pressure, acrossFrom);
      const leaving = front.pressure > hose;
      const outFrom = leaving ? front.temperature : temperature;
      const out = nozzleFlow(leaving ? checkArea : condition.checkLeak, front.pressure, hose, outFrom);

      moveOutput(dt, ambient);
      // What crept past the seal moves the piston on, though the pressure falls.
      const travel = min(unit.stroke, travelAt(unit, state.output + state.crept));
      const swept = (unit.area * (travel - state.travel)) / dt;
      state.travel = travel < atHome ? 0 : travel;
      const frontVolume = unit.frontVolume + start.benchVolume - unit.area * state.travel;
      const rearVolume = unit.rearVolume + unit.area * state.travel;
      const intoFront = { mass: across - out, heat: across * acrossFrom - out * outFrom, growth: -swept };
      const behind = { mass: intoRear - across, heat: intoRear * temperature - across * acrossFrom, growth: swept };
      exchangeAir(front, dt, frontVolume, intoFront, frontWalls, temperature);
      exchangeAir(rear, dt, rearVolume, behind, rearWalls, temperature);
      return out * dt;
    },
  };
}

/** State as plain numbers, for a snapshot. */
export function stateNumbers({ front, rear, felt, output, travel, crept }: UnitState): number[] {
  return [front.pressure, front.temperature, rear.pressure, rear.temperature, felt, output, travel, crept];
}

/** Puts a snapshot's numbers back. */
export function restoreState(state: UnitState, numbers: readonly number[]): void {
  const { front, rear } = state;
  [front.pressure, front.temperature, rear.pressure, rear.temperature] = numbers;
  [state.felt, state.output, state.travel, state.crept] = numbers.slice(4);
}
