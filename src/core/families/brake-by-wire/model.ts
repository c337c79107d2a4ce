import type { Model, Scatter } from '../../contract/model';
import { storeScatter } from '../../toolboxes/store/model/store-scatter';
import { accumulatorPlant, plungerPlant } from './bench-stand';
import {
  accumulatorFaults,
  plungerFaults,
  soundAccumulator,
  soundByWire,
  type AccumulatorCondition,
  type ByWireCondition,
} from './faults';
import type { AccumulatorUnit, ByWireUnit, PedalSimulator, PlungerUnit } from './geometry';
import { sensorPlaces } from './sensors';
import { accumulatorTruth, plungerTruth } from './truth';

/** Scatter of one figure of the simulator. */
function ofSimulator<Unit extends ByWireUnit>(id: keyof PedalSimulator, standard: number): Scatter<Unit> {
  return {
    id: `simulator.${id}`,
    standard,
    apply: (unit, z) => ({
      ...unit,
      simulator: { ...unit.simulator, [id]: unit.simulator[id] * (1 + z * standard) },
    }),
  };
}

/** Assumed, not measured: a third of the sheet's tolerance where it has one, else what springs and sensors are made to. */
function scatter<Unit extends ByWireUnit>(): readonly Scatter<Unit>[] {
  return [
    ofSimulator('stiffness1', 0.04),
    ofSimulator('stiffness2', 0.04),
    ofSimulator('changeTravel', 0.03),
    ofSimulator('preload', 0.1),
    {
      id: 'timeConstant',
      standard: 0.1,
      apply: (unit, z) => ({ ...unit, timeConstant: unit.timeConstant * (1 + 0.1 * z) }),
    },
  ];
}

export const plungerModel: Model<PlungerUnit, ByWireCondition> = {
  sound: soundByWire,
  faults: plungerFaults,
  scatter: scatter(),
  plant: plungerPlant,
  truth: (unit, condition, context) =>
    plungerTruth(
      unit,
      condition,
      context,
      sensorPlaces.filter((place) => place !== 'store'),
    ),
};

export const accumulatorModel: Model<AccumulatorUnit, AccumulatorCondition> = {
  sound: soundAccumulator,
  faults: accumulatorFaults,
  scatter: [
    ...scatter<AccumulatorUnit>(),
    ...storeScatter<AccumulatorUnit>(
      'store',
      (unit) => unit.store,
      (unit, store) => ({ ...unit, store }),
    ),
  ],
  plant: accumulatorPlant,
  truth: (unit, condition, context) => accumulatorTruth(unit, condition, context, sensorPlaces),
};
