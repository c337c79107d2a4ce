import { airGasConstant, nozzleFlow } from '../../../physics/nozzle';
import type { Plant, Surroundings } from '../../../physics/plant';
import type { Stand } from '../../../contract/plan';
import type { InlineCondition } from './faults';
import type { VacuumInlineUnit } from './geometry';
import { pushForce } from './quasi-static';
import { restoreState, stateNumbers, unitModel } from './unit-model';

/** Tank and pump of the bench, the hose from its valve to the unit's check valve. */
const tankVolume = 0.03;
const pumpSpeed = 0.008;
const pumpUltimate = 0.1;
const hoseArea = 60e-6;
/** m3 */
export const hoseVolume = 0.25e-3;
const ventArea = 40e-6;
/** First-order lag of the rod's actuator, s. */
export const rodLag = 0.05;
/** A bench pump reaches about this share of the local atmosphere. */
const reachable = 0.86;

/** Dynamics of the unit where it is mounted. */
export function inlineBenchPlant(unit: VacuumInlineUnit, condition: InlineCondition, around: Surroundings): Plant {
  const { ambient, temperature, benchVolume } = around;
  const heat = airGasConstant * temperature;
  const regulated = ambient - around.supply;
  const evacuated = around.startsFrom === 'evacuated';
  const begin = evacuated ? regulated : ambient;
  const model = unitModel(unit, condition, { front: begin, rear: begin, temperature, benchVolume });
  let tank = regulated;
  let hose = begin;
  let rodForce = 0;

  return {
    channels: ['rod_force', 'rod_travel', 'output_pressure', 'supply_vacuum', 'source_vacuum'],
    largestStep: 0.001,
    advance(dt, controls) {
      rodForce += ((controls.lever - rodForce) * dt) / rodLag;
      const left = model.advance(dt, { ambient, temperature, hose, rodForce });
      const open = controls.source > 0 && controls.isolated === 0;
      const vented = controls.source === 0 && controls.isolated === 0;
      const toTank = open ? nozzleFlow(hoseArea, hose, tank, temperature) : 0;
      const in_ = vented ? nozzleFlow(ventArea, ambient, hose, temperature) : 0;
      hose += (heat * (left + dt * (in_ - toTank))) / hoseVolume;
      const pumping = tank > regulated ? pumpSpeed * (tank - pumpUltimate * ambient) : 0;
      tank += (dt * (heat * toTank - pumping)) / tankVolume;
    },
    read(out) {
      out[0] = rodForce;
      out[1] = model.state.travel;
      out[2] = model.state.output;
      out[3] = ambient - model.state.front.pressure;
      out[4] = ambient - hose;
    },
    snapshot: () => [tank, hose, rodForce, ...stateNumbers(model.state)],
    restore(state) {
      let unitState: number[];
      [tank, hose, rodForce, ...unitState] = state;
      restoreState(model.state, unitState);
    },
  };
}

/** The unit on the bench: its rod pushed, a pump and a tank for its vacuum. */
export const inlineBench = {
  lever: {
    channel: 'rod_force',
    maximum: (unit) => Math.max(pushForce(unit, unit.ratedVacuum), unit.reserveForce * unit.leverage) * 1.1,
  },
  supply: {
    kind: 'vacuum',
    channel: 'supply_vacuum',
    at: (unit, ambient) => Math.min(unit.ratedVacuum, reachable * ambient.pressure),
  },
} as const satisfies Stand<VacuumInlineUnit>;
