import type { Part } from '../../contract/part';
import type { Prevalences } from '../../contract/prevalence';
import type { Symptom } from '../../contract/symptom';

/** What of a pedal-operated vacuum unit, and around it, can be worked on, and what that can change. */
export const inlineParts: readonly Part[] = [
  {
    id: 'source',
    title: 'Vacuum source',
    faults: ['low-source-vacuum'],
    affects: ['source-vacuum', 'pedal-drop', 'reserve'],
  },
  {
    id: 'hose',
    title: 'Vacuum hose',
    faults: ['hose-collapsing'],
    affects: ['hose-look', 'source-vacuum', 'pedal-drop'],
  },
  {
    id: 'check-valve',
    title: 'Check valve',
    faults: ['check-valve-leak', 'check-valve-blocked'],
    affects: ['check-valve', 'reserve-soak', 'source-vacuum', 'pedal-drop', 'assist-curve', 'same-force-pair'],
  },
  {
    id: 'diaphragm',
    title: 'Diaphragm and shell',
    faults: ['diaphragm-leak'],
    affects: ['vacuum-hold-applied', 'vacuum-hold-rest', 'assist-curve', 'reserve'],
  },
  {
    id: 'control-valve',
    title: 'Control valve and its filter',
    faults: ['atmosphere-valve-leak', 'vacuum-valve-leak', 'valve-filter-restricted'],
    affects: ['look-over', 'vacuum-hold-rest', 'vacuum-hold-applied', 'reserve-soak', 'release', 'assist-curve'],
  },
  {
    id: 'reaction-disc',
    title: 'Reaction disc',
    faults: ['reaction-disc-missing'],
    affects: ['assist-curve', 'release'],
  },
  {
    id: 'output-rod',
    title: 'Output rod, set',
    faults: ['rod-gap-too-small', 'rod-gap-too-large'],
    affects: ['rod-gap', 'release', 'assist-curve'],
  },
  {
    id: 'return-spring',
    title: 'Return spring',
    faults: ['return-spring-broken'],
    affects: ['assist-curve', 'release'],
  },
  {
    id: 'master-cylinder',
    title: 'Master cylinder',
    faults: ['master-cylinder-bypass'],
    affects: ['assist-curve', 'unassisted-curve', 'rod-gap', 'release'],
  },
  {
    id: 'behind',
    title: 'Behind the booster: valve, calipers, hoses, linings',
    faults: ['combination-valve-shuttled', 'wheel-cylinder-seized', 'hose-swollen', 'linings-glazed'],
    affects: ['behind-the-booster', 'pedal-drop'],
  },
];

/** What drivers say of one. */
export const inlineSymptoms: readonly Symptom[] = [
  {
    id: 'hard-pedal',
    title: 'Hard pedal',
    of: {
      'check-valve-blocked': 'always',
      'low-source-vacuum': 'usually',
      'hose-collapsing': 'usually',
      'diaphragm-leak': 'usually',
      'vacuum-valve-leak': 'sometimes',
      'wheel-cylinder-seized': 'sometimes',
      'linings-glazed': 'sometimes',
      'combination-valve-shuttled': 'sometimes',
    },
  },
  {
    id: 'hard-in-the-morning',
    title: 'Hard in the morning, right later',
    of: { 'check-valve-leak': 'usually', 'atmosphere-valve-leak': 'usually', 'hose-collapsing': 'sometimes' },
  },
  {
    id: 'second-stroke-hard',
    title: 'Second stroke hard',
    of: {
      'hose-collapsing': 'usually',
      'low-source-vacuum': 'usually',
      'check-valve-blocked': 'sometimes',
      'vacuum-valve-leak': 'sometimes',
    },
  },
  { id: 'grabs', title: 'Grabs at a touch', of: { 'reaction-disc-missing': 'always' } },
  {
    id: 'long-pedal',
    title: 'Long pedal',
    of: { 'rod-gap-too-large': 'usually', 'hose-swollen': 'sometimes', 'master-cylinder-bypass': 'sometimes' },
  },
  { id: 'pedal-sinks', title: 'Pedal sinks while held', of: { 'master-cylinder-bypass': 'usually' } },
  {
    id: 'drags',
    title: 'Brakes drag',
    of: {
      'rod-gap-too-small': 'usually',
      'return-spring-broken': 'usually',
      'wheel-cylinder-seized': 'usually',
      'hose-swollen': 'usually',
    },
  },
  { id: 'hiss-at-rest', title: 'Hiss with the pedal up', of: { 'atmosphere-valve-leak': 'usually' } },
  { id: 'hiss-held', title: 'Hiss while held', of: { 'diaphragm-leak': 'usually', 'vacuum-valve-leak': 'usually' } },
  {
    id: 'slow-back',
    title: 'Pedal slow to come back',
    of: { 'valve-filter-restricted': 'usually', 'return-spring-broken': 'sometimes' },
  },
  {
    id: 'idle-rough',
    title: 'Engine idles roughly',
    of: { 'diaphragm-leak': 'usually', 'atmosphere-valve-leak': 'usually' },
  },
];

/** How common they are among units that come in; the others are ordinary. */
export const inlinePrevalence: Prevalences = {
  'check-valve-leak': 'common',
  'diaphragm-leak': 'common',
  'low-source-vacuum': 'common',
  'reaction-disc-missing': 'hardly-ever',
  'return-spring-broken': 'seldom',
  'check-valve-blocked': 'seldom',
  'rod-gap-too-large': 'seldom',
  'rod-gap-too-small': 'seldom',
};
