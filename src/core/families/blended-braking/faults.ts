import { extentOf, type Fault } from '../../contract/fault';
import type { BlendedUnit } from './geometry';

/** What faults change of a vehicle that brakes with motor and friction. */
export interface BlendedCondition {
  /** Share of what a full battery keeps the motor from giving that nobody fills in. */
  unfilled: number;
  /** Torque of the brakes for what their pressures say, as a share. */
  frictionGain: number;
  /** How late the friction brakes take over in the handover, s. */
  handoverLate: number;
  /** How long the motor goes on in a panic, s. */
  panicLate: number;
  /** Second master sensor, share of the first that it reads too much. */
  masterGain: number;
  /** How late the second stop switch is, s. */
  switchLate: number;
  /** What an application takes of the store, times a sound one's. */
  storeDrop: number;
  /** How often the speed falls away, per minute. */
  speedLost: number;
}

export function soundBlended(): BlendedCondition {
  return {
    unfilled: 0,
    frictionGain: 1,
    handoverLate: 0,
    panicLate: 0,
    masterGain: 0,
    switchLate: 0,
    storeDrop: 1,
    speedLost: 0,
  };
}

/** Every fault of the family as a change of the model. */
export const blendedFaults: readonly Fault<BlendedUnit, BlendedCondition>[] = [
  {
    id: 'regen-shortfall-not-filled',
    title: 'Regeneration falls short and is not filled in',
    shows:
      'At a full battery the motor gives less, and the friction brakes do not make up for it: longer stops after a descent, and a stamp on the pedal that is not answered in full.',
    appearance: {},
    tells: ['closure', 'panic-events', 'regen-limit'],
    leaves: ['handover', 'pressure-order'],
    extent: extentOf('Left unfilled, as a share', 'ratio', (c) => c.unfilled),
    apply: (c, s) => void (c.unfilled = 0.25 + 0.75 * s),
  },
  {
    id: 'friction-gain-low',
    title: 'Friction brakes give too little',
    shows:
      'Pressures are right and the vehicle slows too little: glazed linings or the wrong ones. Only what slowing down took shows it.',
    appearance: {},
    tells: ['closure'],
    leaves: ['handover', 'regen-limit', 'pressure-order'],
    extent: extentOf('Friction, share of what it should be', 'ratio', (c) => c.frictionGain),
    apply: (c, s) => void (c.frictionGain = 0.85 - 0.35 * s),
  },
  {
    id: 'handover-dip',
    title: 'Dip in the handover',
    shows: 'A lurch at walking pace: the motor lets go before the friction brakes have taken over.',
    appearance: {},
    tells: ['handover'],
    leaves: ['regen-limit', 'pressure-order'],
    extent: extentOf('Friction late by', 'time', (c) => c.handoverLate),
    apply: (c, s) => void (c.handoverLate = 0.4 + 0.8 * s),
  },
  {
    id: 'panic-not-recognised',
    title: 'Panic not recognised',
    shows: 'A stamp on the pedal is braked as any other: the motor is not cut off.',
    appearance: {},
    tells: ['panic-events'],
    leaves: ['regen-limit', 'pressure-order'],
    extent: extentOf('Motor goes on for', 'time', (c) => c.panicLate),
    apply: (c, s) => void (c.panicLate = 0.4 + 1.2 * s),
  },
  {
    id: 'master-sensor-disagreement',
    title: 'Master sensors disagree',
    shows: 'The two sensors of one pedal circuit drift apart as the pressure rises.',
    appearance: {},
    tells: ['pressure-order'],
    leaves: ['closure', 'handover', 'regen-limit'],
    extent: extentOf('Second reads more, as a share', 'ratio', (c) => c.masterGain),
    apply: (c, s) => void (c.masterGain = 0.08 + 0.25 * s),
  },
  {
    id: 'stop-switch-disagreement',
    title: 'Stop switches disagree',
    shows: 'One of the two stop switches comes late.',
    appearance: {},
    tells: ['lamp-states'],
    leaves: ['closure', 'handover', 'regen-limit', 'pressure-order'],
    extent: extentOf('Second late by', 'time', (c) => c.switchLate),
    apply: (c, s) => void (c.switchLate = 0.25 + 0.8 * s),
  },
  {
    id: 'store-low-under-load',
    title: 'Store low under load',
    shows: 'With every application the store falls towards the wheels: gas lost, or a pump that does not keep up.',
    appearance: {},
    tells: ['pressure-order'],
    leaves: ['closure', 'handover', 'regen-limit'],
    extent: extentOf('Taken by an application, times a sound store’s', 'ratio', (c) => c.storeDrop),
    apply: (c, s) => void (c.storeDrop = 3.5 + 4 * s),
  },
  {
    id: 'wheel-speed-dropout',
    title: 'Wheel speed drops out',
    shows: 'The speed falls away and comes back faster than any vehicle: a sensor, its ring or its plug.',
    appearance: {},
    tells: ['log-check'],
    leaves: ['closure', 'regen-limit', 'pressure-order'],
    extent: extentOf('Times a minute', 'ratio', (c) => c.speedLost),
    apply: (c, s) => void (c.speedLost = 1 + 4 * s),
  },
];
