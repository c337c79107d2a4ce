import { inlineTruth } from './truth';
import { scatterOf, type Model } from '../../contract/model';
import { vacuumInlineFaults, soundInline, type InlineCondition } from './unit/faults';
import type { VacuumInlineUnit } from './unit/geometry';
import { inlineBenchPlant } from './unit/bench-stand';
import { inlineVehiclePlant } from './unit/vehicle-stand';

export const vacuumInlineModel: Model<VacuumInlineUnit, InlineCondition> = {
  sound: soundInline,
  faults: vacuumInlineFaults,
  // Assumed, not measured: a third of the workshop's tolerance where it has one, else what castings and springs are made to.
  scatter: [
    scatterOf('servoRatio', 0.05),
    scatterOf('cutInForce', 0.1),
    scatterOf('jumpInForce', 0.15),
    scatterOf('area', 0.01),
    scatterOf('springForce', 0.05),
    scatterOf('hysteresis', 0.15),
  ],
  plant: (unit, condition, around) =>
    around.mounted === 'bench'
      ? inlineBenchPlant(unit, condition, around)
      : inlineVehiclePlant(unit, condition, around),
  truth: inlineTruth,
};
