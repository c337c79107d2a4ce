import { soundCircuit, type CircuitCondition } from '../../toolboxes/store/model/charging-circuit';
import { applyCircuitFault, circuitExtents } from '../../toolboxes/store/model/circuit-faults';
import { extentOf, thereOrNot, type Fault } from '../../contract/fault';
import type { StoredPressureUnit } from './geometry';

/** Parameters of a central system that faults change. */
export interface StoredPressureCondition {
  readonly first: CircuitCondition;
  readonly second: CircuitCondition;
  /** Levelling leak, times that of a sound one. */
  levelling: number;
  /** m that the vehicle sinks on its springs alone. */
  heightLoss: number;
  /** Brake pressure over a bump, Pa. */
  bump: number;
  /** Metering of circuit 2 as a share of circuit 1; cut-in added, N; slope as a share. */
  balance: number;
  cutInShift: number;
  slope: number;
  /** Purpose of the spheres that are fitted, where it is not the sheet's. */
  wrongSphere: boolean;
  wrongFluid: boolean;
}

export function soundStoredPressure(): StoredPressureCondition {
  return {
    first: soundCircuit(),
    second: soundCircuit(),
    levelling: 1,
    heightLoss: 0.002,
    bump: 20e3,
    balance: 0.99,
    cutInShift: 0,
    slope: 1,
    wrongSphere: false,
    wrongFluid: false,
  };
}

type StoredPressureFault = Fault<StoredPressureUnit, StoredPressureCondition>;

/** A sphere for another purpose holds about this share of the gas pressure. */
const otherPurpose = 0.4;

const first = circuitExtents<StoredPressureCondition, StoredPressureUnit>(
  (c) => c.first,
  (unit) => unit.first,
);
const second = circuitExtents<StoredPressureCondition, StoredPressureUnit>(
  (c) => c.second,
  (unit) => unit.second,
);

/** Every fault of the family as a change of the model. */
export const storedPressureFaults: readonly StoredPressureFault[] = [
  {
    id: 'pump-1-weak',
    title: 'Pump 1 weak',
    shows: 'Circuit 1 takes long to charge; its rest is normal.',
    appearance: {},
    tells: ['charge-from-empty', 'rest-cycle'],
    leaves: ['soak'],
    extent: first.pump,
    apply: (c, s, unit) => applyCircuitFault(c.first, 'pump-weak', s, unit.first),
  },
  {
    id: 'pump-2-weak',
    title: 'Pump 2 weak',
    shows: 'Circuit 2 takes long to charge; its rest is normal.',
    appearance: {},
    tells: ['charge-from-empty', 'rest-cycle'],
    leaves: ['soak'],
    extent: second.pump,
    apply: (c, s, unit) => applyCircuitFault(c.second, 'pump-weak', s, unit.second),
  },
  {
    id: 'sphere-1-low',
    title: 'Sphere 1 low',
    shows: 'Knee of circuit 1 low; run and rest both short, few applications.',
    appearance: {},
    tells: ['charge-from-empty', 'rest-cycle', 'sphere-precharge'],
    leaves: [],
    extent: first.precharge,
    apply: (c, s, unit) => applyCircuitFault(c.first, 'precharge-low', s, unit.first),
  },
  {
    id: 'sphere-2-low',
    title: 'Sphere 2 low',
    shows: 'Knee of circuit 2 low; run and rest both short, few applications.',
    appearance: {},
    tells: ['charge-from-empty', 'rest-cycle', 'sphere-precharge'],
    leaves: [],
    extent: second.precharge,
    apply: (c, s, unit) => applyCircuitFault(c.second, 'precharge-low', s, unit.second),
  },
  {
    id: 'valve-block-1-leak',
    title: 'Valve block 1 leaks',
    shows: 'Circuit 1 rests only briefly and loses its pressure over hours.',
    appearance: {},
    tells: ['rest-cycle', 'soak', 'soak-isolated'],
    leaves: [],
    extent: first.leak,
    apply: (c, s, unit) => applyCircuitFault(c.first, 'internal-leak', s, unit.first),
  },
  {
    id: 'valve-block-2-leak',
    title: 'Valve block 2 leaks',
    shows: 'Circuit 2 loses its pressure with the levelling open and shut alike.',
    appearance: {},
    tells: ['rest-cycle', 'soak', 'soak-isolated'],
    leaves: [],
    extent: second.leak,
    apply: (c, s, unit) => applyCircuitFault(c.second, 'internal-leak', s, unit.second),
  },
  {
    id: 'cut-out-shifted',
    title: 'Cut-out shifted',
    shows: 'Both circuits stop charging too low: start and stop pressures off.',
    appearance: {},
    tells: ['pump-switch', 'rest-cycle'],
    leaves: [],
    extent: first['cut-out'],
    apply(c, s, unit) {
      c.first.cutOutShift -= (0.07 + 0.1 * s) * unit.first.cutOut;
      c.second.cutOutShift -= (0.07 + 0.1 * s) * unit.second.cutOut;
    },
  },
  {
    id: 'metering-valve-worn',
    title: 'Metering valve worn',
    shows: 'Both circuits leak with nobody on the pedal, and their pressures are apart under it.',
    appearance: {},
    tells: ['rest-cycle', 'soak', 'soak-isolated', 'metering-curve'],
    leaves: [],
    extent: first.leak,
    apply(c, s) {
      c.first.leakFactor *= 3 + 6 * s;
      c.second.leakFactor *= 3 + 6 * s;
      c.balance = 0.9 - 0.15 * s;
    },
  },
  {
    id: 'levelling-leak',
    title: 'Levelling leaks',
    shows: 'Circuit 2 loses its pressure with the levelling open, and keeps it with the levelling shut.',
    appearance: {},
    tells: ['rest-cycle', 'soak', 'soak-isolated'],
    leaves: [],
    extent: extentOf('Leak of the levelling at cut-out', 'flow', (c, unit) => unit.levellingLeak * c.levelling),
    apply: (c, s) => void (c.levelling = 5 + 20 * s),
  },
  {
    id: 'levelling-propping-springs',
    title: 'Levelling props weak springs',
    shows: 'The vehicle sinks once the links are off: somebody has propped weak springs on the hydraulics.',
    appearance: {},
    tells: ['ride-height'],
    leaves: [],
    extent: extentOf('Height lost on its springs', 'length', (c) => c.heightLoss),
    apply(c, s) {
      c.heightLoss = 0.018 + 0.04 * s;
      c.levelling = 2 + 3 * s;
    },
  },
  {
    id: 'levelling-restrictor-failed',
    title: 'Levelling restrictor failed',
    shows: 'A little brake comes on over every bump.',
    appearance: {},
    tells: ['bump'],
    leaves: [],
    extent: extentOf('Brake pressure over a bump', 'gauge', (c) => c.bump),
    apply: (c, s) => void (c.bump = 250e3 + 700e3 * s),
  },
  {
    id: 'feel-cylinder-leak',
    title: 'Feel cylinder leaks',
    shows: 'The pedal has no feel of its own: pressure comes on at a touch.',
    appearance: {},
    tells: ['metering-curve'],
    leaves: ['rest-cycle', 'soak'],
    extent: extentOf('Cut-in force', 'force', (c, unit) => unit.cutInForce + c.cutInShift),
    apply: (c, s, unit) => void (c.cutInShift = -(0.4 + 0.5 * s) * unit.cutInForce),
  },
  {
    id: 'wrong-sphere-fitted',
    title: 'Wrong sphere fitted',
    shows: 'The sphere is one for another purpose: its precharge is several-fold off.',
    appearance: {},
    tells: ['charge-from-empty', 'rest-cycle', 'sphere-precharge'],
    leaves: [],
    extent: thereOrNot,
    apply(c) {
      c.wrongSphere = true;
      c.first.gas = otherPurpose;
    },
  },
  {
    id: 'wrong-fluid',
    title: 'Wrong fluid',
    shows: 'Seals swell or shrink: leaks everywhere, valves stick. Nothing that was wetted can be trusted.',
    appearance: { 'fluid-kind': 'unfit' },
    tells: ['walk-round', 'rest-cycle', 'soak', 'soak-isolated', 'metering-curve', 'sphere-precharge'],
    leaves: [],
    extent: first.leak,
    apply(c, s) {
      c.wrongFluid = true;
      c.first.leakFactor *= 2 + 6 * s;
      c.second.leakFactor *= 2 + 6 * s;
      c.slope = 0.85 - 0.2 * s;
    },
  },
  {
    id: 'parking-cable-seized',
    title: 'Parking cable seized',
    shows: 'The lever moves and the brake does not: the cable stands in its sheath.',
    appearance: { 'parking-cable': 'unfit' },
    tells: ['walk-round'],
    leaves: [],
    extent: thereOrNot,
    apply: () => undefined,
  },
];
