import { applyCircuitFault, circuitExtents } from '../../toolboxes/store/model/circuit-faults';
import { soundCircuit, type CircuitCondition } from '../../toolboxes/store/model/charging-circuit';
import { extentOf, type Fault } from '../../contract/fault';
import type { PedalValveUnit } from './geometry';

/** Parameters of a pedal valve that faults change. */
export interface PedalValveCondition {
  readonly front: CircuitCondition;
  readonly rear: CircuitCondition;
  /** First-order lag of each brake port while it rises, s. */
  frontLag: number;
  rearLag: number;
  /** Lag while it falls, s. */
  releaseLag: number;
  /** Hysteresis, times what it should be. */
  hysteresis: number;
  /** Modulation and maximum as shares; added to the cut-in angle, °. */
  modulation: number;
  maximum: number;
  cutInShift: number;
  /** Neutral leak, times that of a sound valve. */
  neutralLeak: number;
  /** Pressure that is left, Pa. */
  residual: number;
}

/** Time a sound spool takes through its orifice, s. */
const orificeLag = 0.05;

export function soundPedalValve(): PedalValveCondition {
  return {
    front: soundCircuit(),
    rear: soundCircuit(),
    frontLag: orificeLag,
    rearLag: orificeLag,
    releaseLag: orificeLag,
    hysteresis: 1,
    modulation: 1,
    maximum: 1,
    cutInShift: 0,
    neutralLeak: 1,
    residual: 0,
  };
}

type PedalValveFault = Fault<PedalValveUnit, PedalValveCondition>;

const front = circuitExtents<PedalValveCondition, PedalValveUnit>(
  (c) => c.front,
  (unit) => unit.front,
);
const rear = circuitExtents<PedalValveCondition, PedalValveUnit>(
  (c) => c.rear,
  (unit) => unit.rear,
);

/** Every fault of the family as a change of the model. */
export const pedalValveFaults: readonly PedalValveFault[] = [
  {
    id: 'orifice-plugged-upper',
    title: 'Upper orifice plugged',
    shows: 'The front circuit comes late at a quick application; over a slow press the circuits are a little apart.',
    appearance: {},
    tells: ['step-response'],
    leaves: [],
    extent: extentOf('Time constant of the front port', 'time', (c) => c.frontLag),
    apply: (c, s) => void (c.frontLag = 0.35 + 1.2 * s),
  },
  {
    id: 'orifice-plugged-lower',
    title: 'Lower orifice plugged',
    shows: 'The rear circuit comes late at a quick application; over a slow press the circuits are a little apart.',
    appearance: {},
    tells: ['step-response'],
    leaves: [],
    extent: extentOf('Time constant of the rear port', 'time', (c) => c.rearLag),
    apply: (c, s) => void (c.rearLag = 0.35 + 1.2 * s),
  },
  {
    id: 'spool-sticking',
    title: 'Spool sticking',
    shows: 'Wide hysteresis and a late cut-in; the pressure does not follow small moves.',
    appearance: {},
    tells: ['modulation-curve'],
    leaves: [],
    extent: extentOf('Hysteresis', 'angle', (c, unit) => unit.hysteresis * c.hysteresis),
    apply(c, s) {
      c.hysteresis = 2.2 + 2.5 * s;
      c.cutInShift += 0.4 + 1.2 * s;
    },
  },
  {
    id: 'spool-worn',
    title: 'Spool worn',
    shows: 'Oil runs to the tank with the pedal at rest, and the charging valve cycles.',
    appearance: {},
    tells: ['neutral-leak'],
    leaves: [],
    extent: extentOf('Neutral leak', 'flow', (c, unit) => unit.neutralLeak * c.neutralLeak),
    apply(c, s) {
      c.neutralLeak = 4 + 20 * s;
      c.front.leakFactor *= 2 + 8 * s;
      c.rear.leakFactor *= 2 + 8 * s;
    },
  },
  {
    id: 'springs-set',
    title: 'Springs set',
    shows: 'The curve is shallow and starts late, in both circuits alike.',
    appearance: {},
    tells: ['modulation-curve'],
    leaves: ['step-response', 'charging'],
    extent: extentOf('Modulation slope', 'slope-per-angle', (c, unit) => unit.modulation * c.modulation),
    apply(c, s) {
      c.modulation = 0.82 - 0.25 * s;
      c.cutInShift += 0.5 + 1.5 * s;
    },
  },
  {
    id: 'stop-misadjusted',
    title: 'Stop misadjusted',
    shows: 'The regulated maximum is off; the slope is right.',
    appearance: {},
    tells: ['modulation-curve'],
    leaves: ['residual'],
    extent: extentOf('Regulated maximum', 'gauge', (c, unit) => unit.regulatedMaximum * c.maximum),
    apply: (c, s) => void (c.maximum = 0.85 - 0.3 * s),
  },
  {
    id: 'charging-valve-low',
    title: 'Charging valve low',
    shows: 'It cuts in and out too low, so that a charge gives few strokes.',
    appearance: {},
    tells: ['charging'],
    leaves: [],
    extent: front['cut-out'],
    apply(c, s, unit) {
      applyCircuitFault(c.front, 'switch-low', s, unit.front);
      applyCircuitFault(c.rear, 'switch-low', s, unit.rear);
    },
  },
  {
    id: 'accumulator-front-low',
    title: 'Front accumulator low',
    shows: 'The front store’s knee is low and its strokes are few.',
    appearance: {},
    tells: ['charging'],
    leaves: [],
    extent: front.precharge,
    apply: (c, s, unit) => applyCircuitFault(c.front, 'precharge-low', s, unit.front),
  },
  {
    id: 'accumulator-rear-low',
    title: 'Rear accumulator low',
    shows: 'The rear store’s knee is low and its strokes are few.',
    appearance: {},
    tells: ['charging'],
    leaves: [],
    extent: rear.precharge,
    apply: (c, s, unit) => applyCircuitFault(c.rear, 'precharge-low', s, unit.rear),
  },
  {
    id: 'residual-pressure',
    title: 'Residual pressure',
    shows: 'Pressure stays in the brakes after release: they drag and the disc packs wear.',
    appearance: {},
    tells: ['residual'],
    leaves: [],
    extent: extentOf('Pressure that stays', 'difference', (c) => c.residual),
    apply: (c, s) => void (c.residual = 120e3 + 500e3 * s),
  },
  {
    id: 'tank-line-restricted',
    title: 'Tank line restricted',
    shows: 'The brakes let go slowly, and some pressure stays for a while.',
    appearance: {},
    tells: ['modulation-curve', 'residual'],
    leaves: [],
    extent: extentOf('Time constant of release', 'time', (c) => c.releaseLag),
    apply(c, s) {
      c.releaseLag = 0.5 + 1.5 * s;
      c.residual = 60e3 + 150e3 * s;
    },
  },
  {
    id: 'alarm-switch-shifted',
    title: 'Alarm switch shifted',
    shows: 'The alarm comes too late: the store is nearly used up by then.',
    appearance: {},
    tells: ['applications'],
    leaves: ['charging', 'modulation-curve'],
    extent: front.lamp,
    apply: (c, s, unit) => void (c.front.lampShift -= (0.09 + 0.2 * s) * unit.front.lamp),
  },
];
