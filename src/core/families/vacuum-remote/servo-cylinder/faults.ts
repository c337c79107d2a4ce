import { chokedLeak } from '../../../physics/nozzle';
import { extentOf } from '../../../contract/fault';
import { mm2, vacuumRemoteFaults, type VacuumRemoteFault } from '../unit/faults';

/** Faults of valve, shell and hose that show alike whatever the power piston works on. */
const shared = [
  'power-diaphragm-leak',
  'atmosphere-valve-leak',
  'vacuum-valve-leak',
  'control-piston-sticking',
  'control-piston-seal-leak',
  'breather-restricted',
  'supply-hose-collapsed',
  'switch-out-of-range',
] as const;

/** Every fault of a servo cylinder as a change of the model. */
export const servoCylinderFaults: readonly VacuumRemoteFault[] = [
  ...vacuumRemoteFaults.filter((fault) => shared.some((id) => id === fault.id)),
  {
    id: 'reservoir-leak',
    title: 'Reservoir leaks',
    shows: 'Both vacuum holds fail at the same leak flow, and the control port follows the supply at rest.',
    appearance: { reservoir: 'unfit' },
    tells: ['look-over', 'vacuum-hold-rest', 'vacuum-hold-applied'],
    leaves: ['pressure-hold', 'low-pressure-hold'],
    extent: extentOf('Leak', 'flow', (c) => chokedLeak(c.reservoirLeak)),
    apply: (c, s) => void (c.reservoirLeak = (0.2 + 2.5 * s) * mm2),
  },
  {
    id: 'return-spring-weak',
    title: 'Return spring weak',
    shows: 'The rod comes back slowly or not wholly: a force stays; the pull is slightly high.',
    appearance: {},
    tells: ['release'],
    leaves: ['vacuum-hold-rest', 'pressure-hold'],
    extent: extentOf('Spring force, as a share', 'ratio', (c) => c.springFactor),
    apply: (c, s) => {
      c.springFactor = 1 - 0.9 * s;
      c.residualShare = 0.04 + 0.1 * s;
      c.releaseLag = 0.2 + 0.8 * s;
    },
  },
  {
    id: 'external-hydraulic-leak',
    title: 'External hydraulic leak',
    shows: 'Input decays in a hold and a leak point of the control unit is wet.',
    appearance: { 'control-plug': 'dripping' },
    tells: ['low-pressure-hold', 'pressure-hold', 'leak-look'],
    leaves: ['vacuum-hold-rest'],
    extent: extentOf('Input lost in a minute, as a share', 'ratio', (c) => c.outputLeak * 60),
    apply: (c, s) => void (c.outputLeak = (0.04 + 0.3 * s) / 60),
  },
  {
    id: 'power-piston-friction',
    title: 'Power piston or lever binds',
    shows: 'Force low over the whole range, wide hysteresis, all holds good.',
    appearance: { lever: 'unfit' },
    tells: ['look-over', 'boost-curve'],
    leaves: ['vacuum-hold-rest', 'vacuum-hold-applied', 'pressure-hold'],
    extent: extentOf('Force that arrives, as a share', 'ratio', (c) => c.efficiencyFactor),
    apply: (c, s) => {
      c.efficiencyFactor = 1 - (0.1 + 0.3 * s);
      c.powerFriction = 0.1 + 0.3 * s;
    },
  },
];
