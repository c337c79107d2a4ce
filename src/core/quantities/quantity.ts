/**
 * Branded SI numbers. A pressure carries its reference in its type, because mixing absolute,
 * gauge and vacuum readings is the classic blunder of the trade.
 */
declare const dimension: unique symbol;

export type Quantity<Dimension extends string> = number & { readonly [dimension]: Dimension };

/** Pa above perfect vacuum. */
export type AbsolutePressure = Quantity<'absolute-pressure'>;
/** Pa above the local atmosphere. */
export type GaugePressure = Quantity<'gauge-pressure'>;
/** Pa below the local atmosphere, a positive number. */
export type VacuumPressure = Quantity<'vacuum'>;
/** K */
export type Temperature = Quantity<'temperature'>;
/** m3 */
export type Volume = Quantity<'volume'>;
/** m2 */
export type Area = Quantity<'area'>;
/** N */
export type Force = Quantity<'force'>;

/** Asserts the dimension of a number that has just been converted to SI. */
export function quantity<Q extends number>(value: number): Q {
  return value as Q;
}

/** Vacuum (Pa below `ambient`) of an absolute pressure (Pa). */
export function vacuumFromAbsolute(absolute: AbsolutePressure, ambient: AbsolutePressure): VacuumPressure {
  return quantity<VacuumPressure>(ambient - absolute);
}

/** Absolute pressure (Pa) of a vacuum (Pa below `ambient`). */
export function absoluteFromVacuum(vacuum: VacuumPressure, ambient: AbsolutePressure): AbsolutePressure {
  return quantity<AbsolutePressure>(ambient - vacuum);
}

/** Absolute pressure (Pa) of a gauge pressure (Pa above `ambient`). */
export function absoluteFromGauge(gauge: GaugePressure, ambient: AbsolutePressure): AbsolutePressure {
  return quantity<AbsolutePressure>(gauge + ambient);
}

/** Vacuum (Pa, positive) of a negative gauge reading such as −0.7 bar. */
export function vacuumFromGauge(gauge: GaugePressure): VacuumPressure {
  return quantity<VacuumPressure>(-gauge);
}
