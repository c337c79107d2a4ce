import type { Model, Scatter } from '../../contract/model';
import type { VehicleBrakes } from '../../calculators/brake-force';
import { blendedFaults, soundBlended, type BlendedCondition } from './faults';
import { simulateDrive } from './drive-simulator';
import type { BlendedUnit } from './geometry';
import { blendedTruth } from './truth';

/** Stops of an ordinary drive of the stand-in. */
const ordinaryStops = 24;

type Measure = 'mass' | 'frontTorque' | 'rearTorque' | 'tyreRadius';

/** A measure of the vehicle that is never quite the sheet's. */
function vehicleScatter(id: Measure & keyof VehicleBrakes, standard: number): Scatter<BlendedUnit> {
  return {
    id: `vehicle.${id}`,
    standard,
    apply: (unit, z) => ({ ...unit, vehicle: { ...unit.vehicle, [id]: unit.vehicle[id] * (1 + z * standard) } }),
  };
}

export const blendedModel: Model<BlendedUnit, BlendedCondition> = {
  sound: soundBlended,
  faults: blendedFaults,
  // Assumed, not measured: load, linings and tyres of a vehicle are never quite the sheet's.
  scatter: [
    vehicleScatter('mass', 0.03),
    vehicleScatter('frontTorque', 0.02),
    vehicleScatter('rearTorque', 0.03),
    vehicleScatter('tyreRadius', 0.01),
  ],
  log: (unit, condition, { seed, sensors, long = 1 }) =>
    simulateDrive(unit, condition, { seed, sensors, stops: Math.round(ordinaryStops * long) }),
  truth: blendedTruth,
};
