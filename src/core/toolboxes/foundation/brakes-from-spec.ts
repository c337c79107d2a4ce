import { discTorque, type VehicleBrakes } from '../../calculators/brake-force';

/** Brakes of a vehicle as a sheet writes them: friction, pistons of one side of one caliper, radii, or a drum's torque to each kPa. */
export interface BrakeFields {
  readonly massKg: number;
  readonly tyreRadiusMm: number;
  readonly frictionCoefficientFront: number;
  readonly pistonAreaFrontMm2: number;
  readonly effectiveRadiusFrontMm: number;
  readonly frictionCoefficientRear?: number;
  readonly pistonAreaRearMm2?: number;
  readonly effectiveRadiusRearMm?: number;
  readonly drumFactorRear?: number;
}

/** SI form of brakes on a sheet; a rear axle of which a sheet says nothing brakes nothing. */
export function brakesFromSpec(spec: BrakeFields, proportioning: VehicleBrakes['proportioning'] = null): VehicleBrakes {
  const rearDisc = discTorque(
    spec.frictionCoefficientRear ?? 0,
    (spec.pistonAreaRearMm2 ?? 0) * 1e-6,
    (spec.effectiveRadiusRearMm ?? 0) * 1e-3,
  );
  return {
    mass: spec.massKg,
    tyreRadius: spec.tyreRadiusMm * 1e-3,
    frontTorque: discTorque(
      spec.frictionCoefficientFront,
      spec.pistonAreaFrontMm2 * 1e-6,
      spec.effectiveRadiusFrontMm * 1e-3,
    ),
    rearTorque: spec.drumFactorRear === undefined ? rearDisc : spec.drumFactorRear * 1e-3,
    proportioning,
  };
}
