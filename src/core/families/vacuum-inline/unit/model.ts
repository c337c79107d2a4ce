import { masterPressure, pressureSlope } from '../../../toolboxes/servo/servo-law';
import { scatterOf, type Model } from '../../../contract/model';
import { vacuumInlineFaults, soundInline, type InlineCondition } from './faults';
import type { VacuumInlineUnit } from './geometry';
import { inlineBenchPlant } from './bench-stand';
import { inlineVehiclePlant } from './vehicle-stand';

/** A release with a time constant up to this has settled when its residual is read, s. */
const settles = 0.1;

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
  truth: (unit, condition) => ({
    // Without the disc the output leaves zero evenly, and of one that creeps the first of it is lost: there is no jump to be found.
    ...(condition.jumpIn && condition.masterBypass === 0
      ? { 'cut-in-force': unit.cutInForce, 'jump-in-output': masterPressure(unit, unit.jumpInForce) }
      : {}),
    // One that creeps gives less the further it is pushed.
    ...(condition.masterBypass > 0
      ? {}
      : { 'force-slope': pressureSlope(unit, unit.servoRatio * condition.servoFactor) }),
    // What the chambers cannot breathe through a blocked check valve pushes back.
    ...(condition.checkArea < 1 || condition.masterBypass > 0 ? {} : { 'unassisted-slope': pressureSlope(unit, 1) }),
    // What comes back slowly lags behind the rod like a wider hysteresis, and is still falling when it is read.
    ...(condition.releaseLag > settles
      ? {}
      : { 'force-hysteresis': unit.hysteresis, 'residual-output': condition.residual }),
  }),
};
