import type { ExpectedTrace } from '../../../procedure/expected';
import { chargingCircuit, soundCircuit, type CircuitCondition, type CircuitSurroundings } from './charging-circuit';
import type { StoreUnit } from './store-unit';

const modelStep = 0.02;
const points = 60;
const longestCharge = 1800;

/** Pressures (Pa gauge) of a charge from empty, one each `modelStep`; `ended` where the pump stopped by itself. */
function chargeOf(store: StoreUnit, condition: CircuitCondition, surroundings: CircuitSurroundings) {
  const circuit = chargingCircuit(store, condition, surroundings, false);
  const pressures = [circuit.pressure()];
  let started = false;
  while (pressures.length * modelStep < longestCharge) {
    circuit.advance(modelStep, { live: true, bleed: 0, taken: 0, elsewhere: 0 });
    if (circuit.running()) started = true;
    pressures.push(circuit.pressure());
    if (started && !circuit.running()) return { pressures, ended: true };
  }
  return { pressures, ended: false };
}

/** How long a store in a condition charges from empty until its pump stops, s; null where it never does. */
export function chargeSeconds(
  store: StoreUnit,
  condition: CircuitCondition,
  surroundings: CircuitSurroundings,
): number | null {
  const { pressures, ended } = chargeOf(store, condition, surroundings);
  return ended ? (pressures.length - 1) * modelStep : null;
}

/** A charge from empty of a sound store whose absolute precharge is `gas` times its sheet's: times (s) and pressures (Pa gauge). */
export function predictCharge(
  store: StoreUnit,
  surroundings: CircuitSurroundings,
  gas = 1,
): { readonly seconds: number; readonly pressureAt: (time: number) => number } {
  const { pressures } = chargeOf(store, { ...soundCircuit(), gas }, surroundings);
  const end = (pressures.length - 1) * modelStep;
  return {
    seconds: end,
    pressureAt: (time) => {
      const at = Math.min(pressures.length - 1.000001, Math.max(0, time / modelStep));
      const i = Math.floor(at);
      return pressures[i] + (pressures[i + 1] - pressures[i]) * (at - i);
    },
  };
}

/** Where the charge of a sound store lies, between the loosest precharges, SI. */
export function expectedCharge(
  store: StoreUnit,
  surroundings: CircuitSurroundings,
  tolerance: number,
  channel: string,
): ExpectedTrace {
  const loose = predictCharge(store, surroundings, 1 - tolerance);
  const tight = predictCharge(store, surroundings, 1 + tolerance);
  const end = Math.max(loose.seconds, tight.seconds);
  return {
    channel,
    points: Array.from({ length: points + 1 }, (_, at) => {
      // Closer together at the start, where the knee is.
      const time = end * (at / points) ** 2;
      const both = [loose.pressureAt(time), tight.pressureAt(time)];
      return { time, low: Math.min(...both), high: Math.max(...both) };
    }),
  };
}
