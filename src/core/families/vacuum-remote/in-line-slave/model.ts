import { closesAt, opensAt } from '../unit/stop-lamp';
import { scatterOf, type Model } from '../../../contract/model';
import { vacuumRemoteFaults, soundCondition, type PlantCondition } from '../unit/faults';
import type { InLineUnit } from './geometry';
import { vacuumRemotePlant } from './plant';

/** A release with a time constant up to this has settled when its residual is read, s. */
const settles = 0.1;

export const inLineSlaveModel: Model<InLineUnit, PlantCondition> = {
  sound: soundCondition,
  faults: vacuumRemoteFaults,
  // Assumed, not measured: a third of the workshop's tolerance where it has one, else what castings and springs are made to.
  scatter: [
    scatterOf('valveOpening', 0.08),
    scatterOf('controlRatio', 0.03),
    scatterOf('efficiency', 0.02),
    scatterOf('springForce', 0.05),
    scatterOf('hysteresis', 0.15),
  ],
  plant: vacuumRemotePlant,
  truth: (unit, condition) => {
    const b = unit.b * condition.efficiencyFactor;
    const f = unit.f * condition.springFactor;
    return {
      'switch-close-pressure': closesAt + condition.switchShift,
      'switch-open-pressure': opensAt + condition.switchShift,
      // What comes back slowly is still falling when it is read.
      ...(condition.releaseLag > settles ? {} : { 'residual-output': condition.residual }),
      // Of a piston that sticks, or a check that lets boost by, the line is none of the balance's.
      ...(condition.controlStick > 0 || condition.checkSlip > 0 || condition.bypassBlocked
        ? {}
        : {
            'boost-slope': unit.a + b,
            'cut-in-pressure': (b * unit.valveOpening + f) / (unit.a + b - 1),
            // A leak holds the control chamber off before the valve moves.
            ...(condition.atmosphereValveLeak > 0 ? {} : { 'valve-opening-pressure': unit.valveOpening }),
          }),
    };
  },
};
