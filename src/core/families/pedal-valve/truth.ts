import type { Truth } from '../../contract/model';
import type { StepContext } from '../../procedure/step-context';
import { settles } from '../../toolboxes/analysis/let-go';
import { chargingCircuit } from '../../toolboxes/store/model/charging-circuit';
import { aroundStores, storeTruth } from '../../toolboxes/store/model/store-truth';
import { rearShare } from './bench-stand';
import type { PedalValveCondition } from './faults';
import { brakePressure, pressAngle, type PedalValveUnit } from './geometry';
import { neutralLeakSeconds } from './leak-and-parking-steps';

type Context = StepContext<PedalValveUnit>;

const modelStep = 0.05;

/** What a perfect measurement would say of a dual pedal valve. */
export function pedalValveTruth(unit: PedalValveUnit, condition: PedalValveCondition, context: Context): Truth {
  const around = aroundStores(context);
  const follows = condition.frontLag <= settles && condition.rearLag <= settles;
  const lets = condition.releaseLag <= settles;
  return {
    ...storeTruth({ store: unit.front, condition: condition.front, place: '', around }),
    ...storeTruth({ store: unit.rear, condition: condition.rear, place: '@2', around }),
    'alarm-pressure': unit.front.lamp + condition.front.lampShift,
    // A port that answers late comes late in travel too.
    ...(condition.frontLag > settles ? {} : { 'cut-in-travel': unit.cutIn + condition.cutInShift }),
    'modulation-slope': unit.modulation * condition.modulation,
    'regulated-maximum': unit.regulatedMaximum * condition.maximum,
    // The rear gives its share of whatever the front reaches.
    ...(follows ? { 'circuit-difference': reached(unit, condition) * (1 - rearShare) } : {}),
    ...(lets && condition.frontLag <= settles ? { 'angle-hysteresis': unit.hysteresis * condition.hysteresis } : {}),
    ...(lets ? { 'port-residual': condition.residual, 'port-residual@rear': condition.residual } : {}),
    // A first-order answer is at 90 % after ln 10 of its time constants.
    'rise-time': condition.frontLag * Math.LN10,
    'rise-time@rear': condition.rearLag * Math.LN10,
    'neutral-leak-flow': unit.neutralLeak * condition.neutralLeak * meanCharge(unit, condition, context),
    'parking-release-pressure': unit.parkingRelease,
  };
}

/** Pressure (Pa gauge) that the front gives at the end of a slow press. */
function reached(unit: PedalValveUnit, { modulation, maximum, cutInShift }: PedalValveCondition): number {
  const worn = {
    ...unit,
    modulation: unit.modulation * modulation,
    regulatedMaximum: unit.regulatedMaximum * maximum,
    cutIn: unit.cutIn + cutInShift,
  };
  return brakePressure(worn, pressAngle(unit));
}

/** Mean pressure of the front store while the neutral leak is read, as a share of its sheet's cut-out. */
function meanCharge(unit: PedalValveUnit, condition: PedalValveCondition, context: Context): number {
  const model = chargingCircuit(unit.front, condition.front, aroundStores(context), true);
  const steps = Math.round(neutralLeakSeconds / modelStep);
  let sum = 0;
  for (let i = 0; i < steps; i++) {
    model.advance(modelStep, { live: true, bleed: 0, taken: 0, elsewhere: 0 });
    sum += model.pressure();
  }
  return sum / steps / unit.front.cutOut;
}
