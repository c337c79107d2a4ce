import type { MasterCylinder, VehicleBrakes } from '../../calculators/brake-force';
import type { Model, Scatter } from '../../contract/model';
import { foundationFaults, soundFoundation, type FoundationCondition } from './faults';
import type { FoundationUnit } from './geometry';
import { foundationTruth } from './truth';
import { foundationPlant } from './vehicle-stand';

type Measures<Of> = { readonly [Key in keyof Of]: Of[Key] extends number ? Key : never }[keyof Of] & string;

/** A measure of pedal and master cylinder that is never quite the sheet's. */
function masterScatter(id: Measures<MasterCylinder>, standard: number): Scatter<FoundationUnit> {
  return {
    id: `master.${id}`,
    standard,
    apply: (unit, z) => ({ ...unit, master: { ...unit.master, [id]: unit.master[id] * (1 + z * standard) } }),
  };
}

/** The same of its valve. */
function valveScatter(
  id: keyof NonNullable<VehicleBrakes['proportioning']>,
  standard: number,
): Scatter<FoundationUnit> {
  return {
    id: `vehicle.proportioning.${id}`,
    standard,
    apply: (unit, z) => {
      const { proportioning } = unit.vehicle;
      if (!proportioning) return unit;
      const moved = { ...proportioning, [id]: proportioning[id] * (1 + z * standard) };
      return { ...unit, vehicle: { ...unit.vehicle, proportioning: moved } };
    },
  };
}

export const foundationModel: Model<FoundationUnit, FoundationCondition> = {
  sound: soundFoundation,
  faults: foundationFaults,
  // Assumed, not measured: a third of the workshop's tolerance where it has one, else what linkages and valves are made to.
  scatter: [
    masterScatter('linkageEfficiency', 0.03),
    masterScatter('masterEfficiency', 0.02),
    valveScatter('split', 0.04),
    valveScatter('slope', 0.04),
  ],
  plant: foundationPlant,
  truth: foundationTruth,
};
