import { storeScatter } from '../../toolboxes/store/model/store-scatter';
import { scatterOf, type Model } from '../../contract/model';
import { pedalValveFaults, soundPedalValve, type PedalValveCondition } from './faults';
import type { PedalValveUnit } from './geometry';
import { pedalValvePlant } from './bench-stand';
import { pedalValveTruth } from './truth';

export const pedalValveModel: Model<PedalValveUnit, PedalValveCondition> = {
  sound: soundPedalValve,
  faults: pedalValveFaults,
  // Assumed, not measured: a third of the workshop's tolerance where it has one, else what castings and springs are made to.
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
  truth: pedalValveTruth,
};
