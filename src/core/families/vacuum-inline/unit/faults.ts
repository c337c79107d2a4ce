import { chokedLeak } from '../../../physics/nozzle';
import { extentOf, thereOrNot, type Fault } from '../../../contract/fault';
import type { VacuumInlineUnit } from './geometry';

/** Parameters of the model that faults change; everything is what a sound unit on a sound vehicle has at the start. */
export interface InlineCondition {
  /** Vacuum of the source, fraction of what it should be. */
  sourceFactor: number;
  /** Factor on the hose's area while the brakes draw air from a hose under vacuum. */
  hoseWhileDrawing: number;
  /** Effective leak areas, m2: back through the check valve, rear to front, atmosphere to rear. */
  checkLeak: number;
  diaphragmLeak: number;
  vacuumValveLeak: number;
  atmosphereValveLeak: number;
  /** Factor on the check valve's free area. */
  checkArea: number;
  /** Factor on the area of the air inlet. */
  inlet: number;
  servoFactor: number;
  /** False when the reaction disc is not there: no jump, no feel. */
  jumpIn: boolean;
  springFactor: number;
  /** Output that stays after release, Pa, and the time constant of the way back, s. */
  residual: number;
  releaseLag: number;
  /** Share of the held output lost per second as the master cylinder's piston creeps. */
  masterBypass: number;
  /** Added to a correct rod gap, m. */
  rodGapShift: number;
}

export function soundInline(): InlineCondition {
  return {
    sourceFactor: 1,
    hoseWhileDrawing: 1,
    checkLeak: 0,
    diaphragmLeak: 0,
    vacuumValveLeak: 0,
    atmosphereValveLeak: 0,
    checkArea: 1,
    inlet: 1,
    servoFactor: 1,
    jumpIn: true,
    springFactor: 1,
    residual: 0,
    releaseLag: 0.002,
    masterBypass: 0,
    rodGapShift: 0,
  };
}

type InlineFault = Fault<VacuumInlineUnit, InlineCondition>;

const mm2 = 1e-6;
/** A fault that the unit itself does not feel: it sits behind the master cylinder. */
const behindTheUnit = () => undefined;

/** Every fault of the family as a change of the model, and the foundation faults that mimic it. */
export const vacuumInlineFaults: readonly InlineFault[] = [
  {
    id: 'low-source-vacuum',
    title: 'Source vacuum low',
    shows: 'Too little vacuum at the unit at idle; everything that follows is short of assist.',
    appearance: {},
    tells: ['source-vacuum'],
    leaves: [],
    extent: extentOf('Vacuum of the source, as a share', 'ratio', (c) => c.sourceFactor),
    apply: (c, s) => void (c.sourceFactor = 0.72 - 0.4 * s),
  },
  {
    id: 'hose-collapsing',
    title: 'Vacuum hose collapses',
    shows: 'Good vacuum at idle, but it falls and stays down while the brakes are held.',
    appearance: { 'vacuum-hose': 'unfit' },
    tells: ['hose-look', 'source-vacuum', 'pedal-drop'],
    leaves: ['vacuum-hold-rest'],
    extent: extentOf('Bore left while air is drawn, as a share of its area', 'ratio', (c) => c.hoseWhileDrawing),
    apply: (c, s) => void (c.hoseWhileDrawing = 0.002 * (1 - s)),
  },
  {
    id: 'check-valve-leak',
    title: 'Check valve leaks back',
    shows: 'No rush of air when it is pulled; the reserve is good now and gone after a soak.',
    appearance: {},
    tells: ['check-valve', 'reserve-soak'],
    leaves: ['reserve'],
    extent: extentOf('Leak', 'flow', (c) => chokedLeak(c.checkLeak)),
    apply: (c, s) => void (c.checkLeak = (0.03 + 0.5 * s) * mm2),
  },
  {
    id: 'check-valve-blocked',
    title: 'Check valve blocked',
    shows: 'The unit draws down slowly and recovers slowly after a stroke.',
    appearance: {},
    tells: ['assist-curve', 'source-vacuum', 'pedal-drop', 'same-force-pair'],
    leaves: [],
    extent: extentOf('Free area, as a share', 'ratio', (c) => c.checkArea),
    apply: (c, s) => void (c.checkArea = 0.02 * (1 - 0.9 * s)),
  },
  {
    id: 'diaphragm-leak',
    title: 'Diaphragm leaks',
    shows: 'The applied hold fails while the rest hold is good; on a weak source it uses up what assist there is.',
    appearance: {},
    tells: ['vacuum-hold-applied'],
    leaves: ['vacuum-hold-rest'],
    extent: extentOf('Leak', 'flow', (c) => chokedLeak(c.diaphragmLeak)),
    apply: (c, s) => void (c.diaphragmLeak = (0.06 + 1.2 * s) * mm2),
  },
  {
    id: 'atmosphere-valve-leak',
    title: 'Atmosphere valve leaks',
    shows: 'Hiss at the pedal at rest; the rest hold fails and the reserve does not last a soak.',
    appearance: { 'air-inlet': 'unfit' },
    tells: ['look-over', 'vacuum-hold-rest', 'reserve-soak'],
    leaves: [],
    extent: extentOf('Leak', 'flow', (c) => chokedLeak(c.atmosphereValveLeak)),
    apply: (c, s) => void (c.atmosphereValveLeak = (0.04 + 0.8 * s) * mm2),
  },
  {
    id: 'vacuum-valve-leak',
    title: 'Vacuum valve leaks',
    shows: 'The applied hold fails, the engine changes note while the pedal is held; the rest hold is good.',
    appearance: {},
    tells: ['vacuum-hold-applied'],
    leaves: ['vacuum-hold-rest'],
    extent: extentOf('Leak', 'flow', (c) => chokedLeak(c.vacuumValveLeak)),
    apply: (c, s) => void (c.vacuumValveLeak = (0.08 + 1.6 * s) * mm2),
  },
  {
    id: 'valve-filter-restricted',
    title: 'Valve filter restricted',
    shows:
      'Assist comes late at a quick stroke, so that strokes after a soak look unassisted; the slow curve is normal.',
    appearance: { 'air-inlet': 'unfit' },
    tells: ['look-over', 'reserve-soak'],
    leaves: ['assist-curve'],
    extent: extentOf('Free area of the air inlet, as a share', 'ratio', (c) => c.inlet),
    apply: (c, s) => void (c.inlet = 0.12 - 0.11 * s),
  },
  {
    id: 'reaction-disc-missing',
    title: 'Reaction disc missing',
    shows: 'Over-sensitive: the slope is far too high and there is no jump-in to feel.',
    appearance: {},
    tells: ['assist-curve'],
    leaves: [],
    extent: extentOf('Servo ratio', 'ratio', (c, unit) => unit.servoRatio * c.servoFactor),
    apply: (c, s) => {
      c.servoFactor = 1.7 + s;
      c.jumpIn = false;
    },
  },
  {
    id: 'rod-gap-too-small',
    title: 'Output-rod gap too small',
    shows: 'The compensating port stays shut: pressure stays after release and the brakes drag.',
    appearance: {},
    tells: ['release', 'rod-gap'],
    leaves: ['vacuum-hold-rest', 'vacuum-hold-applied'],
    extent: extentOf('Gap against the middle of what is allowed', 'length', (c) => c.rodGapShift),
    apply: (c, s) => {
      c.rodGapShift = -(0.5 + s) * 1e-3;
      c.residual = 40e3 + 150e3 * s;
      c.releaseLag = 0.1;
    },
  },
  {
    id: 'rod-gap-too-large',
    title: 'Output-rod gap too large',
    shows: 'Lost travel before the brakes bite; the curves are normal.',
    appearance: {},
    tells: ['rod-gap'],
    leaves: ['assist-curve', 'unassisted-curve'],
    extent: extentOf('Gap against the middle of what is allowed', 'length', (c) => c.rodGapShift),
    apply: (c, s) => void (c.rodGapShift = (0.7 + 2 * s) * 1e-3),
  },
  {
    id: 'return-spring-broken',
    title: 'Return spring broken',
    shows: 'Slow or incomplete release; the output is slightly high beyond run-out.',
    appearance: {},
    tells: ['assist-curve', 'release'],
    leaves: [],
    extent: extentOf('Spring force', 'force', (c, unit) => unit.springForce * c.springFactor),
    apply: (c, s) => {
      c.springFactor = 0.3 - 0.3 * s;
      c.releaseLag = 0.4 + 0.8 * s;
      c.residual = 40e3 + 60e3 * s;
    },
  },
  {
    id: 'master-cylinder-bypass',
    title: 'Master cylinder bypasses',
    shows: 'The output falls and the pedal creeps while it is held, nothing is wet.',
    appearance: {},
    tells: ['assist-curve'],
    leaves: [],
    extent: extentOf('Output lost in a minute, as a share', 'ratio', (c) => c.masterBypass * 60),
    apply: (c, s) => void (c.masterBypass = (0.2 + 1.5 * s) / 60),
  },
  {
    id: 'combination-valve-shuttled',
    title: 'Combination valve stands to one side',
    shows: 'Assist is good, the pedal is hard, one axle does nothing and the red lamp is on.',
    appearance: { 'combination-valve': 'found' },
    tells: ['behind-the-booster'],
    leaves: ['reserve', 'same-force-pair'],
    extent: thereOrNot,
    apply: behindTheUnit,
  },
  {
    id: 'wheel-cylinder-seized',
    title: 'Wheel cylinder or caliper seized',
    shows: 'Assist and pressure are good, but no fluid moves at that wheel.',
    appearance: { 'seized-wheel': 'found' },
    tells: ['behind-the-booster'],
    leaves: ['reserve', 'same-force-pair'],
    extent: thereOrNot,
    apply: behindTheUnit,
  },
  {
    id: 'hose-swollen',
    title: 'Brake hose swollen',
    shows: 'Pressure comes late at one wheel and is trapped after release.',
    appearance: { 'brake-hoses': 'found' },
    tells: ['behind-the-booster'],
    leaves: [],
    extent: thereOrNot,
    apply: behindTheUnit,
  },
  {
    id: 'linings-glazed',
    title: 'Linings glazed',
    shows: 'Assist and pressure are good and the vehicle still does not slow.',
    appearance: { linings: 'found' },
    tells: ['behind-the-booster'],
    leaves: ['reserve', 'same-force-pair'],
    extent: thereOrNot,
    apply: behindTheUnit,
  },
];
