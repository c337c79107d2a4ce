import { applyCircuitFault, circuitExtents } from '../../toolboxes/store/model/circuit-faults';
import { soundCircuit, type CircuitCondition } from '../../toolboxes/store/model/charging-circuit';
import { extentOf, thereOrNot, type Fault } from '../../contract/fault';
import type { MotorPumpUnit } from './geometry';

/** Parameters of a motor-pump unit that faults change. */
export interface MotorPumpCondition extends CircuitCondition {
  /** Motor current, times what it should be. */
  current: number;
  /** Resistance of the supply, ohm. */
  resistance: number;
}

/** Wiring and battery of a sound supply, ohm. */
const soundResistance = 0.006;

export function soundMotorPump(): MotorPumpCondition {
  return { ...soundCircuit(), current: 1, resistance: soundResistance };
}

type MotorPumpFault = Fault<MotorPumpUnit, MotorPumpCondition>;

const perMinute = 1e-6 / 60;

const circuit = circuitExtents<MotorPumpCondition, MotorPumpUnit>(
  (c) => c,
  (unit) => unit.store,
);

/** Every fault of the family as a change of the model. */
export const motorPumpFaults: readonly MotorPumpFault[] = [
  {
    id: 'motor-worn',
    title: 'Motor worn',
    shows: 'High current and slow: it runs long, the rest is normal.',
    appearance: {},
    tells: ['supply-check', 'rest-cycle'],
    leaves: ['pump-switch', 'applications'],
    extent: extentOf('Motor current at cut-out', 'current', (c, unit) => unit.ratedCurrent * c.current),
    apply(c, s) {
      c.flow *= 0.85 - 0.45 * s;
      c.current *= 1.35 + 0.5 * s;
    },
  },
  {
    id: 'motor-flooded',
    title: 'Motor flooded',
    shows: 'Fluid in the windings: very high current, fluid at the motor’s plug.',
    appearance: { 'motor-end': 'unfit' },
    tells: ['fluid-look', 'supply-check'],
    leaves: [],
    extent: extentOf('Motor current at cut-out', 'current', (c, unit) => unit.ratedCurrent * c.current),
    apply(c, s) {
      c.flow *= 0.95 - 0.1 * s;
      c.current *= 1.7 + 0.8 * s;
    },
  },
  {
    id: 'pump-vanes-worn',
    title: 'Pump vanes worn',
    shows: 'It runs long for every charge at ordinary current, the rest is normal.',
    appearance: {},
    tells: ['rest-cycle'],
    leaves: ['supply-check', 'pump-switch', 'applications'],
    extent: circuit.pump,
    apply: (c, s, unit) => applyCircuitFault(c, 'pump-weak', s, unit.store),
  },
  {
    id: 'accumulator-precharge-low',
    title: 'Precharge low',
    shows: 'The knee is low; run and rest are both short, and there are few strokes in a charge.',
    appearance: {},
    tells: ['charge-from-empty', 'bleed-down', 'rest-cycle'],
    leaves: [],
    extent: circuit.precharge,
    apply: (c, s, unit) => applyCircuitFault(c, 'precharge-low', s, unit.store),
  },
  {
    id: 'accumulator-bladder-failed',
    title: 'Accumulator bladder failed',
    shows: 'No knee: the pressure comes and goes at once, and the pump hammers on and off.',
    appearance: {},
    tells: ['charge-from-empty', 'bleed-down', 'rest-cycle'],
    leaves: [],
    extent: thereOrNot,
    apply: (c) => void (c.gas = 0),
  },
  {
    id: 'pressure-switch-low',
    title: 'Pressure switch shifted low',
    shows: 'Pump starts and stops below the sheet, and the charge is small.',
    appearance: {},
    tells: ['bleed-down', 'pump-switch', 'rest-cycle'],
    leaves: [],
    extent: circuit['cut-out'],
    apply: (c, s, unit) => applyCircuitFault(c, 'switch-low', s, unit.store),
  },
  {
    id: 'pressure-switch-high',
    title: 'Pressure switch shifted high',
    shows: 'Pump starts and stops above the sheet, close to the relief valve.',
    appearance: {},
    tells: ['bleed-down', 'pump-switch'],
    leaves: [],
    extent: circuit['cut-out'],
    apply: (c, s, unit) => applyCircuitFault(c, 'switch-high', s * 0.3, unit.store),
  },
  {
    id: 'pressure-switch-stuck',
    title: 'Pressure switch stuck',
    shows: 'The pump never stops: the relief valve holds the pressure until the motor’s limit.',
    appearance: {},
    tells: ['charge-from-empty', 'pump-switch', 'rest-cycle'],
    leaves: [],
    extent: thereOrNot,
    apply: (c) => void (c.stuck = true),
  },
  {
    id: 'outlet-check-leak',
    title: 'Pump outlet check leaks',
    shows: 'The pressure falls to nothing soon after the pump stops.',
    appearance: {},
    tells: ['rest-cycle'],
    leaves: [],
    extent: circuit['outlet-leak'],
    apply: (c, s) => void (c.outletLeak += (60 + 900 * s) * perMinute),
  },
  {
    id: 'internal-leak',
    title: 'Internal leak',
    shows: 'Rest is short with nobody on the pedal; the run is about normal.',
    appearance: {},
    tells: ['rest-cycle'],
    leaves: ['charge-from-empty', 'pump-switch'],
    extent: circuit.leak,
    apply: (c, s, unit) => applyCircuitFault(c, 'internal-leak', s, unit.store),
  },
  {
    id: 'relay-or-supply-drop',
    title: 'Relay or supply drop',
    shows: 'The voltage falls under load and the motor is slow.',
    appearance: { 'motor-end': 'note' },
    tells: ['supply-check', 'rest-cycle'],
    leaves: [],
    extent: extentOf('Supply drop at the rated current', 'voltage', (c, unit) => c.resistance * unit.ratedCurrent),
    apply(c, s) {
      c.resistance = soundResistance + 0.02 + 0.05 * s;
      c.flow *= 0.92 - 0.3 * s;
    },
  },
  {
    id: 'relief-stuck-open',
    title: 'Relief valve stuck open',
    shows: 'The pressure stops short of cut-out and the pump never stops.',
    appearance: {},
    tells: ['charge-from-empty'],
    leaves: [],
    extent: circuit.relief,
    apply: (c, s) => void (c.reliefShare = 0.95 - 0.45 * s),
  },
  {
    id: 'switch-band-narrow',
    title: 'Switch band narrow',
    shows: 'The pump starts again soon after it has stopped: run and rest both short, cut-in too high.',
    appearance: {},
    tells: ['bleed-down', 'pump-switch', 'rest-cycle'],
    leaves: [],
    extent: circuit['cut-in'],
    apply: (c, s, unit) => applyCircuitFault(c, 'switch-band-narrow', s, unit.store),
  },
];
