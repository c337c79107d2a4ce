import { extentOf, thereOrNot, type Fault } from '../../contract/fault';
import type { HydraulicBoostUnit } from './geometry';

/** Parameters of the system that faults change. */
export interface HydraulicBoostCondition {
  /** Relief pressure and pump flow as shares; flow that slips away under load. */
  relief: number;
  flow: number;
  slip: number;
  /** Absolute precharge of the reserve as a share; leak of its check valve, times that of a sound one. */
  reserveGas: number;
  reserveLeak: number;
  /** Hysteresis, times; pressure that it applies by itself, Pa; boost that leaks past the spool, as a share. */
  hysteresis: number;
  selfApply: number;
  spoolLeak: number;
  /** Back pressure in the return line, times; the lag of release, s. */
  returnFactor: number;
  releaseLag: number;
  /** Amplitude of the pulses that air makes, Pa; share that steering takes away. */
  pulse: number;
  steeringTakes: number;
}

export function soundHydraulicBoost(): HydraulicBoostCondition {
  return {
    relief: 1,
    flow: 1,
    slip: 0,
    reserveGas: 1,
    reserveLeak: 1,
    hysteresis: 1,
    selfApply: 0,
    spoolLeak: 0,
    returnFactor: 1,
    releaseLag: 0.05,
    pulse: 0,
    steeringTakes: 0.08,
  };
}

type HydraulicBoostFault = Fault<HydraulicBoostUnit, HydraulicBoostCondition>;

/** Every fault of the family as a change of the model. */
export const hydraulicBoostFaults: readonly HydraulicBoostFault[] = [
  {
    id: 'pump-relief-low',
    title: 'Pump relief low',
    shows: 'Run-out comes early: the pump’s line does not reach its pressure.',
    appearance: {},
    tells: ['pump-relief', 'assist-curve'],
    leaves: [],
    extent: extentOf('Relief pressure', 'gauge', (c, unit) => unit.relief * c.relief),
    apply: (c, s) => void (c.relief = 0.85 - 0.4 * s),
  },
  {
    id: 'pump-flow-low',
    title: 'Pump flow low',
    shows: 'Flow at idle is short, and boost sags while steering.',
    appearance: {},
    tells: ['pump-relief', 'steering-share'],
    leaves: ['reserve'],
    extent: extentOf('Pump flow', 'pump-flow', (c, unit) => unit.pumpFlow * c.flow),
    apply(c, s) {
      c.flow = 0.7 - 0.4 * s;
      c.steeringTakes = 0.3 + 0.4 * s;
    },
  },
  {
    id: 'belt-slip',
    title: 'Belt slips',
    shows: 'Flow is right without load; under load it squeals and pressure fails.',
    appearance: { belt: 'unfit' },
    tells: ['fluid-look', 'pump-relief', 'assist-curve', 'steering-share'],
    leaves: [],
    extent: extentOf('Flow lost under load, as a share', 'ratio', (c) => c.slip),
    apply(c, s) {
      c.slip = 0.2 + 0.5 * s;
      c.steeringTakes = 0.3 + 0.4 * s;
    },
  },
  {
    id: 'reserve-accumulator-dead',
    title: 'Reserve accumulator dead',
    shows: 'With the engine off not even the first stroke is assisted.',
    appearance: {},
    tells: ['reserve', 'reserve-soak'],
    leaves: ['assist-curve', 'pump-relief'],
    extent: thereOrNot,
    apply: (c) => void (c.reserveGas = 0.04),
  },
  {
    id: 'reserve-check-leak',
    title: 'Reserve check valve leaks',
    shows: 'Strokes in reserve now, none after a soak.',
    appearance: {},
    tells: ['reserve-soak'],
    leaves: ['reserve'],
    extent: extentOf('Leak of the reserve when charged', 'flow', (c, unit) => unit.reserve.leak * c.reserveLeak),
    apply: (c, s) => void (c.reserveLeak = 12 + 60 * s),
  },
  {
    id: 'spool-sticking',
    title: 'Spool sticking',
    shows: 'It applies itself a little and comes back slowly; wide hysteresis.',
    appearance: {},
    tells: ['assist-curve'],
    leaves: [],
    extent: extentOf('Hysteresis at the rod', 'force', (c, unit) => unit.hysteresis * c.hysteresis),
    apply(c, s) {
      c.hysteresis = 2.3 + 1.2 * s;
      c.selfApply = 150e3 + 500e3 * s;
      c.releaseLag = 0.5 + s;
    },
  },
  {
    id: 'spool-seal-leak',
    title: 'Spool seal leaks',
    shows: 'Boost is lost past the spool: run-out early at a pump that is right.',
    appearance: { 'spool-plug': 'damp' },
    tells: ['assist-curve'],
    leaves: ['pump-relief'],
    extent: extentOf('Boost lost past the spool, as a share', 'ratio', (c) => c.spoolLeak),
    apply: (c, s) => void (c.spoolLeak = 0.18 + 0.4 * s),
  },
  {
    id: 'rod-seal-leak',
    title: 'Rod seal leaks',
    shows: 'Fluid behind the push rod’s boot, on the carpet.',
    appearance: { 'rod-seal': 'dripping' },
    tells: ['leak-look'],
    leaves: [],
    extent: thereOrNot,
    apply: () => undefined,
  },
  {
    id: 'return-restricted',
    title: 'Return restricted',
    shows: 'Brakes drag: back pressure in the return line stays in the booster.',
    appearance: {},
    tells: ['return-pressure'],
    leaves: [],
    extent: extentOf('Back pressure, times a sound line’s', 'ratio', (c) => c.returnFactor),
    apply(c, s) {
      c.returnFactor = 3.2 + 6 * s;
      c.releaseLag = 0.4 + s;
    },
  },
  {
    id: 'air-in-fluid',
    title: 'Air in the fluid',
    shows: 'Groan and foam; the boost pressure trembles.',
    appearance: { foam: 'unfit' },
    tells: ['fluid-look'],
    leaves: [],
    extent: extentOf('Trembling of the boost', 'difference', (c) => c.pulse),
    apply: (c, s) => void (c.pulse = 60e3 + 200e3 * s),
  },
  {
    id: 'fluid-contaminated',
    title: 'Fluid contaminated',
    shows: 'Dark or gritty: everything in the circuit wears, the spool first.',
    appearance: { colour: 'unfit' },
    tells: ['fluid-look'],
    leaves: [],
    extent: extentOf('Hysteresis at the rod', 'force', (c, unit) => unit.hysteresis * c.hysteresis),
    apply: (c, s) => void (c.hysteresis = 1.3 + s),
  },
  {
    id: 'hose-underrated',
    title: 'Hose not rated for it',
    shows: 'A hose of a lower rating than the relief pressure, or twisted at its elbow.',
    appearance: { rating: 'unfit' },
    tells: ['hose-look'],
    leaves: [],
    extent: thereOrNot,
    apply: () => undefined,
  },
  {
    id: 'steering-flow-priority',
    title: 'Steering takes it all',
    shows: 'Turning the wheel at idle starves the brake, or the brake the steering.',
    appearance: {},
    tells: ['steering-share'],
    leaves: [],
    extent: extentOf('Taken by the steering, as a share', 'ratio', (c) => c.steeringTakes),
    apply: (c, s) => void (c.steeringTakes = 0.35 + 0.4 * s),
  },
];
