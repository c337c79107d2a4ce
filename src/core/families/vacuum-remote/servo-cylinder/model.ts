import { Model } from '../../../contract/model';
import { soundCondition, type PlantCondition } from '../unit/faults';
import { servoCylinderFaults } from './faults';
import type { ServoUnit } from './servo';
import { servoCylinderPlant } from './plant';

export const servoCylinderModel: Model<ServoUnit, PlantCondition> = {
  sound: soundCondition,
  faults: servoCylinderFaults,
  scatter: [],
  plant: servoCylinderPlant,
  truth: () => ({}),
};
