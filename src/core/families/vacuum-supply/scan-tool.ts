/*
 * A stand-in scan tool. What a vehicle's own sensor tells comes over it seldom, in whole millibars, as gauge pressure:
 * a vacuum of 58.6 kPa reads "−586 mbar".
 */

/** s between two values. */
const updateEvery = 0.25;
/** Pa */
const step = 100;

/** A scan tool reading one vacuum sensor. */
export interface ScanTool {
  /** Passes `dt` s with the sensor at `vacuum` (Pa); returns the gauge pressure it shows, Pa, negative for a vacuum. */
  advance(dt: number, vacuum: number): number;
  snapshot(): number[];
  restore(state: readonly number[]): void;
}

/** A scan tool whose first value is `vacuum` (Pa). */
export function scanTool(vacuum: number): ScanTool {
  const shownAs = (value: number) => -Math.round(value / step) * step;
  let shown = shownAs(vacuum);
  let since = 0;
  return {
    advance(dt, now) {
      since += dt;
      if (since >= updateEvery) {
        since -= updateEvery;
        shown = shownAs(now);
      }
      return shown;
    },
    snapshot: () => [shown, since],
    restore(state) {
      [shown, since] = state;
    },
  };
}

/** Vacuum (Pa) of a gauge pressure (Pa) that a scan tool shows. */
export function vacuumShown(gauge: number): number {
  return gauge === 0 ? 0 : -gauge;
}
