import type { Part } from '../../contract/part';
import type { Prevalences } from '../../contract/prevalence';
import type { Symptom } from '../../contract/symptom';

/** What of a pedal valve can be worked on, and what that can change. */
export const pedalValveParts: readonly Part[] = [
  {
    id: 'orifice-upper',
    title: 'Upper orifice',
    faults: ['orifice-plugged-upper'],
    affects: ['step-response', 'modulation-curve'],
  },
  {
    id: 'orifice-lower',
    title: 'Lower orifice',
    faults: ['orifice-plugged-lower'],
    affects: ['step-response', 'modulation-curve'],
  },
  {
    id: 'spools',
    title: 'Spools',
    faults: ['spool-sticking', 'spool-worn', 'residual-pressure'],
    affects: ['modulation-curve', 'neutral-leak', 'step-response', 'residual'],
  },
  {
    id: 'springs',
    title: 'Springs',
    faults: ['springs-set'],
    affects: ['modulation-curve', 'step-response', 'residual'],
  },
  {
    id: 'stop',
    title: 'Stop of the pedal, set',
    faults: ['stop-misadjusted'],
    affects: ['modulation-curve', 'step-response'],
  },
  {
    id: 'charging-valve',
    title: 'Charging valve',
    faults: ['charging-valve-low'],
    affects: ['charging', 'applications'],
  },
  {
    id: 'accumulator-front',
    title: 'Front accumulator',
    faults: ['accumulator-front-low'],
    affects: ['charging', 'applications'],
  },
  {
    id: 'accumulator-rear',
    title: 'Rear accumulator',
    faults: ['accumulator-rear-low'],
    affects: ['charging', 'applications'],
  },
  { id: 'tank-line', title: 'Tank line', faults: ['tank-line-restricted'], affects: ['modulation-curve', 'residual'] },
  {
    id: 'alarm-switch',
    title: 'Alarm switch',
    faults: ['alarm-switch-shifted'],
    affects: ['applications', 'charging'],
  },
];

/** What drivers say of one. */
export const pedalValveSymptoms: readonly Symptom[] = [
  {
    id: 'late',
    title: 'Comes late when stamped on',
    of: { 'orifice-plugged-upper': 'usually', 'orifice-plugged-lower': 'usually' },
  },
  {
    id: 'weak',
    title: 'Brakes weak',
    of: {
      'charging-valve-low': 'usually',
      'springs-set': 'usually',
      'stop-misadjusted': 'usually',
      'accumulator-front-low': 'sometimes',
      'accumulator-rear-low': 'sometimes',
    },
  },
  { id: 'grabs', title: 'Grabs, or hard to dose', of: { 'spool-sticking': 'usually' } },
  {
    id: 'drags',
    title: 'Brakes drag',
    of: { 'residual-pressure': 'usually', 'tank-line-restricted': 'usually', 'spool-sticking': 'sometimes' },
  },
  {
    id: 'few-strokes',
    title: 'Few strokes with the engine off',
    of: { 'accumulator-front-low': 'usually', 'accumulator-rear-low': 'usually', 'spool-worn': 'sometimes' },
  },
  {
    id: 'pump-often',
    title: 'Charges often',
    of: { 'spool-worn': 'usually', 'accumulator-front-low': 'usually', 'accumulator-rear-low': 'usually' },
  },
  { id: 'alarm', title: 'Alarm with good brakes, or none without', of: { 'alarm-switch-shifted': 'usually' } },
];

/** How common they are among units that come in; the others are ordinary. */
export const pedalValvePrevalence: Prevalences = {
  'spool-worn': 'common',
  'accumulator-front-low': 'common',
  'accumulator-rear-low': 'common',
  'springs-set': 'seldom',
  'stop-misadjusted': 'seldom',
  'alarm-switch-shifted': 'seldom',
};
