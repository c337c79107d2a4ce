import { nitrogenGamma, prechargeTemperature } from './gas-law';

const { abs, exp, max, pow, sqrt } = Math;

/** A gas accumulator, SI. */
export interface GasAccumulatorSpec {
  /** Precharge at 20 °C, Pa absolute. */
  readonly precharge: number;
  /** Gas volume when empty of fluid, m3. */
  readonly volume: number;
  /** Heat is lost to the shell with this time constant at constant volume, s; 0 isothermal, Infinity adiabatic. */
  readonly timeConstant: number;
  /** Of the lines and gauges beside it, m3/Pa. */
  readonly lineCompliance: number;
}

/** Where an accumulator stands. */
export interface GasAccumulatorState {
  /** Fluid in accumulator and lines above what fills them at the atmosphere, m3. */
  fluid: number;
  /** Gas temperature, K. */
  temperature: number;
  /** Fluid pressure, Pa absolute. */
  pressure: number;
  /** Of the fluid, what is in the accumulator, m3. */
  held: number;
}

/** Amount of gas times the gas constant, J/K: p·V/T of the precharge. */
export function gasAmount(spec: GasAccumulatorSpec): number {
  return (spec.precharge * spec.volume) / prechargeTemperature;
}

/**
 * Pressure (Pa absolute) of accumulator and lines together for a fluid volume and N·T (J): C·(p − A) + V_0 − N·T/p = V
 * solved for p. Where the accumulator would hold less than none, the lines alone give the pressure.
 */
function pressureOf(spec: GasAccumulatorSpec, fluid: number, gas: number, ambient: number): number {
  const { lineCompliance: compliance, volume } = spec;
  const b = volume - compliance * ambient - fluid;
  // Both roots of C·p² + b·p − N·T = 0 have one sign each; this form does not cancel whichever sign b has.
  const root = sqrt(b * b + 4 * compliance * gas);
  const pressure = b > 0 ? (2 * gas) / (b + root) : (root - b) / (2 * compliance);
  return gas < volume * pressure ? pressure : ambient + fluid / compliance;
}

/** Fluid held (m3) at a pressure (Pa absolute) and N·T (J). */
function heldAt(spec: GasAccumulatorSpec, gas: number, pressure: number): number {
  return max(0, spec.volume - gas / pressure);
}

/** State settled at a fluid pressure (Pa absolute) and an environment (K). */
export function settledAccumulator(
  spec: GasAccumulatorSpec,
  pressure: number,
  surroundings: { readonly ambient: number; readonly environment: number },
): GasAccumulatorState {
  const { ambient, environment } = surroundings;
  const held = max(0, spec.volume - (gasAmount(spec) * environment) / pressure);
  return { fluid: held + spec.lineCompliance * (pressure - ambient), held, pressure, temperature: environment };
}

/** Below this a step's squeeze is so small that five terms of the binomial series are exact to rounding. */
const smallSqueeze = 2e-3;

/** T/T₀ = (V₀/V)^(γ−1) of gas squeezed without heat; a simulation spends most of its time here, in small steps. */
function adiabaticRise(ratio: number): number {
  const power = nitrogenGamma - 1;
  const x = ratio - 1;
  if (abs(x) > smallSqueeze) return pow(ratio, power);
  const last = 1 + (x * (power - 4)) / 5;
  const fourth = 1 + ((x * (power - 3)) / 4) * last;
  const third = 1 + ((x * (power - 2)) / 3) * fourth;
  return 1 + power * x * (1 + ((x * (power - 1)) / 2) * third);
}

/**
 * Moves an accumulator on by `dt` s while `inflow` (m3, negative out) goes in: compression of the gas without heat, then
 * heat to the environment (K). Fluid is conserved exactly; it cannot be emptied below the atmosphere, and what
 * could not come out is left in `refused` (m3, ≤ 0). Source: first law for an ideal gas, gamma 1.4.
 */
export function advanceAccumulator(
  spec: GasAccumulatorSpec,
  state: GasAccumulatorState,
  dt: number,
  inflow: number,
  surroundings: { readonly ambient: number; readonly environment: number },
): number {
  const { ambient, environment } = surroundings;
  const amount = gasAmount(spec);
  const wanted = state.fluid + inflow;
  const refused = wanted < 0 ? wanted : 0;
  state.fluid = wanted - refused;
  if (spec.timeConstant > 0) {
    const before = spec.volume - state.held;
    const start = state.temperature;
    let gas = amount * start;
    // The warmer gas lets a little less in where lines take part: a second pass is enough at these steps.
    for (let pass = 0; pass < 2; pass++) {
      const held = heldAt(spec, gas, pressureOf(spec, state.fluid, gas, ambient));
      gas = amount * start * adiabaticRise(before / (spec.volume - held));
    }
    state.temperature = environment + (gas / amount - environment) * exp(-dt / spec.timeConstant);
  } else state.temperature = environment;
  const gas = amount * state.temperature;
  state.pressure = pressureOf(spec, state.fluid, gas, ambient);
  state.held = heldAt(spec, gas, state.pressure);
  return refused;
}

/** Inner energy of the gas above absolute zero, J: c_v·m·T = 2.5·N·T. */
export function gasEnergy(spec: GasAccumulatorSpec, state: GasAccumulatorState): number {
  return (gasAmount(spec) * state.temperature) / (nitrogenGamma - 1);
}
