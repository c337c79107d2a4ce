import type { Scatter } from '../../../contract/model';
import type { StoreUnit } from './store-unit';

/** Standard deviations of sound stores of one sheet, as fractions: assumed, a third of the workshop's tolerances where it has them. */
const standards = {
  precharge: 0.03,
  volume: 0.01,
  pumpFlow: 0.05,
  internalLeak: 0.25,
  cutIn: 0.015,
  cutOut: 0.015,
} as const;

/** How sound stores of one circuit differ. */
export function storeScatter<Unit>(
  circuit: string,
  storeOf: (unit: Unit) => StoreUnit,
  withStore: (unit: Unit, store: StoreUnit) => Unit,
): readonly Scatter<Unit>[] {
  return Object.entries(standards).map(([parameter, standard]) => ({
    id: `${circuit}.${parameter}`,
    standard,
    apply: (unit, z) => {
      const store = storeOf(unit);
      return withStore(unit, {
        ...store,
        [parameter]: (store[parameter as keyof StoreUnit] ?? 0) * (1 + z * standard),
      });
    },
  }));
}
