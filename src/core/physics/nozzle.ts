const { sqrt, pow } = Math;

/** Gas constant of air, J/(kg·K), and ratio of specific heats. */
export const airGasConstant = 287.05;
const gamma = 1.4;
/** Below this ratio of the pressures the flow is choked. */
export const criticalRatio = (2 / (gamma + 1)) ** (gamma / (gamma - 1));
const chokedFactor = sqrt(gamma) * (2 / (gamma + 1)) ** ((gamma + 1) / (2 * (gamma - 1)));
const subsonicFactor = sqrt((2 * gamma) / (gamma - 1));
/** Below this relative difference the flow is taken as linear, so that its slope stays finite. */
const linearBelow = 2e-4;
const linearFlow = subsonicFactor * sqrt((1 - linearBelow) ** (2 / gamma) - (1 - linearBelow) ** ((gamma + 1) / gamma));

/**
 * Mass flow (kg/s, positive from `from` to `to`) through a sharp orifice of effective area C_d·A (m2)
 * between two absolute pressures (Pa), upstream gas at `temperature` (K): isentropic nozzle flow, choked
 * when p_down/p_up < 0.528. Source: ISO 6358 / Shapiro (1953), ch. 4.
 */
export function nozzleFlow(area: number, from: number, to: number, temperature: number): number {
  if (area <= 0 || from === to) return 0;
  const up = from > to ? from : to;
  const ratio = (from > to ? to : from) / up;
  const sign = from > to ? 1 : -1;
  let factor: number;
  if (ratio <= criticalRatio) factor = chokedFactor;
  else if (ratio > 1 - linearBelow) factor = (linearFlow * (1 - ratio)) / linearBelow;
  else {
    const root = pow(ratio, 1 / gamma);
    factor = subsonicFactor * sqrt(root * root - root * ratio);
  }
  return (sign * area * up * factor) / sqrt(airGasConstant * temperature);
}

const standardAtmosphere = 101_325;
const standardTemperature = 293.15;

/**
 * What a leak of effective area C_d·A (m2) lets in from the standard atmosphere at 20 °C into a deep vacuum (choked), as a
 * volume flow of that air, m3/s.
 */
export function chokedLeak(area: number): number {
  const density = standardAtmosphere / (airGasConstant * standardTemperature);
  return nozzleFlow(area, standardAtmosphere, 0, standardTemperature) / density;
}
