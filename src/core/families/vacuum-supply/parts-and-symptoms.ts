import type { Part } from '../../contract/part';
import type { Prevalences } from '../../contract/prevalence';
import type { Symptom } from '../../contract/symptom';

/** What of a vacuum source can be worked on, and what that can change. */
export const supplyParts: readonly Part[] = [
  { id: 'pump', title: 'Pump', faults: ['pump-worn'], affects: ['pump-down', 'pump-switch', 'source-vacuum'] },
  {
    id: 'pump-motor',
    title: 'Pump motor and its relay',
    faults: ['pump-motor-dead'],
    affects: ['look-over', 'pump-down', 'pump-switch'],
  },
  {
    id: 'lines',
    title: 'Lines, unions and reservoir',
    faults: ['supply-leak'],
    affects: ['look-over', 'pump-down', 'pump-switch', 'rest-leak'],
  },
  {
    id: 'check-valve',
    title: 'Reservoir check valve',
    faults: ['reservoir-check-leak'],
    affects: ['check-valve', 'rest-leak'],
  },
  {
    id: 'switch',
    title: 'Vacuum switch',
    faults: ['switch-cut-in-low', 'switch-cut-out-high'],
    affects: ['pump-switch', 'rest-leak'],
  },
  { id: 'sensor', title: 'Vacuum sensor', faults: ['sensor-offset'], affects: ['pump-switch', 'source-vacuum'] },
  {
    id: 'hose',
    title: 'Hose to the pump',
    faults: ['hose-restricted'],
    affects: ['pump-down', 'pump-switch', 'source-vacuum'],
  },
];

/** What drivers say of one. */
export const supplySymptoms: readonly Symptom[] = [
  {
    id: 'hard-pedal',
    title: 'Hard pedal',
    of: {
      'pump-motor-dead': 'usually',
      'hose-restricted': 'usually',
      'pump-worn': 'sometimes',
      'switch-cut-in-low': 'sometimes',
      'supply-leak': 'sometimes',
    },
  },
  { id: 'pump-often', title: 'Pump runs often', of: { 'supply-leak': 'usually', 'reservoir-check-leak': 'usually' } },
  {
    id: 'pump-long',
    title: 'Pump runs long',
    of: {
      'pump-worn': 'usually',
      'hose-restricted': 'usually',
      'switch-cut-out-high': 'usually',
      'supply-leak': 'sometimes',
    },
  },
  { id: 'pump-never', title: 'Pump never runs', of: { 'pump-motor-dead': 'always' } },
  {
    id: 'lamp',
    title: 'Lamp for low vacuum',
    of: {
      'pump-motor-dead': 'usually',
      'sensor-offset': 'usually',
      'pump-worn': 'sometimes',
      'supply-leak': 'sometimes',
      'switch-cut-in-low': 'sometimes',
    },
  },
  {
    id: 'hard-in-the-morning',
    title: 'Hard in the morning, right later',
    of: { 'reservoir-check-leak': 'usually', 'supply-leak': 'sometimes' },
  },
];

/** How common they are among units that come in; the others are ordinary. */
export const supplyPrevalence: Prevalences = {
  'pump-worn': 'common',
  'supply-leak': 'common',
  'sensor-offset': 'seldom',
};
