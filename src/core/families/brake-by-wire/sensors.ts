import type { Place } from '../../quantities/places';

/** Pressure sensors of a decoupled unit, in the order of the numbers that `sensor_at` says. */
export const sensorPlaces = ['master', 'store', 'fl', 'fr', 'rl', 'rr'] as const satisfies readonly Place[];

export type SensorPlace = (typeof sensorPlaces)[number];

/** The sensor that a number of `sensor_at` means; null for none of them. */
export function sensorAt(number: number): SensorPlace | null {
  return sensorPlaces[Math.round(number) - 1] ?? null;
}

/** The number that `sensor_at` says for a sensor. */
export function sensorNumber(place: SensorPlace): number {
  return sensorPlaces.indexOf(place) + 1;
}
