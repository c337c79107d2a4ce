import { closesAt, opensAt } from '../unit/stop-lamp';
import { scatterOf, type Model } from '../../../contract/model';
import { soundCondition, type PlantCondition } from '../unit/faults';
import { servoCylinderFaults } from './faults';
import type { ServoUnit } from './servo';
import { servoCylinderPlant } from './plant';

export const servoCylinderModel: Model<ServoUnit, PlantCondition> = {
  sound: soundCondition,
  faults: servoCylinderFaults,
  // Assumed, not measured: a third of the workshop's tolerance where it has one, else what castings and springs are made to.
  scatter: [
    scatterOf('valveOpening', 0.08),
    scatterOf('controlRatio', 0.03),
    scatterOf('efficiency', 0.02),
    scatterOf('springForce', 0.05),
    scatterOf('hysteresis', 0.15),
  ],
  plant: servoCylinderPlant,
  truth: (unit, condition) => {
    const gain = unit.forceGain * condition.efficiencyFactor;
    return {
      'switch-close-pressure': closesAt + condition.switchShift,
      'switch-open-pressure': opensAt + condition.switchShift,
      ...(condition.controlStick > 0
        ? {}
        : {
            'servo-slope': gain,
            'cut-in-pressure': unit.valveOpening + (unit.springForce * condition.springFactor) / gain,
            'valve-opening-pressure': unit.valveOpening,
          }),
    };
  },
};
