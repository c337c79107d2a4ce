import type { Part } from '../../../contract/part';
import type { Prevalences } from '../../../contract/prevalence';
import type { Symptom } from '../../../contract/symptom';

/** What of a remote unit of either layout can be worked on, and what that can change. */
export const remoteParts: readonly Part[] = [
  {
    id: 'power-diaphragm',
    title: 'Power diaphragm',
    faults: ['power-diaphragm-leak'],
    affects: ['vacuum-hold-applied', 'vacuum-hold-rest', 'vacuum-draw', 'boost-curve'],
  },
  {
    id: 'control-valve',
    title: 'Control valve',
    faults: ['atmosphere-valve-leak', 'vacuum-valve-leak'],
    affects: ['look-over', 'vacuum-hold-rest', 'vacuum-hold-applied', 'boost-curve', 'release'],
  },
  {
    id: 'control-piston',
    title: 'Control piston and its seal',
    faults: ['control-piston-sticking', 'control-piston-seal-leak'],
    affects: ['boost-curve', 'look-over', 'low-pressure-hold', 'pressure-hold', 'release'],
  },
  {
    id: 'breather',
    title: 'Breather and its filter',
    faults: ['breather-restricted'],
    affects: ['look-over', 'release', 'vacuum-hold-rest'],
  },
  {
    id: 'supply-hose',
    title: 'Supply hose',
    faults: ['supply-hose-collapsed'],
    affects: ['boost-curve', 'vacuum-draw'],
  },
  {
    id: 'stop-lamp-switch',
    title: 'Stop-lamp switch',
    faults: ['switch-out-of-range'],
    affects: ['stop-lamp-switch', 'leak-look'],
  },
  { id: 'return-spring', title: 'Return spring', faults: ['return-spring-weak'], affects: ['release', 'boost-curve'] },
  {
    id: 'unions',
    title: 'Unions and plugs',
    faults: ['external-hydraulic-leak'],
    affects: ['low-pressure-hold', 'pressure-hold', 'leak-look'],
  },
  {
    id: 'power-piston',
    title: 'Power piston and its guide',
    faults: ['power-piston-friction'],
    affects: ['boost-curve', 'look-over', 'release'],
  },
];

/** With a slave cylinder in one line with the power piston. */
export const inLineSlaveParts: readonly Part[] = [
  ...remoteParts,
  {
    id: 'slave-piston',
    title: 'Slave piston and its seal',
    faults: ['slave-piston-seal-bypass'],
    affects: ['pressure-hold', 'boost-curve', 'release'],
  },
  {
    id: 'bypass-check',
    title: 'Bypass check',
    faults: ['bypass-check-leak', 'bypass-check-blocked'],
    affects: ['gauge-agreement', 'boost-curve', 'pressure-hold', 'release'],
  },
  {
    id: 'rod-seal',
    title: 'Push-rod seal',
    faults: ['rod-seal-leak'],
    affects: ['look-over', 'low-pressure-hold', 'pressure-hold'],
  },
];

/** With a cylinder that pulls a lever, and a reservoir. */
export const servoCylinderParts: readonly Part[] = [
  ...remoteParts,
  {
    id: 'reservoir',
    title: 'Vacuum reservoir',
    faults: ['reservoir-leak'],
    affects: ['look-over', 'vacuum-hold-rest', 'vacuum-hold-applied'],
  },
];

/** What drivers say of one. */
export const remoteSymptoms: readonly Symptom[] = [
  {
    id: 'hard-pedal',
    title: 'Hard pedal',
    of: {
      'control-piston-sticking': 'usually',
      'supply-hose-collapsed': 'usually',
      'power-diaphragm-leak': 'usually',
      'vacuum-valve-leak': 'sometimes',
      'reservoir-leak': 'sometimes',
      'power-piston-friction': 'sometimes',
      'bypass-check-leak': 'sometimes',
    },
  },
  {
    id: 'second-stroke-hard',
    title: 'Second stroke hard',
    of: {
      'vacuum-valve-leak': 'usually',
      'supply-hose-collapsed': 'usually',
      'power-diaphragm-leak': 'sometimes',
      'reservoir-leak': 'sometimes',
    },
  },
  {
    id: 'late',
    title: 'Brakes come on late and all at once',
    of: {
      'control-piston-sticking': 'usually',
      'power-piston-friction': 'usually',
      'breather-restricted': 'sometimes',
    },
  },
  {
    id: 'drags',
    title: 'Brakes drag',
    of: {
      'return-spring-weak': 'usually',
      'bypass-check-blocked': 'usually',
      'breather-restricted': 'usually',
      'power-piston-friction': 'sometimes',
      'control-piston-sticking': 'sometimes',
    },
  },
  { id: 'hiss-at-rest', title: 'Hiss with the pedal up', of: { 'atmosphere-valve-leak': 'usually' } },
  {
    id: 'hiss-held',
    title: 'Hiss while held',
    of: { 'vacuum-valve-leak': 'usually', 'power-diaphragm-leak': 'usually' },
  },
  {
    id: 'pedal-sinks',
    title: 'Pedal sinks while held',
    of: {
      'control-piston-seal-leak': 'usually',
      'slave-piston-seal-bypass': 'usually',
      'external-hydraulic-leak': 'usually',
      'rod-seal-leak': 'usually',
      'bypass-check-leak': 'sometimes',
    },
  },
  {
    id: 'fluid-lost',
    title: 'Fluid is lost',
    of: { 'rod-seal-leak': 'usually', 'control-piston-seal-leak': 'usually', 'external-hydraulic-leak': 'usually' },
  },
  { id: 'stop-lamp', title: 'Stop lamps late, or always on', of: { 'switch-out-of-range': 'always' } },
];

/** How common they are among units that come in; the others are ordinary. */
export const remotePrevalence: Prevalences = {
  'vacuum-valve-leak': 'common',
  'power-diaphragm-leak': 'common',
  'slave-piston-seal-bypass': 'common',
  'bypass-check-blocked': 'seldom',
  'return-spring-weak': 'seldom',
  'power-piston-friction': 'seldom',
  'rod-seal-leak': 'seldom',
};
