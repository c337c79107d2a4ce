import { scatterOf, type Model } from '../../../contract/model';
import { vacuumInlineFaults, soundInline, type InlineCondition } from './faults';
import type { VacuumInlineUnit } from './geometry';
import { inlineBenchPlant } from './bench-stand';
import { inlineVehiclePlant } from './vehicle-stand';

export const vacuumInlineModel: Model<VacuumInlineUnit, InlineCondition> = {
  sound: soundInline,
  faults: vacuumInlineFaults,
  // A sheet's tolerance is three standard deviations of what a maker lets out.
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
  truth: () => ({}),
};
