import type { Part } from '../../contract/part';
import type { Prevalences } from '../../contract/prevalence';
import type { Symptom } from '../../contract/symptom';

/** What of a motor booster can be worked on, and what that can change. */
export const motorBoostParts: readonly Part[] = [
  {
    id: 'stroke-sensor',
    title: 'Stroke sensor',
    faults: ['sensor-track-a-offset', 'sensor-track-dropout', 'sensor-magnet-shifted'],
    affects: ['sensor-tracks', 'assist-curve', 'fault-codes'],
  },
  {
    id: 'feed',
    title: 'Feed with its fuse',
    faults: ['supply-drop', 'fuse-open'],
    affects: ['supply-check', 'assist-curve', 'step-response', 'fault-codes'],
  },
  {
    id: 'ground',
    title: 'Ground',
    faults: ['ground-resistance'],
    affects: ['supply-check', 'assist-curve', 'step-response', 'fault-codes'],
  },
  {
    id: 'ignition-line',
    title: 'Ignition line',
    faults: ['ignition-line-missing'],
    affects: ['assist-curve', 'make-safe-before', 'drain', 'fault-codes'],
  },
  {
    id: 'motor',
    title: 'Motor',
    faults: ['motor-weak'],
    affects: ['assist-curve', 'step-response', 'supply-check', 'release'],
  },
  {
    id: 'gears',
    title: 'Gears',
    faults: ['gear-worn'],
    affects: ['assist-curve', 'step-response', 'release', 'unassisted-curve'],
  },
  {
    id: 'return-spring',
    title: 'Return spring',
    faults: ['return-spring-weak'],
    affects: ['assist-curve', 'unassisted-curve', 'release'],
  },
  {
    id: 'controller',
    title: 'Controller',
    faults: ['controller-in-fallback', 'never-sleeps'],
    affects: ['make-safe-before', 'assist-curve', 'step-response', 'release', 'drain', 'fault-codes'],
  },
];

/** What drivers say of one. */
export const motorBoostSymptoms: readonly Symptom[] = [
  {
    id: 'hard-pedal',
    title: 'Hard pedal',
    of: {
      'fuse-open': 'always',
      'ignition-line-missing': 'always',
      'controller-in-fallback': 'usually',
      'motor-weak': 'usually',
      'supply-drop': 'sometimes',
      'ground-resistance': 'sometimes',
      'never-sleeps': 'never',
    },
  },
  {
    id: 'assist-fades',
    title: 'Assist fades in a long stop',
    of: { 'supply-drop': 'usually', 'ground-resistance': 'usually', 'motor-weak': 'sometimes', 'fuse-open': 'never' },
  },
  { id: 'late', title: 'Comes late when stamped on', of: { 'gear-worn': 'usually', 'supply-drop': 'sometimes' } },
  { id: 'drags', title: 'Brakes drag', of: { 'return-spring-weak': 'usually', 'gear-worn': 'sometimes' } },
  {
    id: 'lamp',
    title: 'Lamp at start',
    of: {
      'sensor-track-a-offset': 'usually',
      'sensor-track-dropout': 'sometimes',
      'sensor-magnet-shifted': 'sometimes',
      'fuse-open': 'always',
      'ignition-line-missing': 'always',
      'controller-in-fallback': 'always',
      'ground-resistance': 'sometimes',
    },
  },
  { id: 'battery-flat', title: 'Battery flat in the morning', of: { 'never-sleeps': 'usually' } },
  { id: 'noise', title: 'Grinds or knocks', of: { 'gear-worn': 'usually' } },
];

/** How common they are among units that come in; the others are ordinary. */
export const motorBoostPrevalence: Prevalences = {
  'supply-drop': 'common',
  'ground-resistance': 'common',
  'sensor-magnet-shifted': 'seldom',
  'return-spring-weak': 'seldom',
  'never-sleeps': 'seldom',
};
