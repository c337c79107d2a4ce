import { Model } from '../../contract/model';
import { pedalValveFaults, soundPedalValve, type PedalValveCondition } from './faults';
import type { PedalValveUnit } from './geometry';
import { pedalValvePlant } from './bench-stand';

export const pedalValveModel: Model<PedalValveUnit, PedalValveCondition> = {
  sound: soundPedalValve,
  faults: pedalValveFaults,
  scatter: [],
  plant: pedalValvePlant,
  truth: () => ({}),
};
