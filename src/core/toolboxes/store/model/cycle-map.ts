import type { MeasuredCycle } from '../../../procedure/step-analysis';
import { chargingCircuit, soundCircuit, type CircuitCondition, type CircuitSurroundings } from './charging-circuit';
import type { CircuitFaultId } from '../../../vocabulary/circuit-fault';
import { circuitFaults } from './circuit-faults';
import type { StoreUnit } from './store-unit';
import type { CyclePoint, CycleMap } from '../../../procedure/expected';

const { exp, hypot, log, max, min } = Math;

/** Steps while the pump runs and while it rests, s. */
const runStep = 0.02;
const restStep = 0.5;
/** Cycles until the gas has settled to them, and the longest rest and run that are waited for, s. */
const settlingCycles = 3;
const longestRest = 6 * 3600;
const longestRun = 600;
/** So close to its cut-in the rest is followed in the steps of a run, Pa. */
const nearCutIn = 60e3;
const severities = [0, 0.15, 0.4, 0.7, 1];

/** A cycle with the oil that left during its rest, m3. */
export interface PredictedCycle extends CyclePoint {
  readonly leaked: number;
}

/** Settled cycle of a circuit left alone, by running its model; null where it never starts or never stops. */
export function predictCycle(
  store: StoreUnit,
  condition: CircuitCondition,
  surroundings: CircuitSurroundings,
): PredictedCycle | null {
  const circuit = chargingCircuit(store, condition, surroundings, true);
  const slowDown = store.cutIn + condition.cutInShift + nearCutIn;
  let found: PredictedCycle | null = null;
  for (let cycle = 0; cycle < settlingCycles; cycle++) {
    const until = (running: boolean): { seconds: number; pressure: number } | null => {
      let seconds = circuit.sinceSwitched();
      while (circuit.running() !== running) {
        const dt = circuit.running() || circuit.pressure() < slowDown ? runStep : restStep;
        if (seconds > (circuit.running() ? longestRun : longestRest)) return null;
        circuit.advance(dt, { live: true, bleed: 0, taken: 0, elsewhere: 0 });
        seconds += dt;
      }
      const switched = running ? store.cutIn + condition.cutInShift : store.cutOut + condition.cutOutShift;
      return { seconds: seconds - circuit.sinceSwitched(), pressure: switched };
    };
    const filled = circuit.state.fluid;
    const rest = until(true);
    const leaked = filled - circuit.state.fluid;
    const run = rest && until(false);
    if (!rest || !run) return null;
    found = { run: run.seconds, rest: rest.seconds, cutIn: rest.pressure, cutOut: run.pressure, leaked };
  }
  return found;
}

/** Computes the map of one store in today's air; null where even a sound one would not cycle. */
export function cycleMap(
  store: StoreUnit,
  surroundings: CircuitSurroundings,
  name: { readonly circuit: string; readonly title: string },
): CycleMap | null {
  const sound = predictCycle(store, soundCircuit(), surroundings);
  if (!sound) return null;
  const faults = circuitFaults.map((fault) => ({
    id: fault.id,
    title: fault.title,
    points: severities.flatMap((severity) => {
      const condition = soundCircuit();
      fault.apply(condition, severity, store);
      const point = predictCycle(store, condition, surroundings);
      return point ? [point] : [];
    }),
  }));
  return { ...name, sound, faults };
}

/** Sound units of one make differ by about this: run and rest as shares, thresholds as shares of cut-out. */
const spread = { run: 0.05, rest: 0.12, threshold: 0.015 };
/** A sound unit lies within this of the middle: 99 % of a chi-square of four. */
const soundWithin = 13.3;

/** How far a measured cycle lies from a point of the map: squared deviations of four figures. */
function distance(measured: MeasuredCycle, point: CyclePoint): number {
  const runDoubt = hypot(spread.run, measured.runStandard / measured.run);
  const restDoubt = hypot(spread.rest, measured.restStandard / measured.rest);
  const share = (level: number, expected: number) => (level - expected) / (spread.threshold * point.cutOut);
  // A rest that outlasted the trace speaks against everything that would have been over by then, and for nothing.
  const restAway = log(measured.rest / point.rest) / restDoubt;
  const rest = measured.restOpen ? max(0, restAway) : restAway;
  return (
    (log(measured.run / point.run) / runDoubt) ** 2 +
    rest ** 2 +
    share(measured.cutIn, point.cutIn) ** 2 +
    share(measured.cutOut, point.cutOut) ** 2
  );
}

const between = (a: number, b: number, share: number) => a + (b - a) * share;

/** Least distance from a fault's curve, looked for between its points as well. */
function fromCurve(measured: MeasuredCycle, points: readonly CyclePoint[]): number {
  let least = Infinity;
  for (let i = 0; i + 1 < points.length; i++)
    for (let k = 0; k <= 8; k++) {
      const [p, q] = [points[i], points[i + 1]];
      const share = k / 8;
      const point = {
        run: exp(between(log(p.run), log(q.run), share)),
        rest: exp(between(log(p.rest), log(q.rest), share)),
        cutIn: between(p.cutIn, q.cutIn, share),
        cutOut: between(p.cutOut, q.cutOut, share),
      };
      least = min(least, distance(measured, point));
    }
  return least;
}

/** What cycles alone speak for. */
export type CycleReading =
  | { readonly kind: 'sound' }
  /** The fault whose curve they lie nearest to, and the next. */
  | {
      readonly kind: 'fault';
      readonly fault: CircuitFaultId;
      readonly next: CircuitFaultId;
      readonly apart: number;
    };

/** Reads a measured cycle on its map. `apart` is how much further the next fault's curve is, in squared deviations. */
export function readCycle(measured: MeasuredCycle, map: CycleMap): CycleReading {
  if (distance(measured, map.sound) <= soundWithin) return { kind: 'sound' };
  const ranked = map.faults
    .map(({ id, points }) => ({ id, away: fromCurve(measured, points) }))
    .sort((p, q) => p.away - q.away);
  return { kind: 'fault', fault: ranked[0].id, next: ranked[1].id, apart: ranked[1].away - ranked[0].away };
}
