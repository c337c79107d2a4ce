import { airGasConstant, nozzleFlow } from '../../physics/nozzle';
import { seaLevelPressure } from '../../quantities/standard-atmosphere';

/** Reference temperature of standard cubic centimetres, K. */
const standardTemperature = 293.15;
const steps = 600;

/** A space under vacuum with its source shut off, and the way by which air comes in. */
export interface LeakingSpace {
  /** m3 */
  readonly volume: number;
  /** Vacuum at the beginning, Pa. */
  readonly vacuum: number;
  /** Effective area C_d·A of all its leaks, m2. */
  readonly leak: number;
  /** Local atmosphere, Pa absolute, and its temperature, K, which the air in the space has too. */
  readonly ambient: number;
  readonly temperature: number;
}

/** What such a space loses in `seconds`. */
export interface LeakedDown {
  /** Pa */
  readonly loss: number;
  /** Mean volume flow of the air that came in, at 101.325 kPa and 20 °C, m3/s. */
  readonly flow: number;
}

/** A loss of more than this share of the vacuum is a collapse: part of it is gone before anybody waits. */
const collapses = 0.7;

/** Whether a loss (of a vacuum, Pa) goes on for the whole of the wait. */
export function steadyLoss({ loss }: LeakedDown, vacuum: number): boolean {
  return loss < collapses * vacuum;
}

/** Air let in through an orifice at the temperature of the walls: V·dp/dt = R·T·m(p) (nozzle flow), by midpoint steps. */
export function leakDown({ volume, vacuum, leak, ambient, temperature }: LeakingSpace, seconds: number): LeakedDown {
  const dt = seconds / steps;
  const flowAt = (pressure: number) => nozzleFlow(leak, ambient, pressure, temperature);
  const perMass = (airGasConstant * temperature) / volume;
  let pressure = ambient - vacuum;
  let mass = 0;
  for (let i = 0; i < steps; i++) {
    const halfway = pressure + (dt / 2) * perMass * flowAt(pressure);
    const came = dt * flowAt(halfway);
    pressure += perMass * came;
    mass += came;
  }
  const density = seaLevelPressure / (airGasConstant * standardTemperature);
  return { loss: pressure - (ambient - vacuum), flow: mass / density / seconds };
}
