import { chokedLeak } from '../../physics/nozzle';
import { extentOf, thereOrNot, type Fault } from '../../contract/fault';
import type { VacuumSupplyUnit } from './geometry';

/** Parameters of the source that faults change. */
export interface SupplyCondition {
  speedFactor: number;
  /** Ultimate absolute pressure, times what it should be. */
  ultimateFactor: number;
  dead: boolean;
  /** Effective leak areas into the reservoir, and back through the check valve, m2. */
  leak: number;
  checkLeak: number;
  /** Added to the thresholds, Pa vacuum. */
  cutInShift: number;
  cutOutShift: number;
  /** Added to what the sensor tells switch and scan tool, Pa vacuum. */
  sensorShift: number;
}

export function soundSupply(): SupplyCondition {
  return {
    speedFactor: 1,
    ultimateFactor: 1,
    dead: false,
    leak: 0,
    checkLeak: 0,
    cutInShift: 0,
    cutOutShift: 0,
    sensorShift: 0,
  };
}

type SupplyFault = Fault<VacuumSupplyUnit, SupplyCondition>;

const mm2 = 1e-6;

/** Every fault of the family as a change of the model. */
export const vacuumSupplyFaults: readonly SupplyFault[] = [
  {
    id: 'pump-worn',
    title: 'Pump worn',
    shows: 'Slow to draw down, and it does not reach its vacuum however long it runs.',
    appearance: {},
    tells: ['pump-down', 'pump-switch'],
    leaves: [],
    extent: extentOf('Pump speed', 'pump-flow', (c, unit) => unit.speed * c.speedFactor),
    apply: (c, s) => {
      c.speedFactor = 0.75 - 0.5 * s;
      c.ultimateFactor = 1.3 + 1.2 * s;
    },
  },
  {
    id: 'pump-motor-dead',
    title: 'Pump motor dead',
    shows: 'Commanded on and nothing builds: a reading near zero with the pump called for.',
    appearance: { wiring: 'unfit' },
    tells: ['look-over'],
    leaves: [],
    extent: thereOrNot,
    apply: (c) => void (c.dead = true),
  },
  {
    id: 'supply-leak',
    title: 'Supply leaks',
    shows: 'The pump runs often without the pedal, and the vacuum does not last.',
    appearance: { hoses: 'unfit' },
    tells: ['look-over', 'pump-down', 'pump-switch'],
    leaves: [],
    extent: extentOf('Leak', 'flow', (c) => chokedLeak(c.leak)),
    apply: (c, s) => void (c.leak = (0.03 + 1.2 * s) * mm2),
  },
  {
    id: 'reservoir-check-leak',
    title: 'Reservoir check valve leaks',
    shows: 'The vacuum goes as soon as the source stops, and lasts while the source side is shut.',
    appearance: {},
    tells: ['check-valve'],
    leaves: [],
    extent: extentOf('Leak', 'flow', (c) => chokedLeak(c.checkLeak)),
    apply: (c, s) => void (c.checkLeak = (0.05 + 1.2 * s) * mm2),
  },
  {
    id: 'switch-cut-in-low',
    title: 'Pump starts too late',
    shows: 'The pump waits until little vacuum is left: the pedal is hard after a few strokes.',
    appearance: {},
    tells: ['pump-switch'],
    leaves: [],
    extent: extentOf('Starts later by', 'vacuum-difference', (c) => -c.cutInShift),
    apply: (c, s) => void (c.cutInShift = -(6e3 + 14e3 * s)),
  },
  {
    id: 'switch-cut-out-high',
    title: 'Pump runs on',
    shows: 'The pump stops late or never, though the vacuum is there.',
    appearance: {},
    tells: ['pump-switch'],
    leaves: [],
    extent: extentOf('Stops later by', 'vacuum-difference', (c) => c.cutOutShift),
    apply: (c, s) => void (c.cutOutShift = 4e3 + 12e3 * s),
  },
  {
    id: 'sensor-offset',
    title: 'Vacuum sensor off',
    shows: 'The scan tool and a gauge on a tee differ by the same amount everywhere.',
    appearance: {},
    tells: ['pump-switch'],
    leaves: [],
    extent: extentOf('Sensor reads high by', 'vacuum-difference', (c) => c.sensorShift),
    apply: (c, s) => void (c.sensorShift = 4e3 + 10e3 * s),
  },
  {
    id: 'hose-restricted',
    title: 'Hose restricted',
    shows: 'Slow to draw down and to recover, but it reaches its vacuum with time.',
    appearance: { hoses: 'note' },
    tells: ['pump-down', 'pump-switch'],
    leaves: [],
    extent: extentOf('Pump speed through the hose', 'pump-flow', (c, unit) => unit.speed * c.speedFactor),
    apply: (c, s) => void (c.speedFactor = 0.6 - 0.5 * s),
  },
];
