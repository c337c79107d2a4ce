const { exp, log1p, max, pow } = Math;

/** Temperature that precharges are stated at, K. */
export const prechargeTemperature = 293.15;

/** Ratio of specific heats of nitrogen as an ideal two-atom gas. */
export const nitrogenGamma = 1.4;

/**
 * Fluid (m3) held by an accumulator of gas volume `volume` (m3) and precharge `precharge` (Pa absolute) at `pressure` (Pa
 * absolute) when the gas follows p·V^n = const from the precharge; nothing below it.
 */
export function fluidHeld(precharge: number, volume: number, pressure: number, exponent: number): number {
  return pressure <= precharge ? 0 : volume * (1 - pow(precharge / pressure, 1 / exponent));
}

/** Fluid (m3) given between two pressures (Pa absolute) at one exponent: closed form that the model is checked against. */
export function usableVolume(
  precharge: number,
  volume: number,
  between: { readonly high: number; readonly low: number },
  exponent: number,
): number {
  const { high, low } = between;
  return fluidHeld(precharge, volume, high, exponent) - fluidHeld(precharge, volume, low, exponent);
}

/**
 * A gauge precharge (Pa gauge) found at gas temperature `from` (K) as it would read at `to` (K): the local atmosphere
 * (Pa absolute) is added, the absolute pressure scaled, the atmosphere taken off again.
 */
export function restatePrecharge(gauge: number, from: number, to: number, ambient: number): number {
  return ((gauge + ambient) * to) / from - ambient;
}

/**
 * Gas temperature (K) along a pressure trace, from settled at `environment` (K):
 * dT/dt = (2/7)·(T/p)·dp/dt − (T − T_env)/(1.4·tau), p absolute. First law for an ideal two-atom gas that loses heat
 * with time constant tau at constant volume. Advanced exactly for the power law between samples, then relaxed.
 */
export function gasTemperatureAlong(
  time: ArrayLike<number>,
  pressure: ArrayLike<number>,
  timeConstant: number,
  environment: number,
): Float64Array {
  const temperature = new Float64Array(time.length);
  const exponent = (nitrogenGamma - 1) / nitrogenGamma;
  const tau = nitrogenGamma * timeConstant;
  let now = environment;
  for (let i = 0; i < time.length; i++) {
    if (i > 0) {
      const squeezed = now * pow(pressure[i] / pressure[i - 1], exponent);
      const share = exp(-(time[i] - time[i - 1]) / tau);
      now = environment + (squeezed - environment) * share;
    }
    temperature[i] = now;
  }
  return temperature;
}

/**
 * Transform in which an isothermal store emptied by a leak in proportion to its gauge pressure falls on a straight line:
 * dp/dt = −κ·p²·(p − A) integrates to F(p) = F(p_0) − κ·t with F = (ln(1 − A/p) + A/p)/A², p absolute, A the
 * atmosphere, κ the leak per pascal over the gas's amount p_0·V_0.
 */
export function leakDownCoordinate(pressure: number, ambient: number): number {
  const share = ambient / pressure;
  if (share < 0.02) return -(1 / 2 + share / 3 + (share * share) / 4) / (pressure * pressure);
  return (log1p(-share) + share) / (ambient * ambient);
}

/** A pressure that a logarithm can be taken of, Pa absolute. */
export const abovePerfectVacuum = (pressure: number) => max(pressure, 1);
