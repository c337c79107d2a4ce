import { chokedLeak } from '../../../physics/nozzle';
import { extentOf, type Fault } from '../../../contract/fault';
import type { RemoteUnit } from './remote-unit';

/** Parameters of the plant that faults change; everything is what a sound unit has at the start. */
export interface PlantCondition {
  /** Effective leak areas, m2. */
  diaphragmLeak: number;
  atmosphereValveLeak: number;
  vacuumValveLeak: number;
  /** Extra play of the control piston on the apply side, Pa, and the size of its stick-slip steps, Pa. */
  controlDrag: number;
  controlStick: number;
  hysteresisFactor: number;
  /** Share of pressure lost per second in a hold. */
  inputLeak: number;
  outputLeak: number;
  /** Output to input through the slave seal, share of their difference per second. */
  slaveBypass: number;
  /** Share of the boost that slips through the bypass check. */
  checkSlip: number;
  bypassBlocked: boolean;
  /** Factor on the breather's area and on the supply hose's area when flow is drawn. */
  breather: number;
  hose: number;
  springFactor: number;
  efficiencyFactor: number;
  /** Power-side friction, fraction of the assist, that holds the output on the way back. */
  powerFriction: number;
  /** Output that stays after release, Pa, and the time constant of the way back, s. */
  residual: number;
  releaseLag: number;
  /** Time constant of the way back while assist is on, s: the control valve follows late. */
  assistReleaseLag: number;
  /** Pa added to the stop-lamp switch's closing pressure. */
  switchShift: number;
  /** Of a servo cylinder: its reservoir's leak, m2, and the share of its full force that stays after release. */
  reservoirLeak: number;
  residualShare: number;
}

export function soundCondition(): PlantCondition {
  return {
    diaphragmLeak: 0,
    atmosphereValveLeak: 0,
    vacuumValveLeak: 0,
    controlDrag: 0,
    controlStick: 0,
    hysteresisFactor: 1,
    inputLeak: 0,
    outputLeak: 0,
    slaveBypass: 0,
    checkSlip: 0,
    bypassBlocked: false,
    breather: 1,
    hose: 1,
    springFactor: 1,
    efficiencyFactor: 1,
    powerFriction: 0,
    residual: 0,
    releaseLag: 0.002,
    assistReleaseLag: 0.002,
    switchShift: 0,
    reservoirLeak: 0,
    residualShare: 0,
  };
}

export type VacuumRemoteFault = Fault<RemoteUnit, PlantCondition>;

export const mm2 = 1e-6;

/** Every fault of a unit in the brake line as a change of the model. */
export const vacuumRemoteFaults: readonly VacuumRemoteFault[] = [
  {
    id: 'power-diaphragm-leak',
    title: 'Power diaphragm leaks',
    shows:
      'The applied hold fails though the control port reaches zero; the rest hold is good. A bench’s source gives more than the leak takes: its supply hardly sags.',
    appearance: {},
    tells: ['vacuum-hold-applied'],
    leaves: ['vacuum-hold-rest', 'boost-curve', 'pressure-hold'],
    extent: extentOf('Leak', 'flow', (c) => chokedLeak(c.diaphragmLeak)),
    apply: (c, s) => void (c.diaphragmLeak = (0.2 + 2.2 * s) * mm2),
  },
  {
    id: 'atmosphere-valve-leak',
    title: 'Atmosphere valve leaks',
    shows: 'Rest hold fails, hiss at the breather at rest, control below supply at rest.',
    appearance: { breather: 'unfit' },
    tells: ['look-over', 'vacuum-hold-rest'],
    leaves: ['low-pressure-hold', 'pressure-hold'],
    extent: extentOf('Leak', 'flow', (c) => chokedLeak(c.atmosphereValveLeak)),
    apply: (c, s) => void (c.atmosphereValveLeak = (0.1 + 2.5 * s) * mm2),
  },
  {
    id: 'vacuum-valve-leak',
    title: 'Vacuum valve leaks',
    shows: 'Applied hold fails and the control port never touches zero; the supply sags; the rest hold is good.',
    appearance: {},
    tells: ['vacuum-hold-applied'],
    leaves: ['vacuum-hold-rest'],
    extent: extentOf('Leak', 'flow', (c) => chokedLeak(c.vacuumValveLeak)),
    apply: (c, s) => void (c.vacuumValveLeak = (2.5 + 8 * s) * mm2),
  },
  {
    id: 'control-piston-sticking',
    title: 'Control piston sticks',
    shows: 'High cut-in, a stepped curve, wide hysteresis, slow release.',
    appearance: {},
    tells: ['boost-curve'],
    leaves: ['vacuum-hold-rest', 'pressure-hold'],
    extent: extentOf('Pressure to break it loose', 'difference', (c) => c.controlDrag + c.controlStick),
    apply: (c, s) => {
      c.controlDrag = 60e3 + 300e3 * s;
      c.controlStick = 40e3 + 140e3 * s;
      c.hysteresisFactor = 1.3 + 0.9 * s;
      c.assistReleaseLag = 0.1 + 0.6 * s;
    },
  },
  {
    id: 'control-piston-seal-leak',
    title: 'Control piston seal leaks',
    shows: 'Input pressure falls in a hold; fluid at the breather or in the control chamber.',
    appearance: { breather: 'unfit', 'weep-hole': 'damp' },
    tells: ['look-over', 'low-pressure-hold', 'pressure-hold'],
    leaves: ['vacuum-hold-rest'],
    extent: extentOf('Input lost in a minute, as a share', 'ratio', (c) => c.inputLeak * 60),
    apply: (c, s) => void (c.inputLeak = (0.05 + 0.25 * s) / 60),
  },
  {
    id: 'slave-piston-seal-bypass',
    title: 'Slave piston seal bypasses',
    shows: 'Output decays while boosted and input creeps up; the unassisted hold is good.',
    appearance: {},
    tells: ['pressure-hold'],
    leaves: ['low-pressure-hold', 'boost-curve'],
    extent: extentOf('Of the boost lost in a minute, as a share', 'ratio', (c) => c.slaveBypass * 60),
    apply: (c, s) => void (c.slaveBypass = (0.05 + 0.3 * s) / 60),
  },
  {
    id: 'bypass-check-leak',
    title: 'Bypass check leaks',
    shows: 'Output decays, and the ratio is low from the start of boost over the whole range.',
    appearance: {},
    tells: ['boost-curve', 'pressure-hold'],
    leaves: ['vacuum-hold-rest'],
    extent: extentOf('Boost lost through it, as a share', 'ratio', (c) => c.checkSlip),
    apply: (c, s) => {
      c.checkSlip = 0.1 + 0.35 * s;
      c.slaveBypass = (0.05 + 0.3 * s) / 60;
    },
  },
  {
    id: 'bypass-check-blocked',
    title: 'Bypass check blocked',
    shows: 'Unassisted output stays below input; slow release and residual pressure.',
    appearance: {},
    tells: ['gauge-agreement', 'boost-curve', 'release'],
    leaves: ['vacuum-hold-rest'],
    extent: extentOf('Output that stays', 'difference', (c) => c.residual),
    apply: (c, s) => {
      c.bypassBlocked = true;
      c.releaseLag = 0.2 + 1.2 * s;
      c.residual = 30e3 + 120e3 * s;
    },
  },
  {
    id: 'rod-seal-leak',
    title: 'Rod seal leaks',
    shows: 'Fluid in the shell, level falls with nothing wet outside; input decays in a hold.',
    appearance: { rubber: 'unfit' },
    tells: ['look-over', 'low-pressure-hold'],
    leaves: ['vacuum-hold-rest'],
    extent: extentOf('Input lost in a minute, as a share', 'ratio', (c) => c.inputLeak * 60),
    apply: (c, s) => void (c.inputLeak = (0.04 + 0.2 * s) / 60),
  },
  {
    id: 'breather-restricted',
    title: 'Breather restricted',
    shows:
      'A covered or clogged breather at the look-over. A quick application rises slowly, which no measured step asks for: the slow curve is normal.',
    appearance: { breather: 'unfit' },
    tells: ['look-over'],
    leaves: ['vacuum-hold-rest', 'pressure-hold', 'boost-curve'],
    extent: extentOf('Free area, as a share', 'ratio', (c) => c.breather),
    apply: (c, s) => void (c.breather = 0.25 - 0.22 * s),
  },
  {
    id: 'supply-hose-collapsed',
    title: 'Supply hose collapsed',
    shows: 'The source reads well; supply at the unit sags and recovers slowly when applied.',
    appearance: {},
    tells: ['boost-curve'],
    leaves: ['vacuum-hold-rest', 'pressure-hold'],
    extent: extentOf('Free area of the hose, as a share', 'ratio', (c) => c.hose),
    apply: (c, s) => void (c.hose = 0.01 + 0.02 * (1 - s)),
  },
  {
    id: 'return-spring-weak',
    title: 'Return spring weak',
    shows: 'Slow or incomplete release, residual pressure, slightly high ratio.',
    appearance: {},
    tells: ['release'],
    leaves: ['vacuum-hold-rest', 'pressure-hold'],
    extent: extentOf('Spring force, as a share', 'ratio', (c) => c.springFactor),
    apply: (c, s) => {
      c.springFactor = 1 - 0.9 * s;
      c.residual = 40e3 + 120e3 * s;
      c.releaseLag = 0.2 + 0.8 * s;
    },
  },
  {
    id: 'external-hydraulic-leak',
    title: 'External hydraulic leak',
    shows: 'Output decays and a leak point is wet.',
    appearance: { 'end-cap': 'dripping' },
    tells: ['low-pressure-hold', 'pressure-hold', 'leak-look'],
    leaves: ['vacuum-hold-rest'],
    extent: extentOf('Output lost in a minute, as a share', 'ratio', (c) => c.outputLeak * 60),
    apply: (c, s) => void (c.outputLeak = (0.04 + 0.3 * s) / 60),
  },
  {
    id: 'power-piston-friction',
    title: 'Power piston binds',
    shows: 'Ratio low over the whole range, wide hysteresis, all holds good.',
    appearance: {},
    tells: ['boost-curve'],
    leaves: ['vacuum-hold-rest', 'vacuum-hold-applied', 'pressure-hold'],
    extent: extentOf('Force that arrives, as a share', 'ratio', (c) => c.efficiencyFactor),
    apply: (c, s) => {
      c.efficiencyFactor = 1 - (0.1 + 0.3 * s);
      c.powerFriction = 0.1 + 0.3 * s;
    },
  },
  {
    id: 'switch-out-of-range',
    title: 'Stop-lamp switch out of range',
    shows: 'Closing pressure too high, or it never closes.',
    appearance: {},
    tells: ['stop-lamp-switch'],
    leaves: ['boost-curve', 'pressure-hold'],
    extent: extentOf('Closes later by', 'difference', (c) => c.switchShift),
    apply: (c, s) => void (c.switchShift = 500e3 + 1500e3 * s),
  },
];
