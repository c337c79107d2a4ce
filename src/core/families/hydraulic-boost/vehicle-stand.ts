import type { Plant, Surroundings } from '../../physics/plant';
import { followForce } from '../../physics/follow-force';
import { masterPressure, servoForce } from '../../toolboxes/servo/servo-law';
import { advanceAccumulator, settledAccumulator } from '../../physics/gas-accumulator';
import type { Stand } from '../../contract/plan';
import type { HydraulicBoostCondition } from './faults';
import { assistForce, boostWanted, outputAt, reserveAccumulator, type HydraulicBoostUnit } from './geometry';

const { max, min, sin } = Math;

const pedalLag = 0.02;
const boostLag = 0.03;
const outputLag = 0.02;
/** Back pressure of a sound return line at idle, Pa. */
export const returnAtIdle = 90e3;
/** Pressure that the pump stands against with nothing asked of it, Pa, and the flow it then gives the reserve as a share. */
export const idling = 500e3;
const chargeShare = 0.04;
/** Steering hard over asks for this share of the relief pressure. */
const steeringShare = 0.85;
const pulseFrequency = 14;

/** Dynamics of the unit where it is mounted. */
export function hydraulicBoostPlant(
  unit: HydraulicBoostUnit,
  condition: HydraulicBoostCondition,
  around: Surroundings,
): Plant {
  const { ambient, temperature } = around;
  const air = { ambient, environment: temperature };
  const spec = reserveAccumulator(unit, ambient, condition.reserveGas);
  const reserve = settledAccumulator(spec, ambient + (around.startsFrom === 'charged' ? unit.reserve.charged : 0), air);
  const pedal = followForce(pedalLag, (unit.hysteresis * condition.hysteresis) / unit.pedalRatio);
  const relief = unit.relief * condition.relief;
  let boost = 0;
  let output = 0;
  let line = 0;
  let back = 0;
  let flow = 0;
  let engine = 0;
  let deadHead = 0;
  let applied = 0;
  let time = 0;
  const reservePressure = () => max(0, reserve.pressure - ambient);
  const fullStroke = boostWanted(unit, unit.reserveForce * unit.pedalRatio);

  return {
    channels: [
      'pedal_force',
      'pedal_travel',
      'output_pressure',
      'boost_pressure',
      'pump_pressure',
      'return_pressure',
      'accumulator_pressure',
      'flow',
      'engine_on',
      'pump_on',
    ],
    largestStep: 0.01,
    advance(dt, controls) {
      time += dt;
      engine = controls.engine > 0 ? 1 : 0;
      deadHead = controls['dead-head'] > 0 && engine > 0 ? 1 : 0;
      pedal.advance(dt, controls.lever);
      const rod = pedal.felt() * unit.pedalRatio;
      const asked = max(boostWanted(unit, rod), condition.selfApply * engine);
      const starved = controls.steer > 0 ? 1 - condition.steeringTakes : 1;
      const live = relief * starved * (1 - condition.slip * min(1, asked / relief)) * (1 - condition.spoolLeak);
      // The reserve is behind a check valve for when the pump is lost, not beside it.
      const available = engine > 0 ? live : reservePressure();
      const wanted = min(asked, available);
      boost += ((wanted - boost) * dt) / (wanted < boost ? condition.releaseLag : boostLag);
      // Engine off a stroke is paid from the reserve; with it running the reserve is filled through its check valve.
      const stroke = fullStroke > 0 ? boost / fullStroke : 0;
      const taken =
        engine === 0 && stroke > applied ? min(0.2, stroke - applied) * unit.reserve.fluidPerApplication : 0;
      applied = stroke;
      const filling =
        engine > 0 && reservePressure() < unit.reserve.charged ? unit.pumpFlow * condition.flow * chargeShare : 0;
      const leaking = (unit.reserve.leak * condition.reserveLeak * reservePressure()) / unit.reserve.charged;
      advanceAccumulator(spec, reserve, dt, (filling - leaking) * dt - taken, air);
      // Back pressure beyond a sound line's stays behind the power piston and pushes with it.
      const assist = assistForce(unit, boost + max(0, back - returnAtIdle));
      const powered = available > 50e3 && rod < unit.cutInForce && condition.selfApply === 0;
      const force = powered
        ? 0
        : assist <= 0
          ? max(0, rod + assist)
          : min(servoForce(unit, rod, 1e9), max(0, rod + assist));
      const target =
        condition.selfApply > 0 && rod < unit.cutInForce && engine > 0
          ? condition.selfApply * 0.4
          : masterPressure(unit, force);
      output += ((target - output) * dt) / outputLag;
      const loaded =
        deadHead > 0
          ? relief * (1 - condition.slip)
          : engine * max(idling, boost * 1.02, controls.steer > 0 ? relief * steeringShare * (1 - condition.slip) : 0);
      line += ((loaded - line) * dt) / 0.06;
      back += ((engine > 0 ? returnAtIdle * condition.returnFactor : 0) - back) * min(1, dt / 0.2);
      flow =
        engine > 0 && deadHead === 0 ? unit.pumpFlow * condition.flow * (1 - (condition.slip * line) / unit.relief) : 0;
    },
    read(out) {
      const trembling = engine * condition.pulse * sin(2 * Math.PI * pulseFrequency * time) * (boost > 1e5 ? 1 : 0);
      out[0] = pedal.force();
      // The pedal goes down with the fluid that the brakes take, and a little by its own spring.
      out[1] = unit.pedalTravel * (output / max(1, outputAt(unit, unit.reserveForce, unit.relief)));
      out[2] = output;
      out[3] = max(0, boost + trembling);
      out[4] = line;
      out[5] = back;
      out[6] = reservePressure();
      out[7] = flow;
      out[8] = engine;
      out[9] = deadHead;
    },
    snapshot: () => [
      boost,
      output,
      line,
      back,
      flow,
      engine,
      deadHead,
      applied,
      time,
      reserve.fluid,
      reserve.temperature,
      reserve.pressure,
      reserve.held,
      ...pedal.snapshot(),
    ],
    restore(state) {
      [boost, output, line, back, flow, engine, deadHead, applied, time] = state;
      [reserve.fluid, reserve.temperature, reserve.pressure, reserve.held] = state.slice(9, 13);
      pedal.restore(state.slice(13));
    },
  };
}

/** The booster in its vehicle: pedal, steering pump on the engine, gauges in pressure, boost and return lines. */
export const hydraulicBoostVehicle = {
  lever: { channel: 'pedal_force', maximum: (unit) => max(900, unit.reserveForce * 3) },
  supply: { kind: 'pressure', channel: 'pump_pressure', at: (unit) => unit.relief },
} as const satisfies Stand<HydraulicBoostUnit>;
