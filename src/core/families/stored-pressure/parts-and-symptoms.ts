import type { Part } from '../../contract/part';
import type { Prevalences } from '../../contract/prevalence';
import type { Symptom } from '../../contract/symptom';

/** What of a central stored-pressure system can be worked on, and what that can change. */
export const storedParts: readonly Part[] = [
  { id: 'pump-1', title: 'Pump 1', faults: ['pump-1-weak'], affects: ['charge-from-empty', 'rest-cycle'] },
  { id: 'pump-2', title: 'Pump 2', faults: ['pump-2-weak'], affects: ['charge-from-empty', 'rest-cycle'] },
  {
    id: 'sphere-1',
    title: 'Sphere 1',
    faults: ['sphere-1-low', 'wrong-sphere-fitted'],
    affects: ['charge-from-empty', 'rest-cycle', 'sphere-precharge', 'applications'],
  },
  {
    id: 'sphere-2',
    title: 'Sphere 2',
    faults: ['sphere-2-low'],
    affects: ['charge-from-empty', 'rest-cycle', 'sphere-precharge', 'applications'],
  },
  {
    id: 'valve-block-1',
    title: 'Valve block 1',
    faults: ['valve-block-1-leak'],
    affects: ['rest-cycle', 'soak', 'soak-isolated', 'pump-switch'],
  },
  {
    id: 'valve-block-2',
    title: 'Valve block 2',
    faults: ['valve-block-2-leak'],
    affects: ['rest-cycle', 'soak', 'soak-isolated', 'pump-switch'],
  },
  {
    id: 'cut-out',
    title: 'Cut-out valve',
    faults: ['cut-out-shifted'],
    affects: ['pump-switch', 'rest-cycle', 'charge-from-empty'],
  },
  {
    id: 'metering-valve',
    title: 'Metering valve and feel cylinder',
    faults: ['metering-valve-worn', 'feel-cylinder-leak'],
    affects: ['rest-cycle', 'soak', 'soak-isolated', 'metering-curve'],
  },
  {
    id: 'levelling',
    title: 'Levelling: valve, restrictor, springs',
    faults: ['levelling-leak', 'levelling-propping-springs', 'levelling-restrictor-failed'],
    affects: ['ride-height', 'bump', 'rest-cycle', 'soak', 'soak-isolated'],
  },
  {
    id: 'fluid',
    title: 'Fluid, changed',
    faults: ['wrong-fluid'],
    affects: ['walk-round', 'rest-cycle', 'soak', 'soak-isolated', 'metering-curve', 'sphere-precharge'],
  },
  { id: 'parking-cable', title: 'Parking cable', faults: ['parking-cable-seized'], affects: ['walk-round'] },
];

/** What drivers say of one. */
export const storedSymptoms: readonly Symptom[] = [
  {
    id: 'lamp-long',
    title: 'Lamps long to go out',
    of: {
      'pump-1-weak': 'usually',
      'pump-2-weak': 'usually',
      'sphere-1-low': 'usually',
      'sphere-2-low': 'usually',
      'levelling-leak': 'sometimes',
    },
  },
  {
    // Its valves lose a little by design: after a night both are on in many a sound one.
    id: 'lamp-after-night',
    title: 'Lamps on after the night',
    ofSound: 'sometimes',
    of: {
      'valve-block-1-leak': 'usually',
      'valve-block-2-leak': 'usually',
      'levelling-leak': 'usually',
      'metering-valve-worn': 'usually',
    },
  },
  {
    id: 'lamp-within-hours',
    title: 'Lamps on again within an hour or two of standing',
    of: {
      'valve-block-1-leak': 'usually',
      'valve-block-2-leak': 'usually',
      'levelling-leak': 'usually',
      'metering-valve-worn': 'usually',
    },
  },
  {
    id: 'pump-often',
    title: 'Pumps tick often',
    of: {
      'sphere-1-low': 'usually',
      'sphere-2-low': 'usually',
      'valve-block-1-leak': 'usually',
      'valve-block-2-leak': 'usually',
      'wrong-sphere-fitted': 'usually',
      'cut-out-shifted': 'sometimes',
    },
  },
  {
    id: 'sits-low',
    title: 'Sits low or leans',
    of: { 'levelling-leak': 'usually', 'levelling-propping-springs': 'usually' },
  },
  { id: 'kicks', title: 'Pedal kicks over a bump', of: { 'levelling-restrictor-failed': 'always' } },
  {
    id: 'feel',
    title: 'Pedal feels wrong',
    of: { 'feel-cylinder-leak': 'usually', 'metering-valve-worn': 'usually', 'wrong-fluid': 'sometimes' },
  },
  { id: 'parking', title: 'Parking brake does not free', of: { 'parking-cable-seized': 'usually' } },
];

/** How common they are among units that come in; the others are ordinary. */
export const storedPrevalence: Prevalences = {
  'sphere-1-low': 'common',
  'sphere-2-low': 'common',
  'wrong-sphere-fitted': 'seldom',
  'levelling-propping-springs': 'seldom',
  'cut-out-shifted': 'seldom',
  'wrong-fluid': 'hardly-ever',
};
