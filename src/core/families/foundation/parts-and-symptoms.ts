import type { Part } from '../../contract/part';
import type { Prevalences } from '../../contract/prevalence';
import type { Symptom } from '../../contract/symptom';

/** What behind the unit can be worked on, and what that can change. */
export const foundationParts: readonly Part[] = [
  {
    id: 'combination-valve',
    title: 'Combination valve',
    faults: ['combination-valve-shuttled', 'proportioning-shifted'],
    affects: ['combination-valve', 'proportioning', 'seized-check', 'base-pair', 'complaint', 'bleed'],
  },
  {
    id: 'wheel-cylinders',
    title: 'Calipers and wheel cylinders',
    faults: ['wheel-cylinder-seized'],
    affects: ['seized-check', 'complaint', 'bleed'],
  },
  {
    id: 'hoses',
    title: 'Brake hoses',
    faults: ['hose-swollen'],
    affects: ['hose-look', 'seized-check', 'bleed'],
  },
  {
    id: 'master-cylinder',
    title: 'Master cylinder',
    faults: ['master-cylinder-bypass'],
    affects: ['base-pair', 'proportioning', 'combination-valve', 'complaint', 'bleed', 'stop-lamp-adjust'],
  },
  { id: 'linings', title: 'Linings', faults: ['linings-glazed'], affects: ['complaint', 'seized-check'] },
  {
    id: 'drum-adjusters',
    title: 'Drum adjusters',
    faults: ['drum-adjustment-slack'],
    affects: ['complaint', 'parking-brake', 'seized-check'],
  },
  {
    id: 'stop-lamp-switch',
    title: 'Stop-lamp switch',
    faults: ['stop-switch-misadjusted', 'stop-switch-slack'],
    affects: ['stop-lamp-adjust', 'complaint'],
  },
  { id: 'level-float', title: 'Level float', faults: ['level-float-failed'], affects: ['red-lamp', 'complaint'] },
  { id: 'lamp-wire', title: 'Lamp wire', faults: ['lamp-wire-grounded'], affects: ['red-lamp', 'complaint'] },
  { id: 'parking-cable', title: 'Parking cable', faults: ['parking-cable-seized'], affects: ['parking-brake'] },
  {
    id: 'fluid',
    title: 'Fluid',
    faults: ['air-in-hydraulics', 'fluid-wrong', 'fluid-level-low'],
    affects: ['fluid-look', 'bleed', 'complaint', 'base-pair'],
  },
];

/** What drivers say of what sits behind the unit. */
export const foundationSymptoms: readonly Symptom[] = [
  {
    id: 'hard-pedal',
    title: 'Pedal rock hard',
    of: { 'combination-valve-shuttled': 'usually', 'wheel-cylinder-seized': 'sometimes', 'air-in-hydraulics': 'never' },
  },
  {
    id: 'spongy',
    title: 'Pedal spongy, better when pumped',
    of: { 'air-in-hydraulics': 'always', 'fluid-wrong': 'sometimes', 'drum-adjustment-slack': 'sometimes' },
  },
  {
    id: 'sinks',
    title: 'Pedal sinks under the foot',
    of: { 'master-cylinder-bypass': 'usually', 'fluid-level-low': 'sometimes' },
  },
  {
    id: 'low-pedal',
    title: 'First stroke goes far',
    of: { 'drum-adjustment-slack': 'always', 'air-in-hydraulics': 'sometimes', 'fluid-level-low': 'sometimes' },
  },
  {
    id: 'pulls',
    title: 'Pulls to a side',
    of: { 'wheel-cylinder-seized': 'usually', 'hose-swollen': 'sometimes', 'linings-glazed': 'sometimes' },
  },
  {
    id: 'rear-idle',
    title: 'Rear wheels lock early, or never brake',
    of: { 'proportioning-shifted': 'sometimes', 'combination-valve-shuttled': 'sometimes' },
  },
  { id: 'drags', title: 'A wheel gets hot', of: { 'hose-swollen': 'usually', 'wheel-cylinder-seized': 'sometimes' } },
  {
    id: 'weak',
    title: 'Slows too little',
    of: { 'linings-glazed': 'usually', 'combination-valve-shuttled': 'usually' },
  },
  {
    id: 'red-lamp',
    title: 'Red lamp on',
    of: {
      'combination-valve-shuttled': 'usually',
      'level-float-failed': 'always',
      'lamp-wire-grounded': 'always',
      'fluid-level-low': 'usually',
    },
  },
  {
    id: 'stop-lamps',
    title: 'Stop lamps stay on',
    of: { 'stop-switch-misadjusted': 'usually', 'stop-switch-slack': 'never' },
  },
  {
    id: 'stop-lamps-late',
    title: 'Stop lamps come late, or not at all',
    of: { 'stop-switch-slack': 'usually', 'stop-switch-misadjusted': 'never' },
  },
  {
    id: 'parking',
    title: 'Parking brake does not hold or let go',
    of: { 'parking-cable-seized': 'always', 'drum-adjustment-slack': 'sometimes' },
  },
];

/** How common they are among vehicles that come in; the others are ordinary. */
export const foundationPrevalence: Prevalences = {
  'wheel-cylinder-seized': 'common',
  'air-in-hydraulics': 'common',
  'stop-switch-misadjusted': 'common',
  'proportioning-shifted': 'seldom',
  'fluid-wrong': 'seldom',
  'lamp-wire-grounded': 'seldom',
};
