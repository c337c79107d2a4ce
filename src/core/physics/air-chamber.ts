import { airGasConstant } from './nozzle';

/** Ratio of specific heats and specific heat at constant volume of air, J/(kg·K). */
const gamma = 1.4;
const heatAtConstantVolume = airGasConstant / (gamma - 1);
/** Air that moves slowly along a wall, W/(m2·K), and the inner surface of a flat round shell over its volume^(2/3). */
const stillAir = 10;
const flatShell = 6.6;

/** Air in one chamber, the same everywhere in it. */
export interface AirChamber {
  /** Pa absolute. */
  pressure: number;
  /** K */
  temperature: number;
}

/** What crosses a chamber's walls and openings in one step. */
export interface AirExchange {
  /** Net mass flow in, kg/s, and the same with each part times the temperature it has where it comes from, kg·K/s. */
  readonly mass: number;
  readonly heat: number;
  /** Speed at which the volume grows, m3/s. */
  readonly growth: number;
}

/** Heat that the walls of a shell of this volume (m3) give to the air in it, W/K. */
export function wallConductance(volume: number): number {
  return stillAir * flatShell * Math.cbrt(volume * volume);
}

/**
 * Moves a chamber of `volume` (m3) on by `dt` (s): first law for an ideal gas with flows in and out, a moving wall and
 * heat from walls at `wallTemperature` (K) through `conductance` (W/K). With no conductance it is adiabatic, with very much
 * isothermal. Source: Moran & Shapiro, Fundamentals of Engineering Thermodynamics, ch. 4 (transient control volume).
 */
export function exchangeAir(
  chamber: AirChamber,
  dt: number,
  volume: number,
  exchange: AirExchange,
  conductance: number,
  wallTemperature: number,
): void {
  const { pressure, temperature } = chamber;
  const fromWalls = conductance * (wallTemperature - temperature);
  const work = pressure * exchange.growth;
  const content = (pressure * volume) / (airGasConstant * temperature);
  chamber.pressure += (dt * (gamma * (airGasConstant * exchange.heat - work) + (gamma - 1) * fromWalls)) / volume;
  chamber.temperature +=
    (dt * (gamma * exchange.heat - temperature * exchange.mass + (fromWalls - work) / heatAtConstantVolume)) / content;
}
