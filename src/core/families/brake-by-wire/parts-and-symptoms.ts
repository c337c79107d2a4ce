import type { Part } from '../../contract/part';
import type { Prevalences } from '../../contract/prevalence';
import type { Symptom } from '../../contract/symptom';

const wheelSteps = ['tracking', 'panic', 'release', 'fallback'] as const;

const commonParts: readonly Part[] = [
  {
    id: 'isolation-valve',
    title: 'Isolation valve',
    faults: ['isolation-valve-leak'],
    affects: ['isolation-hold', 'fallback', 'simulator-curve'],
  },
  {
    id: 'simulator-valve',
    title: 'Simulator valve',
    faults: ['simulator-valve-stuck'],
    affects: ['simulator-curve', 'isolation-hold', 'fallback'],
  },
  {
    id: 'wheel-valves',
    title: 'Inlet and outlet valves',
    faults: ['inlet-valve-leak', 'outlet-valve-leak'],
    affects: wheelSteps,
  },
  {
    id: 'wheel-circuits',
    title: 'Wheel circuits, bled',
    faults: ['air-in-circuit'],
    affects: [...wheelSteps, 'isolation-hold'],
  },
  {
    id: 'pressure-sensors',
    title: 'Pressure sensors',
    faults: ['wheel-sensor-offset'],
    affects: ['sensor-transfer', 'tracking', 'panic', 'fault-codes'],
  },
  {
    id: 'stroke-sensor',
    title: 'Stroke sensor of the pedal',
    faults: ['stroke-sensor-implausible'],
    affects: ['fault-codes', 'simulator-curve', 'tracking'],
  },
  {
    id: 'backup-bank',
    title: 'Backup bank',
    faults: ['backup-capacitor-weak'],
    affects: ['backup', 'make-safe-after', 'fault-codes'],
  },
  { id: 'ground', title: 'Ground', faults: ['ground-resistance'], affects: ['supply-check', 'panic', 'fault-codes'] },
  {
    id: 'controller',
    title: 'Controller',
    faults: ['never-sleeps'],
    affects: ['make-safe-before', 'fault-codes', 'sensor-transfer', 'tracking', 'panic', 'release'],
  },
];

export const plungerParts: readonly Part[] = [
  ...commonParts,
  {
    id: 'source',
    title: 'Plunger, its seal and motor',
    faults: ['plunger-seal-leak', 'plunger-motor-weak'],
    affects: ['supply-check', 'isolation-hold', 'tracking', 'panic', 'release'],
  },
];

export const accumulatorParts: readonly Part[] = [
  ...commonParts,
  {
    id: 'store-sensor',
    title: 'Pressure sensor of the store',
    faults: ['store-sensor-gain'],
    affects: ['sensor-transfer', 'bleed-down', 'pump-switch'],
  },
  {
    id: 'source',
    title: 'Pump and its motor',
    faults: ['pump-weak'],
    affects: ['supply-check', 'charge-from-empty', 'pump-switch', 'rest-cycle'],
  },
  {
    id: 'store',
    title: 'Accumulator',
    faults: ['store-precharge-low'],
    affects: ['charge-from-empty', 'bleed-down', 'pump-switch', 'rest-cycle', 'make-dead-after'],
  },
];

/** What drivers say of a decoupled unit. */
export const byWireSymptoms: readonly Symptom[] = [
  {
    id: 'hard-pedal',
    title: 'Hard pedal',
    of: { 'simulator-valve-stuck': 'always', 'backup-capacitor-weak': 'never' },
  },
  { id: 'pedal-moves', title: 'Pedal creeps while held', of: { 'isolation-valve-leak': 'usually' } },
  {
    id: 'pulls',
    title: 'Pulls to one side',
    of: {
      'outlet-valve-leak': 'usually',
      'inlet-valve-leak': 'usually',
      'wheel-sensor-offset': 'usually',
      'air-in-circuit': 'sometimes',
    },
  },
  { id: 'drags', title: 'A brake drags', of: { 'inlet-valve-leak': 'usually' } },
  {
    id: 'late',
    title: 'Comes late when stamped on',
    of: { 'plunger-motor-weak': 'usually', 'air-in-circuit': 'usually', 'ground-resistance': 'sometimes' },
  },
  {
    id: 'pump-often',
    title: 'Pump runs often or long',
    of: { 'store-precharge-low': 'usually', 'pump-weak': 'usually', 'store-sensor-gain': 'sometimes' },
  },
  {
    id: 'lamp-red',
    title: 'Red lamp',
    of: {
      'stroke-sensor-implausible': 'always',
      'simulator-valve-stuck': 'usually',
      'store-precharge-low': 'sometimes',
    },
  },
  {
    id: 'lamp-amber',
    title: 'Amber lamp',
    of: { 'backup-capacitor-weak': 'usually', 'outlet-valve-leak': 'sometimes', 'ground-resistance': 'sometimes' },
  },
  { id: 'battery-flat', title: 'Battery flat in the morning', of: { 'never-sleeps': 'usually' } },
];

/** How common they are among units that come in; the others are ordinary. */
export const byWirePrevalence: Prevalences = {
  'air-in-circuit': 'common',
  'backup-capacitor-weak': 'common',
  'store-precharge-low': 'common',
  'simulator-valve-stuck': 'seldom',
  'never-sleeps': 'seldom',
  'stroke-sensor-implausible': 'seldom',
};
