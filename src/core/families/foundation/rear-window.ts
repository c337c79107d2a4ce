import { rearPressure } from '../../calculators/brake-force';
import type { FoundationUnit } from './geometry';

const { max } = Math;

/** Where a sound valve of the sheet lets the rear lie at a pressure of the front, Pa gauge: split and slope anywhere within their tolerances. */
export function rearWindow(
  { vehicle, splitTolerance, slopeTolerance }: FoundationUnit,
  front: number,
): readonly [number, number] {
  const valve = vehicle.proportioning;
  const at = (way: -1 | 1) =>
    rearPressure(
      valve
        ? {
            ...vehicle,
            proportioning: {
              split: valve.split * (1 + way * splitTolerance),
              slope: valve.slope + way * slopeTolerance,
            },
          }
        : vehicle,
      front,
    );
  return [at(-1), at(1)];
}

/** Front over rear of a sound vehicle at a pressure of the front, Pa gauge. */
export const soundAxleRatio = ({ vehicle }: FoundationUnit, front: number): number =>
  front / max(1, rearPressure(vehicle, front));

/** Where that may lie with a valve within its tolerances. */
export function axleRatioWindow(unit: FoundationUnit, front: number): readonly [number, number] {
  const [low, high] = rearWindow(unit, front);
  return [front / max(1, high), front / max(1, low)];
}
