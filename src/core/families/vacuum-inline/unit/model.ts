import { Model } from '../../../contract/model';
import { vacuumInlineFaults, soundInline, type InlineCondition } from './faults';
import type { VacuumInlineUnit } from './geometry';
import { inlineBenchPlant } from './bench-stand';
import { inlineVehiclePlant } from './vehicle-stand';

export const vacuumInlineModel: Model<VacuumInlineUnit, InlineCondition> = {
  sound: soundInline,
  faults: vacuumInlineFaults,
  scatter: [],
  plant: (unit, condition, around) =>
    around.mounted === 'bench'
      ? inlineBenchPlant(unit, condition, around)
      : inlineVehiclePlant(unit, condition, around),
  truth: () => ({}),
};
