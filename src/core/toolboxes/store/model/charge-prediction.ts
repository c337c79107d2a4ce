import type { ExpectedTrace } from '../../../procedure/expected';
import { chargingCircuit, soundCircuit, type CircuitCondition, type CircuitSurroundings } from './charging-circuit';
import type { StoreUnit } from './store-unit';

const modelStep = 0.02;
const points = 60;
const longestCharge = 1800;

/** A charge from empty: pressures (Pa gauge) one each `modelStep`, the last at its end (s); `ended` where the pump stopped by itself. */
function chargeOf(store: StoreUnit, condition: CircuitCondition, surroundings: CircuitSurroundings) {
  const circuit = chargingCircuit(store, condition, surroundings, false);
  const pressures = [circuit.pressure()];
  let started = false;
  while (pressures.length * modelStep < longestCharge) {
    circuit.advance(modelStep, { live: true, bleed: 0, taken: 0, elsewhere: 0 });
    if (circuit.running()) started = true;
    if (started && !circuit.running()) {
      const seconds = pressures.length * modelStep - circuit.sinceSwitched();
      return { pressures: [...pressures, store.cutOut + condition.cutOutShift], seconds, ended: true };
    }
    pressures.push(circuit.pressure());
  }
  return { pressures, seconds: (pressures.length - 1) * modelStep, ended: false };
}

/** How long a store in a condition charges from empty until its pump stops, s; null where it never does. */
export function chargeSeconds(
  store: StoreUnit,
  condition: CircuitCondition,
  surroundings: CircuitSurroundings,
): number | null {
  const { seconds, ended } = chargeOf(store, condition, surroundings);
  return ended ? seconds : null;
}

/** A charge from empty of a sound store whose absolute precharge is `gas` times its sheet's: times (s) and pressures (Pa gauge). */
export function predictCharge(
  store: StoreUnit,
  surroundings: CircuitSurroundings,
  gas = 1,
): { readonly seconds: number; readonly pressureAt: (time: number) => number } {
  const { pressures, seconds } = chargeOf(store, { ...soundCircuit(), gas }, surroundings);
  const last = pressures.length - 1;
  return {
    seconds,
    pressureAt: (time) => {
      if (time <= 0 || last === 0) return pressures[0];
      if (time >= seconds) return pressures[last];
      const i = Math.min(last - 1, Math.floor(time / modelStep));
      const width = i === last - 1 ? seconds - i * modelStep : modelStep;
      return pressures[i] + ((pressures[i + 1] - pressures[i]) * (time - i * modelStep)) / width;
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
