import type { Part } from '../../contract/part';
import type { Prevalences } from '../../contract/prevalence';
import type { Symptom } from '../../contract/symptom';

/** What of a motor-pump unit can be worked on, and what that can change. */
export const motorPumpParts: readonly Part[] = [
  {
    id: 'motor',
    title: 'Motor',
    faults: ['motor-worn', 'motor-flooded'],
    affects: ['supply-check', 'rest-cycle', 'charge-from-empty', 'fluid-look'],
  },
  { id: 'pump', title: 'Pump', faults: ['pump-vanes-worn'], affects: ['rest-cycle', 'charge-from-empty'] },
  {
    id: 'accumulator',
    title: 'Accumulator',
    faults: ['accumulator-precharge-low', 'accumulator-bladder-failed'],
    affects: ['charge-from-empty', 'bleed-down', 'rest-cycle', 'applications', 'make-dead-after'],
  },
  {
    id: 'pressure-switch',
    title: 'Pressure switch',
    faults: ['pressure-switch-low', 'pressure-switch-high', 'pressure-switch-stuck', 'switch-band-narrow'],
    affects: ['charge-from-empty', 'bleed-down', 'pump-switch', 'rest-cycle', 'leak-look'],
  },
  { id: 'outlet-check', title: 'Pump outlet check', faults: ['outlet-check-leak'], affects: ['rest-cycle'] },
  {
    id: 'booster',
    title: 'Booster valve and seals',
    faults: ['internal-leak'],
    affects: ['rest-cycle', 'assist-curve', 'unassisted-curve', 'leak-look'],
  },
  {
    id: 'supply',
    title: 'Relay and feed',
    faults: ['relay-or-supply-drop'],
    affects: ['supply-check', 'rest-cycle', 'charge-from-empty'],
  },
  { id: 'relief', title: 'Relief valve', faults: ['relief-stuck-open'], affects: ['charge-from-empty', 'pump-switch'] },
];

/** What drivers say of one. */
export const motorPumpSymptoms: readonly Symptom[] = [
  {
    id: 'pump-often',
    title: 'Pump runs often',
    of: {
      'accumulator-precharge-low': 'usually',
      'accumulator-bladder-failed': 'usually',
      'internal-leak': 'usually',
      'outlet-check-leak': 'usually',
      'switch-band-narrow': 'usually',
    },
  },
  {
    id: 'pump-long',
    title: 'Pump runs long',
    of: {
      'motor-worn': 'usually',
      'pump-vanes-worn': 'usually',
      'relay-or-supply-drop': 'usually',
      'pressure-switch-stuck': 'always',
      'relief-stuck-open': 'always',
    },
  },
  {
    id: 'lamp',
    title: 'Lamp at start',
    of: {
      'accumulator-bladder-failed': 'usually',
      'relief-stuck-open': 'usually',
      'motor-flooded': 'usually',
      'pressure-switch-low': 'sometimes',
      'motor-worn': 'sometimes',
      'accumulator-precharge-low': 'sometimes',
    },
  },
  {
    id: 'hard-pedal',
    title: 'Hard pedal',
    of: {
      'relief-stuck-open': 'usually',
      'motor-flooded': 'usually',
      'accumulator-bladder-failed': 'sometimes',
      'pressure-switch-low': 'sometimes',
    },
  },
  {
    id: 'few-strokes',
    title: 'Hard after few strokes',
    of: {
      'accumulator-precharge-low': 'usually',
      'accumulator-bladder-failed': 'usually',
      'pressure-switch-low': 'sometimes',
    },
  },
  {
    id: 'battery-flat',
    title: 'Battery flat in the morning',
    of: { 'internal-leak': 'sometimes', 'outlet-check-leak': 'sometimes', 'pressure-switch-stuck': 'sometimes' },
  },
  {
    id: 'noise',
    title: 'Motor loud',
    of: { 'motor-worn': 'usually', 'motor-flooded': 'sometimes', 'pump-vanes-worn': 'sometimes' },
  },
];

/** How common they are among units that come in; the others are ordinary. */
export const motorPumpPrevalence: Prevalences = {
  'accumulator-precharge-low': 'common',
  'motor-worn': 'common',
  'relay-or-supply-drop': 'common',
  'pressure-switch-stuck': 'seldom',
  'relief-stuck-open': 'seldom',
  'switch-band-narrow': 'seldom',
  'motor-flooded': 'seldom',
};
