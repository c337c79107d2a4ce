import { type Extent, extentOf } from '../../../contract/fault';
import type { CircuitFaultId } from '../../../vocabulary/circuit-fault';
import type { CircuitCondition } from './charging-circuit';
import type { StoreUnit } from './store-unit';

/** A fault of a charging circuit as a change of its model, over severities 0 to 1. */
export interface CircuitFault {
  readonly id: CircuitFaultId;
  readonly title: string;
  readonly apply: (condition: CircuitCondition, severity: number, store: StoreUnit) => void;
}

/** Shares of cut-out by which a shifted switch is off at no and at full severity. */
const shiftFrom = 0.07;
const shiftBy = 0.18;

/** Faults that the pump's cycles alone can tell apart. */
export const circuitFaults: readonly CircuitFault[] = [
  {
    id: 'precharge-low',
    title: 'precharge low',
    apply: (c, s) => void (c.gas *= 1 - 0.05 - 0.75 * s),
  },
  {
    id: 'internal-leak',
    title: 'internal leak',
    apply: (c, s) => void (c.leakFactor *= 1.5 + 12 * s),
  },
  {
    id: 'pump-weak',
    title: 'weak pump',
    apply: (c, s) => void (c.flow *= 1 - 0.08 - 0.6 * s),
  },
  {
    id: 'switch-low',
    title: 'switch shifted low',
    apply(c, s, store) {
      const by = (shiftFrom + shiftBy * s) * store.cutOut;
      c.cutInShift -= by;
      c.cutOutShift -= by;
    },
  },
  {
    id: 'switch-high',
    title: 'switch shifted high',
    apply(c, s, store) {
      const by = (shiftFrom + 0.6 * shiftBy * s) * store.cutOut;
      c.cutInShift += by;
      c.cutOutShift += by;
      c.reliefShare = Infinity;
    },
  },
  {
    id: 'switch-band-narrow',
    title: 'switch band narrow',
    apply: (c, s, store) => void (c.cutInShift += (0.3 + 0.55 * s) * (store.cutOut - store.cutIn)),
  },
];

/** Applies one of them by id. */
export function applyCircuitFault(
  condition: CircuitCondition,
  id: CircuitFaultId,
  severity: number,
  store: StoreUnit,
): void {
  circuitFaults.find((fault) => fault.id === id)?.apply(condition, severity, store);
}

const seaLevel = 101_325;

/** What a circuit stands at: how much of a fault there is, as a figure of the circuit that the fault is in. */
export function circuitExtents<Condition, Unit>(
  circuitOf: (condition: Condition) => CircuitCondition,
  storeOf: (unit: Unit) => StoreUnit,
): Readonly<
  Record<
    'precharge' | 'leak' | 'outlet-leak' | 'pump' | 'cut-out' | 'cut-in' | 'lamp' | 'relief',
    Extent<Condition, Unit>
  >
> {
  const figure = (
    title: string,
    as: Parameters<typeof extentOf>[1],
    of: (circuit: CircuitCondition, store: StoreUnit) => number,
  ) => extentOf<Condition, Unit>(title, as, (condition, unit) => of(circuitOf(condition), storeOf(unit)));
  return {
    precharge: figure('Precharge at 20 °C', 'gauge', (c, store) => (store.precharge + seaLevel) * c.gas - seaLevel),
    leak: figure('Leak at cut-out', 'flow', (c, store) => store.internalLeak * c.leakFactor + c.extraLeak),
    'outlet-leak': figure('Back through the outlet valve', 'flow', (c) => c.outletLeak),
    pump: figure('Pump flow', 'pump-flow', (c, store) => store.pumpFlow * c.flow),
    'cut-out': figure('Pump stops at', 'gauge', (c, store) => store.cutOut + c.cutOutShift),
    'cut-in': figure('Pump starts at', 'gauge', (c, store) => store.cutIn + c.cutInShift),
    lamp: figure('Lamp or alarm at', 'gauge', (c, store) => store.lamp + c.lampShift),
    relief: figure('Relief valve opens at', 'gauge', (c, store) => store.cutOut * c.reliefShare),
  };
}
