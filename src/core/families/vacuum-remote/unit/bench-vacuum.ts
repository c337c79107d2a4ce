import type { Ambient } from '../../../quantities/standard-atmosphere';
import type { RemoteUnit } from './remote-unit';

/** A bench pump reaches about this share of the local atmosphere. */
const reachable = 0.86;

/** Vacuum (Pa) the bench is set to: the unit's rated vacuum, or what a pump can reach in today's air. */
export function benchVacuum(unit: RemoteUnit, ambient: Ambient): number {
  return Math.min(unit.ratedVacuum, reachable * ambient.pressure);
}
