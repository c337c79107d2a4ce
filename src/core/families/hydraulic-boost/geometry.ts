import { servoFromSpec } from '../../toolboxes/servo/servo-from-spec';
import { advanceAccumulator, settledAccumulator, type GasAccumulatorSpec } from '../../physics/gas-accumulator';
import { masterPressure, servoForce, type ServoUnit } from '../../toolboxes/servo/servo-law';
import type { HydraulicBoostSpec } from './sheet';

const { max, min } = Math;

/** A booster fed by the steering pump, with its reserve and master cylinder, in SI; forces at the push rod. */
export interface HydraulicBoostUnit extends ServoUnit {
  readonly spec: HydraulicBoostSpec;
  /** Pa gauge. */
  readonly relief: number;
  /** m3/s */
  readonly pumpFlow: number;
  /** m2 */
  readonly boostArea: number;
  readonly springForce: number;
  readonly efficiency: number;
  readonly pedalRatio: number;
  /** Pedal travel at full assist, m. */
  readonly pedalTravel: number;
  /** Pedal force of the reserve test, N. */
  readonly reserveForce: number;
  readonly reserve: {
    /** m3; Pa gauge. */
    readonly volume: number;
    readonly precharge: number;
    readonly charged: number;
    readonly fluidPerApplication: number;
    /** m3/s */
    readonly leak: number;
  };
}

/** SI form of a validated sheet. */
export function prepareHydraulicBoost(spec: HydraulicBoostSpec): HydraulicBoostUnit {
  return {
    spec,
    relief: spec.reliefKpa * 1e3,
    pumpFlow: (spec.pumpFlowLPerMin * 1e-3) / 60,
    boostArea: spec.boostPistonAreaMm2 * 1e-6,
    springForce: spec.returnSpringForceN,
    efficiency: spec.efficiency,
    ...servoFromSpec(spec),
    pedalRatio: spec.pedalRatio,
    pedalTravel: spec.pedalTravelMm * 1e-3,
    reserveForce: spec.reserveForceN,
    reserve: {
      volume: spec.reserveVolumeCm3 * 1e-6,
      precharge: spec.reservePrechargeKpa * 1e3,
      charged: spec.reserveChargedKpa * 1e3,
      fluidPerApplication: spec.fluidPerApplicationCm3 * 1e-6,
      leak: (spec.reserveLeakCm3PerMin * 1e-6) / 60,
    },
  };
}

/** F_a = eta·p·A_b − F_s, N, at a boost pressure (Pa gauge). */
export function assistForce(unit: HydraulicBoostUnit, pressure: number): number {
  return unit.efficiency * unit.boostArea * pressure - unit.springForce;
}

/** Output (Pa gauge) at a pedal force (N) with at most `available` boost pressure (Pa gauge). */
export function outputAt(unit: HydraulicBoostUnit, pedal: number, available: number): number {
  return masterPressure(unit, servoForce(unit, pedal * unit.pedalRatio, assistForce(unit, available)));
}

/** Boost pressure (Pa gauge) that the spool asks for at a rod force (N): what the output force takes beyond the rod. */
export function boostWanted(unit: HydraulicBoostUnit, rodForce: number): number {
  if (rodForce < unit.cutInForce) return 0;
  const wanted = unit.jumpInForce + unit.servoRatio * (rodForce - unit.cutInForce);
  return max(0, wanted - rodForce + unit.springForce) / (unit.efficiency * unit.boostArea);
}

/** The reserve as a gas accumulator in today's air. */
export function reserveAccumulator(unit: HydraulicBoostUnit, ambient: number, gas = 1): GasAccumulatorSpec {
  return {
    precharge: (unit.reserve.precharge + ambient) * gas,
    volume: unit.reserve.volume,
    timeConstant: 20,
    lineCompliance: 0.02e-12,
  };
}

/** Strokes 1 … `count` from the reserve at the test's pedal force, engine off: output and what is left before each (Pa gauge). */
export function predictReserve(
  unit: HydraulicBoostUnit,
  air: { readonly ambient: number; readonly environment: number },
  count: number,
  from = unit.reserve.charged,
): readonly { readonly output: number; readonly vacuum: number; readonly assisted: boolean }[] {
  const spec = reserveAccumulator(unit, air.ambient);
  const state = settledAccumulator(spec, from + air.ambient, air);
  const unassisted = outputAt(unit, unit.reserveForce, 0);
  const wanted = boostWanted(unit, unit.reserveForce * unit.pedalRatio);
  const strokes: { output: number; vacuum: number; assisted: boolean }[] = [];
  for (let n = 0; n < count; n++) {
    const before = state.pressure - air.ambient;
    // A foot that gets less boost makes less pressure, and the brakes take less.
    const share = min(1, max(0, before) / wanted);
    for (let i = 0; i < 20; i++)
      advanceAccumulator(spec, state, 0.05, (-share * unit.reserve.fluidPerApplication) / 20, air);
    const output = outputAt(unit, unit.reserveForce, max(0, state.pressure - air.ambient));
    const first = strokes[0]?.output ?? output;
    strokes.push({ output, vacuum: before, assisted: first > unassisted && output >= (first + unassisted) / 2 });
    for (let i = 0; i < 20; i++) advanceAccumulator(spec, state, 0.1, 0, air);
  }
  return strokes;
}
