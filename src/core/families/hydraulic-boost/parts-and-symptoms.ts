import type { Part } from '../../contract/part';
import type { Prevalences } from '../../contract/prevalence';
import type { Symptom } from '../../contract/symptom';

/** What of a steering-pump booster, and around it, can be worked on, and what that can change. */
export const hydraulicParts: readonly Part[] = [
  {
    id: 'pump',
    title: 'Steering pump and its relief',
    faults: ['pump-relief-low', 'pump-flow-low'],
    affects: ['pump-relief', 'assist-curve', 'steering-share', 'fluid-look'],
  },
  {
    id: 'belt',
    title: 'Belt',
    faults: ['belt-slip'],
    affects: ['fluid-look', 'pump-relief', 'assist-curve', 'steering-share'],
  },
  {
    id: 'reserve-accumulator',
    title: 'Reserve accumulator',
    faults: ['reserve-accumulator-dead'],
    affects: ['reserve', 'reserve-soak'],
  },
  {
    id: 'reserve-check',
    title: 'Reserve check valve',
    faults: ['reserve-check-leak'],
    affects: ['reserve-soak', 'reserve'],
  },
  {
    id: 'spool',
    title: 'Spool and its seals',
    faults: ['spool-sticking', 'spool-seal-leak'],
    affects: ['assist-curve', 'off-drop', 'return-pressure'],
  },
  { id: 'rod-seal', title: 'Rod seal', faults: ['rod-seal-leak'], affects: ['leak-look', 'assist-curve'] },
  { id: 'return-line', title: 'Return line', faults: ['return-restricted'], affects: ['return-pressure', 'leak-look'] },
  {
    id: 'fluid',
    title: 'Fluid, changed and bled',
    faults: ['air-in-fluid', 'fluid-contaminated'],
    affects: ['fluid-look', 'assist-curve', 'bleed'],
  },
  { id: 'pressure-hose', title: 'Pressure hose', faults: ['hose-underrated'], affects: ['hose-look', 'leak-look'] },
  {
    id: 'priority',
    title: 'Steering gear and its priority',
    faults: ['steering-flow-priority'],
    affects: ['steering-share'],
  },
];

/** What drivers say of one. */
export const hydraulicSymptoms: readonly Symptom[] = [
  {
    id: 'hard-pedal',
    title: 'Hard pedal',
    of: {
      'pump-relief-low': 'usually',
      'belt-slip': 'usually',
      'pump-flow-low': 'sometimes',
      'spool-sticking': 'sometimes',
      'spool-seal-leak': 'sometimes',
    },
  },
  {
    id: 'hard-turning',
    title: 'Hard pedal while turning',
    of: { 'steering-flow-priority': 'always', 'pump-flow-low': 'usually', 'belt-slip': 'sometimes' },
  },
  {
    id: 'no-reserve',
    title: 'Hard with the engine off',
    of: { 'reserve-accumulator-dead': 'always', 'reserve-check-leak': 'usually' },
  },
  { id: 'squeal', title: 'Squeals or groans', of: { 'belt-slip': 'usually', 'air-in-fluid': 'usually' } },
  {
    id: 'steering-heavy',
    title: 'Steering heavy too',
    of: { 'pump-relief-low': 'usually', 'pump-flow-low': 'usually', 'belt-slip': 'usually' },
  },
  {
    id: 'grabs',
    title: 'Grabs or will not let go',
    of: { 'spool-sticking': 'usually', 'return-restricted': 'usually' },
  },
  { id: 'fluid-lost', title: 'Fluid is lost', of: { 'rod-seal-leak': 'usually', 'hose-underrated': 'sometimes' } },
];

/** How common they are among units that come in; the others are ordinary. */
export const hydraulicPrevalence: Prevalences = {
  'belt-slip': 'common',
  'reserve-accumulator-dead': 'common',
  'fluid-contaminated': 'common',
  'hose-underrated': 'seldom',
  'steering-flow-priority': 'seldom',
  'return-restricted': 'seldom',
};
