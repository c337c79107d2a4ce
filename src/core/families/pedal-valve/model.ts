import { storeScatter } from '../../toolboxes/store/model/store-scatter';
import { scatterOf, type Model } from '../../contract/model';
import { pedalValveFaults, soundPedalValve, type PedalValveCondition } from './faults';
import type { PedalValveUnit } from './geometry';
import { pedalValvePlant } from './bench-stand';

export const pedalValveModel: Model<PedalValveUnit, PedalValveCondition> = {
  sound: soundPedalValve,
  faults: pedalValveFaults,
  // A sheet's tolerance is three standard deviations of what a maker lets out.
  scatter: [
    ...storeScatter<PedalValveUnit>(
      'front',
      (unit) => unit.front,
      (unit, front) => ({ ...unit, front }),
    ),
    ...storeScatter<PedalValveUnit>(
      'rear',
      (unit) => unit.rear,
      (unit, rear) => ({ ...unit, rear }),
    ),
    scatterOf('modulation', 0.03),
    scatterOf('cutIn', 0.04),
    scatterOf('regulatedMaximum', 0.02),
    scatterOf('hysteresis', 0.15),
    scatterOf('neutralLeak', 0.2),
  ],
  plant: pedalValvePlant,
  truth: () => ({}),
};
