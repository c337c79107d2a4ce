import { aroundStores, storeTruth } from '../../toolboxes/store/model/store-truth';
import { storeScatter } from '../../toolboxes/store/model/store-scatter';
import { scatterOf, type Model } from '../../contract/model';
import { pedalValveFaults, soundPedalValve, type PedalValveCondition } from './faults';
import type { PedalValveUnit } from './geometry';
import { pedalValvePlant } from './bench-stand';

/** A port with a time constant up to this follows a slow press, s. */
const settles = 0.1;

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
  truth: (unit, condition, context) => ({
    ...storeTruth({ store: unit.front, condition: condition.front, place: '', around: aroundStores(context) }),
    ...storeTruth({ store: unit.rear, condition: condition.rear, place: '@2', around: aroundStores(context) }),
    'alarm-pressure': unit.front.lamp + condition.front.lampShift,
    // A port that answers late comes late in travel too.
    ...(condition.frontLag > settles ? {} : { 'cut-in-travel': unit.cutIn + condition.cutInShift }),
    'modulation-slope': unit.modulation * condition.modulation,
    'regulated-maximum': unit.regulatedMaximum * condition.maximum,
    ...(condition.releaseLag > settles || condition.frontLag > settles
      ? {}
      : { 'angle-hysteresis': unit.hysteresis * condition.hysteresis }),
    // A first-order answer is at 90 % after ln 10 of its time constants.
    'rise-time': condition.frontLag * Math.LN10,
    'rise-time@rear': condition.rearLag * Math.LN10,
    'parking-release-pressure': unit.parkingRelease,
  }),
};
