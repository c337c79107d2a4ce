import type { Truth } from '../../../contract/model';
import type { CircuitCondition } from './charging-circuit';
import type { StoreUnit } from './store-unit';

/** What a perfect measurement of one circuit would say in today's air (Pa absolute), by the endings of its characteristics' ids. */
export function storeTruth(store: StoreUnit, condition: CircuitCondition, place: '' | '@2', ambient: number): Truth {
  // A pump that never stops, or never runs, or whose relief valve lets go first, has no cut-out.
  const switches =
    !condition.stuck && !condition.dead && store.cutOut * condition.reliefShare > store.cutOut + condition.cutOutShift;
  return {
    // A gas side that has failed has no precharge to be found.
    ...(condition.gas > 0 ? { [`precharge${place}`]: (store.precharge + ambient) * condition.gas - ambient } : {}),
    // A store that is stiff turns around faster than a gauge can follow.
    ...(condition.dead || condition.gas <= 0 ? {} : { [`store-cut-in${place}`]: store.cutIn + condition.cutInShift }),
    ...(switches ? { [`store-cut-out${place}`]: store.cutOut + condition.cutOutShift } : {}),
  };
}
