import { nozzleFlow, airGasConstant } from '../../../physics/nozzle';
import type { Plant, Surroundings } from '../../../physics/plant';
import { restatedSource } from '../../../toolboxes/vacuum/source-vacuum';
import type { Stand } from '../../../contract/plan';
import type { InlineCondition } from './faults';
import type { VacuumInlineUnit } from './geometry';
import { restoreState, stateNumbers, unitModel } from './unit-model';

/** Hose from the engine to the unit's check valve. */
const hoseVolume = 0.2e-3;
const hoseArea = 45e-6;
/** The source settles, and lets its vacuum go once the engine stops, with these time constants, s. */
const idleLag = 0.4;
const stopLag = 0.5;
const pedalLag = 0.05;
/** A healthy idling engine or pump shows this vacuum at sea level, Pa (19.5 inHg). */
export const healthySeaLevelVacuum = 66_000;
/** Vacuum in a hose above which a soft one is sucked shut once air is drawn through it, Pa. */
const collapsesAbove = 15_000;
/** Pressure across the hose that counts as drawing, and below which it springs open again, Pa. */
const drawing = 400;
const springsOpen = 150;
/** Free play and give of pedal and linkage, m and m/N at the pedal. */
const freePlay = 8e-3;
const give = 25e-6;

/** Dynamics of the unit where it is mounted. */
export function inlineVehiclePlant(unit: VacuumInlineUnit, condition: InlineCondition, around: Surroundings): Plant {
  const { ambient, temperature } = around;
  const heat = airGasConstant * temperature;
  const idle = ambient - around.supply * condition.sourceFactor;
  const evacuated = around.startsFrom === 'evacuated';
  const begin = evacuated ? idle : ambient;
  const model = unitModel(unit, condition, {
    front: begin,
    rear: begin,
    temperature,
    benchVolume: around.benchVolume,
  });
  let source = begin;
  let hose = begin;
  let pedal = 0;
  let running = 0;
  let collapsed = 0;

  return {
    channels: ['pedal_force', 'pedal_travel', 'output_pressure', 'supply_vacuum', 'engine_on', 'source_vacuum'],
    largestStep: 0.001,
    advance(dt, controls) {
      running = controls.engine > 0 ? 1 : 0;
      pedal += ((controls.lever - pedal) * dt) / pedalLag;
      const target = running > 0 ? idle : ambient;
      source += ((target - source) * dt) / (running > 0 ? idleLag : stopLag);
      const left = model.advance(dt, { ambient, temperature, hose, rodForce: pedal * unit.leverage });
      // A soft hose is sucked shut when the brakes draw air through it, and stays shut while the source pulls on it.
      if (condition.hoseWhileDrawing < 1) {
        const across = model.state.front.pressure - source;
        if (ambient - source > collapsesAbove && across > drawing && pedal > 10) collapsed = 1;
        if (across < springsOpen) collapsed = 0;
      }
      const clamped = controls.isolated > 0;
      const area = clamped ? 0 : hoseArea * (collapsed > 0 ? condition.hoseWhileDrawing : 1);
      hose += (heat * (left - dt * nozzleFlow(area, hose, source, temperature))) / hoseVolume;
    },
    read(out) {
      out[0] = pedal;
      out[1] = pedal > 1 ? freePlay + model.state.travel * unit.pedalRatio + give * pedal : 0;
      out[2] = model.state.output;
      out[3] = ambient - model.state.front.pressure;
      out[4] = running;
      out[5] = ambient - hose;
    },
    snapshot: () => [source, hose, pedal, running, collapsed, ...stateNumbers(model.state)],
    restore(state) {
      let unitState: number[];
      [source, hose, pedal, running, collapsed, ...unitState] = state;
      restoreState(model.state, unitState);
    },
  };
}

/** The unit in its vehicle: engine, hose, check valve, unit, master cylinder and pedal. */
export const inlineVehicle = {
  lever: { channel: 'pedal_force', maximum: () => 500 },
  supply: {
    kind: 'vacuum',
    channel: 'supply_vacuum',
    at: (unit, ambient) => restatedSource(healthySeaLevelVacuum, unit.spec.sourceKind ?? 'manifold', ambient),
  },
} as const satisfies Stand<VacuumInlineUnit>;
