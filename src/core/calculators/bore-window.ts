import { footForPressure, pressureFor, pressureOfFoot, type MasterCylinder, type VehicleBrakes } from './brake-force';
import type { StopRule } from './stop-rule';

const { PI, max, min, sqrt } = Math;

/** Bores that are drawn, m, and how many. */
const smallest = 15e-3;
const largest = 35e-3;
const drawn = 81;

/** What the brakes swallow in a full application, m3, and how far the pedal may go for it, m. */
export interface Displacement {
  readonly volume: number;
  readonly pedalTravelMost: number;
}

export interface BorePoint {
  /** m */
  readonly bore: number;
  /** Pedal force (N) that the rule's deceleration takes with the assist gone. */
  readonly pedalForce: number;
  /** Pedal travel (m) of a full application; null where the pedal does not move the fluid, or nobody knows how much there is. */
  readonly pedalTravel: number | null;
}

export interface BoreWindow {
  readonly points: readonly BorePoint[];
  readonly pedalForceMost: number;
  readonly pedalTravelMost: number | null;
  /** Bores (m) with which everything that is asked holds; null where none does. */
  readonly window: { readonly from: number; readonly to: number } | null;
  /** What ends it on either side; the range itself where nothing else does. */
  readonly endedBy: { readonly below: 'travel' | 'range'; readonly above: 'force' | 'range' };
}

const areaOf = (bore: number) => (PI * bore ** 2) / 4;
const boreOf = (area: number) => sqrt((4 * area) / PI);

/**
 * Master cylinder bores with which a vehicle stops within its rule with the assist gone (the larger the bore, the more force) and its pedal
 * still moves what the brakes swallow: travel = V·i_p/A (the smaller, the further), free play and elasticity left out. A decoupled unit's
 * pedal moves none of it: `displacement` null.
 */
export function boreWindow(
  vehicle: VehicleBrakes,
  master: MasterCylinder,
  rule: StopRule,
  displacement: Displacement | null,
): BoreWindow {
  const pressure = pressureFor(vehicle, rule.decelerationLeast);
  const points = Array.from({ length: drawn }, (_, at): BorePoint => {
    const bore = smallest + ((largest - smallest) * at) / (drawn - 1);
    const masterArea = areaOf(bore);
    return {
      bore,
      pedalForce: footForPressure({ ...master, masterArea }, pressure),
      pedalTravel: displacement && (displacement.volume * master.pedalRatio) / masterArea,
    };
  });
  // The force at the piston is the same whatever its area: the area at which it just makes the pressure.
  const pushing = pressureOfFoot({ ...master, masterArea: 1 }, rule.pedalForceMost);
  const byForce = boreOf(pushing / pressure);
  const byTravel = displacement ? boreOf((displacement.volume * master.pedalRatio) / displacement.pedalTravelMost) : 0;
  const [from, to] = [max(smallest, byTravel), min(largest, byForce)];
  return {
    points,
    pedalForceMost: rule.pedalForceMost,
    pedalTravelMost: displacement && displacement.pedalTravelMost,
    window: from <= to ? { from, to } : null,
    endedBy: { below: byTravel > smallest ? 'travel' : 'range', above: byForce < largest ? 'force' : 'range' },
  };
}
