import type { Part } from '../../contract/part';
import type { Prevalences } from '../../contract/prevalence';
import type { Symptom } from '../../contract/symptom';

/** What of such a vehicle can be worked on, and what that can change. */
export const blendedParts: readonly Part[] = [
  {
    id: 'controller',
    title: 'Brake controller',
    faults: ['regen-shortfall-not-filled', 'handover-dip', 'panic-not-recognised'],
    affects: ['log-check', 'closure', 'handover', 'panic-events', 'regen-limit', 'lamp-states'],
  },
  {
    id: 'linings',
    title: 'Linings and discs',
    faults: ['friction-gain-low'],
    affects: ['closure', 'handover', 'regen-limit'],
  },
  {
    id: 'master-sensors',
    title: 'Master cylinder sensors',
    faults: ['master-sensor-disagreement'],
    affects: ['pressure-order', 'lamp-states'],
  },
  {
    id: 'pedal-sensor',
    title: 'Pedal travel sensor',
    faults: ['panic-not-recognised'],
    affects: ['panic-events', 'closure'],
  },
  {
    id: 'stop-switches',
    title: 'Stop-lamp switches',
    faults: ['stop-switch-disagreement'],
    affects: ['lamp-states'],
  },
  {
    id: 'store',
    title: 'Store and its pump',
    faults: ['store-low-under-load'],
    affects: ['pressure-order', 'closure', 'lamp-states'],
  },
  {
    id: 'wheel-speed',
    title: 'Wheel-speed sensor',
    faults: ['wheel-speed-dropout'],
    affects: ['log-check', 'handover', 'lamp-states'],
  },
];

/** What drivers say of one. */
export const blendedSymptoms: readonly Symptom[] = [
  {
    id: 'lurch',
    title: 'Lurches at walking pace',
    of: { 'handover-dip': 'always', 'wheel-speed-dropout': 'sometimes', 'stop-switch-disagreement': 'never' },
  },
  {
    id: 'longer-after-descent',
    title: 'Stops later with a full battery',
    of: { 'regen-shortfall-not-filled': 'usually', 'friction-gain-low': 'sometimes' },
  },
  {
    id: 'weak-brakes',
    title: 'Has to be pressed harder',
    of: {
      'friction-gain-low': 'usually',
      'regen-shortfall-not-filled': 'sometimes',
      'store-low-under-load': 'sometimes',
    },
  },
  {
    id: 'slow-in-a-hurry',
    title: 'Bites late when stamped on',
    of: { 'panic-not-recognised': 'usually', 'store-low-under-load': 'sometimes' },
  },
  {
    id: 'lamp-red',
    title: 'Red lamp or buzzer',
    of: { 'store-low-under-load': 'usually', 'master-sensor-disagreement': 'sometimes', 'handover-dip': 'never' },
  },
  {
    id: 'lamp-amber',
    title: 'Amber lamp',
    of: {
      'master-sensor-disagreement': 'usually',
      'wheel-speed-dropout': 'usually',
      'stop-switch-disagreement': 'sometimes',
    },
  },
  {
    id: 'stop-lamps',
    title: 'Stop lamps late, or stay on',
    of: { 'stop-switch-disagreement': 'usually', 'friction-gain-low': 'never' },
  },
];

/** How common they are among vehicles that come in; the others are ordinary. */
export const blendedPrevalence: Prevalences = {
  'handover-dip': 'common',
  'friction-gain-low': 'common',
  'panic-not-recognised': 'seldom',
  'store-low-under-load': 'seldom',
};
