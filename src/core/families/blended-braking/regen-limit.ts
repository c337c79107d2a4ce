import { random, type Estimate } from '../../instruments/uncertainty';
import { errorNoise } from './closure';
import { takenBy, type ClosureError } from './closure-error';
import type { Drive } from './drive';
import type { Clocked } from './drive-clock';
import type { BlendedUnit } from './geometry';
import { sensorParts, type SensorDoubt } from './sensor-doubt';

/**
 * Torque (N·m) that nobody gave while the battery would take no more: mean of the error while somebody brakes at a charge of the limit
 * or above; null where the log has no such braking.
 */
export function unfilledTorque(
  unit: BlendedUnit,
  drive: Drive,
  { error, delay }: ClosureError,
  charge: Clocked,
  doubt: SensorDoubt,
): Estimate | null {
  const full = (i: number) => error.known[i] === 1 && charge.known[i] === 1 && charge.value[i] >= unit.regenLimitCharge;
  let [sum, count] = [0, 0];
  for (let i = 0; i < error.value.length; i++)
    if (full(i)) {
      sum += error.value[i];
      count++;
    }
  if (count === 0) return null;
  const shift = Math.round(delay / drive.clock.step);
  return {
    value: sum / count,
    components: [
      random('noise', errorNoise(unit, drive) / Math.sqrt(count)),
      ...sensorParts(
        doubt,
        takenBy(unit, drive, (i) => (full(i) ? 1 / count : 0), shift),
      ),
    ],
  };
}
