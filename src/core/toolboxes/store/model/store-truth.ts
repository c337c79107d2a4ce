import type { Truth } from '../../../contract/model';
import type { StepContext } from '../../../procedure/step-context';
import { chargeSeconds } from './charge-prediction';
import { chargingCircuit, type CircuitCondition, type CircuitSurroundings } from './charging-circuit';
import { predictCycle } from './cycle-map';
import type { StoreUnit } from './store-unit';

/** One circuit of a unit in a condition, in today's air. */
export interface StoreInCondition {
  readonly store: StoreUnit;
  readonly condition: CircuitCondition;
  /** Ending of its characteristics' ids. */
  readonly place: '' | '@2';
  readonly around: CircuitSurroundings;
}

/** The air around a unit's stores. */
export function aroundStores({ ambient, airTemperature }: StepContext<unknown>): CircuitSurroundings {
  return { ambient: ambient.pressure, environment: airTemperature };
}

/** A pump that never stops, or never runs, or whose relief valve lets go first, has no cut-out. */
function switches({ store, condition }: StoreInCondition): boolean {
  return (
    !condition.stuck && !condition.dead && store.cutOut * condition.reliefShare > store.cutOut + condition.cutOutShift
  );
}

/** What a perfect measurement of one circuit would say of its gas and its switch. */
export function storeTruth(circuit: StoreInCondition): Truth {
  const { store, condition, place, around } = circuit;
  const { ambient } = around;
  // A gas side that has failed has no precharge to be found, and a store that is stiff turns around faster than a gauge can follow.
  if (condition.gas <= 0)
    return switches(circuit) ? { [`store-cut-out${place}`]: store.cutOut + condition.cutOutShift } : {};
  return {
    [`precharge${place}`]: (store.precharge + ambient) * condition.gas - ambient,
    ...(condition.dead ? {} : { [`store-cut-in${place}`]: store.cutIn + condition.cutInShift }),
    ...(switches(circuit)
      ? { [`store-cut-out${place}`]: store.cutOut + condition.cutOutShift, ...chargingTruth(circuit) }
      : {}),
  };
}

/** How long it charges, runs and rests, by running its model; what leaks out during a rest, on its mean. */
function chargingTruth(circuit: StoreInCondition): Truth {
  const { store, condition, place, around } = circuit;
  const charge = chargeSeconds(store, condition, around);
  // Where it turns around faster than its gas takes on the shell's temperature, only many cycles settle it.
  const settled = predictCycle(store, condition, around);
  const cycle = settled && settled.rest > store.timeConstant ? settled : null;
  return {
    ...(charge === null ? {} : { [`charge-time${place}`]: charge }),
    ...(cycle === null
      ? {}
      : {
          [`run-time${place}`]: cycle.run,
          [`rest-time${place}`]: cycle.rest,
          [`rest-cycle: internal-leak-flow${place}`]: cycle.leaked / cycle.rest,
        }),
  };
}

/** Step of a soak's model, and the longest that is followed, s. */
const soakStep = 2;
const longestSoak = 30 * 86_400;

/**
 * What a soak of `seconds` with the pump off shows: the oil lost (m3/s, its mean), and the time from cut-out to half of it, or to where
 * the store is empty. The flow is left out where that comes before the soak is over.
 */
export function soakTruth(circuit: StoreInCondition, step: string, seconds: number): Truth {
  const { store, condition, place } = circuit;
  if (condition.gas <= 0) return {};
  const floor = Math.max(store.cutOut / 2, store.precharge);
  // It is stated from cut-out, wherever this one stops its pump.
  const stops = { ...condition, cutOutShift: 0, reliefShare: Infinity };
  const lost = soaked(circuit, (_pressure, time) => time >= seconds, floor);
  const halved = soaked({ ...circuit, condition: stops }, (pressure) => pressure <= floor, 0);
  return {
    ...(lost === null ? {} : { [`${step}: internal-leak-flow${place}`]: lost.lost / lost.time }),
    ...(halved === null ? {} : { [`${step}: half-life${place}`]: halved.time }),
  };
}

/** A store left alone from its cut-out until `done`: how long (s) and what it lost (m3); null where it falls below `floor` (Pa gauge) first. */
function soaked(
  { store, condition, around }: StoreInCondition,
  done: (pressure: number, time: number) => boolean,
  floor: number,
): { readonly time: number; readonly lost: number } | null {
  const model = chargingCircuit(store, condition, around, true);
  const filled = model.state.fluid;
  for (let time = soakStep; time < longestSoak; time += soakStep) {
    model.advance(soakStep, { live: false, bleed: 0, taken: 0, elsewhere: 0 });
    if (model.pressure() < floor) return null;
    if (done(model.pressure(), time)) return { time, lost: filled - model.state.fluid };
  }
  return null;
}
