import { exchangeAir, wallConductance } from '../../physics/air-chamber';
import { airGasConstant, nozzleFlow } from '../../physics/nozzle';
import type { Plant, Surroundings } from '../../physics/plant';
import { scanTool, vacuumShown } from './scan-tool';
import { quantity, type AbsolutePressure } from '../../quantities/quantity';
import type { Stand } from '../../contract/plan';
import type { SupplyCondition } from './faults';
import { settledVacuum, thresholds, type VacuumSupplyUnit } from './geometry';

const { max, min } = Math;

/** Pedal force above which a stroke is on, N; air comes in over this long once it is let go, s. */
const strokeOn = 40;
const breatheIn = 0.25;
const pedalLag = 0.05;

/** Dynamics of the unit where it is mounted. */
export function vacuumSupplyPlant(unit: VacuumSupplyUnit, condition: SupplyCondition, around: Surroundings): Plant {
  const { ambient, temperature } = around;
  const ambientDensity = 1 / (airGasConstant * temperature);
  const volume = unit.volume + around.benchVolume;
  const settled = around.supply;
  const ultimate = min(ambient, (ambient - settled) * condition.ultimateFactor);
  const air = {
    pressure: quantity<AbsolutePressure>(ambient),
    source: 'station-barometer',
    questionedBy: null,
  } as const;
  const switched = unit.electric ? thresholds(unit, air) : null;
  const reservoir = {
    pressure: around.startsFrom === 'evacuated' ? ambient - (switched?.cutOut ?? settled) : ambient,
    temperature,
  };
  const walls = wallConductance(volume);
  let pedal = 0;
  let running = 0;
  let engine = 0;
  let stroke = 0;
  let owed = 0;
  let sideOpen = 0;
  const tool = scanTool(ambient - reservoir.pressure);
  let shown = vacuumShown(tool.advance(0, ambient - reservoir.pressure));

  function switchPump(on: boolean): void {
    if (!on) running = 0;
    else if (!switched) running = 1;
    else {
      const felt = ambient - reservoir.pressure + condition.sensorShift;
      if (felt < switched.cutIn + condition.cutInShift) running = 1;
      else if (felt > switched.cutOut + condition.cutOutShift) running = 0;
    }
  }

  return {
    channels: ['pedal_force', 'reservoir_vacuum', 'supply_vacuum', 'pump_on', 'engine_on', 'source_vacuum'],
    largestStep: 0.002,
    advance(dt, controls) {
      pedal += ((controls.lever - pedal) * dt) / pedalLag;
      engine = controls.engine > 0 ? 1 : 0;
      if (controls.actuate > 0) running = 1;
      else switchPump(controls.engine > 0);
      // A stroke takes its air in when the pedal comes back.
      if (pedal > strokeOn) stroke = 1;
      else if (stroke > 0 && pedal < strokeOn / 2) {
        stroke = 0;
        owed += (ambient - reservoir.pressure) * unit.applicationVolume;
      }
      const drawn = min(owed, (owed * dt) / breatheIn + 1e-9);
      owed -= drawn;
      const pumping = running > 0 && !condition.dead ? unit.speed * condition.speedFactor : 0;
      const pulled = pumping * max(0, reservoir.pressure - ultimate);
      const leaking = nozzleFlow(condition.leak, ambient, reservoir.pressure, temperature);
      const open = running === 0 && controls.isolated === 0;
      sideOpen = open ? 1 : 0;
      const back = open ? nozzleFlow(condition.checkLeak, ambient, reservoir.pressure, temperature) : 0;
      // Strokes and leaks bring the room's air, the pump takes the reservoir's.
      const entering = leaking + back + (drawn / dt) * ambientDensity;
      const leavingHeat = pulled / airGasConstant;
      const exchange = {
        mass: entering - leavingHeat / reservoir.temperature,
        heat: entering * temperature - leavingHeat,
        growth: 0,
      };
      exchangeAir(reservoir, dt, volume, exchange, walls, temperature);
      shown = vacuumShown(tool.advance(dt, ambient - reservoir.pressure + condition.sensorShift));
    },
    read(out) {
      out[0] = pedal;
      out[1] = shown;
      out[2] = ambient - reservoir.pressure;
      out[3] = running > 0 && !condition.dead ? 1 : 0;
      out[4] = engine;
      // The gauge between the pump and the check valve: at the air once the clamp is off with the pump at rest.
      out[5] = sideOpen > 0 ? 0 : ambient - reservoir.pressure;
    },
    snapshot: () => [
      reservoir.pressure,
      reservoir.temperature,
      pedal,
      running,
      engine,
      stroke,
      owed,
      shown,
      sideOpen,
      ...tool.snapshot(),
    ],
    restore(state) {
      [reservoir.pressure, reservoir.temperature] = state;
      let toolState: number[];
      [pedal, running, engine, stroke, owed, shown, sideOpen, ...toolState] = state.slice(2);
      tool.restore(toolState);
    },
  };
}

/** The source in its vehicle, with a gauge on a tee at the reservoir and the vehicle's own sensor over a scan tool. */
export const supplyVehicle = {
  lever: { channel: 'pedal_force', maximum: () => 400 },
  supply: { kind: 'vacuum', channel: 'supply_vacuum', at: settledVacuum },
} as const satisfies Stand<VacuumSupplyUnit>;
