import type { VacuumInlineUnit } from './geometry';
import { masterPressure, outputAt, outputForce } from './quasi-static';

const { max, min } = Math;

/** One stroke from the reserve, source lost. */
export interface PredictedStroke {
  /** Vacuum at rest before the stroke, Pa. */
  readonly vacuum: number;
  /** Output pressure, Pa gauge. */
  readonly output: number;
  /** Piston travel, m. */
  readonly travel: number;
  /** Rear chamber when applied, Pa absolute. */
  readonly rear: number;
  /** At least halfway from the unassisted output to the first stroke's. */
  readonly assisted: boolean;
}

/** Air and surroundings of a reserve test. */
export interface ReserveConditions {
  /** Local atmosphere, Pa absolute. */
  readonly ambient: number;
  /** Vacuum before the first stroke, Pa. */
  readonly vacuum: number;
  /** Hoses and gauges that belong to the front chamber, m3. */
  readonly benchVolume: number;
  /** Rod force of every stroke, N. */
  readonly rodForce: number;
}

/** Travel (m) at an output pressure: the brakes take fluid in proportion, up to the stroke. */
export function travelAt(unit: VacuumInlineUnit, output: number): number {
  const reference = outputAt(unit, unit.reserveForce * unit.leverage, unit.ratedVacuum);
  return reference > 0 ? min(unit.stroke, (unit.appliedTravel * output) / reference) : unit.stroke;
}

/** Front chamber when the piston has moved: compressed, and let out by the check valve above the atmosphere. */
function frontPressure(unit: VacuumInlineUnit, rest: number, travel: number, conditions: ReserveConditions): number {
  const volume = unit.frontVolume + conditions.benchVolume;
  return min(conditions.ambient, (rest * volume) / (volume - unit.area * travel));
}

/**
 * Strokes 1 … `count` at one rod force with the source lost. At rest both chambers are at p_n; in stroke n
 * the piston works against its own trapped front gas, D_n = p_rear − p_front; after release
 * p_{n+1} = (p_front·(V_f − A·x) + p_rear·(V_r + A·x))/(V_f + V_r), the masses of both chambers together.
 * Output, travel and p_rear are solved together by bisection on the output force.
 */
export function predictReserve(
  unit: VacuumInlineUnit,
  conditions: ReserveConditions,
  count: number,
): readonly PredictedStroke[] {
  const { ambient, rodForce } = conditions;
  const frontVolume = unit.frontVolume + conditions.benchVolume;
  const unassisted = masterPressure(unit, max(0, rodForce - unit.springForce));
  const strokes: PredictedStroke[] = [];
  let rest = ambient - conditions.vacuum;
  for (let n = 0; n < count; n++) {
    const wanted = outputForce(unit, rodForce, Infinity);
    const travelOf = (force: number) => travelAt(unit, masterPressure(unit, force));
    const possible = (force: number) => {
      const difference = ambient - frontPressure(unit, rest, travelOf(force), conditions);
      const assist = unit.efficiency * unit.area * difference - unit.springForce;
      return max(0, min(wanted, rodForce + assist));
    };
    let low = 0;
    let high = possible(0);
    for (let i = 0; i < 60; i++) {
      const middle = (low + high) / 2;
      if (possible(middle) > middle) low = middle;
      else high = middle;
    }
    const force = (low + high) / 2;
    const travel = travelOf(force);
    const front = frontPressure(unit, rest, travel, conditions);
    const difference = (force - rodForce + unit.springForce) / (unit.efficiency * unit.area);
    const rear = min(ambient, front + max(0, difference));
    const output = masterPressure(unit, force);
    const first = strokes[0]?.output ?? output;
    strokes.push({
      vacuum: ambient - rest,
      output,
      travel,
      rear,
      assisted: first > unassisted && output >= (first + unassisted) / 2,
    });
    const swept = unit.area * travel;
    const mass = front * (frontVolume - swept) + rear * (unit.rearVolume + swept);
    rest = min(ambient, mass / (frontVolume + unit.rearVolume));
  }
  return strokes;
}

/** Strokes, counted from the first, that the prediction calls assisted. */
export function assistedCount(strokes: readonly { readonly assisted: boolean }[]): number {
  const lost = strokes.findIndex((stroke) => !stroke.assisted);
  return lost < 0 ? strokes.length : lost;
}
