import { goneOnce } from '../../procedure/interlock';
import { storeSteps } from '../../toolboxes/store/steps/store-steps';
import type { StoreCircuit } from '../../toolboxes/store/model/store-unit';
import { fullForce, type StoredPressureUnit } from './geometry';

export const lever = 'pedal_force';

export const live = { engine: 1 } as const;

export const openOnce = { interlock: goneOnce('pressure'), brings: ['pressure'] } as const;

export const storedCircuits: readonly StoreCircuit<StoredPressureUnit>[] = [
  {
    suffix: '',
    place: '',
    title: 'Circuit 1',
    pressure: 'accumulator_pressure',
    pump: 'pump_on',
    lamp: 'lamp_red',
    storeOf: (unit) => unit.first,
  },
  {
    suffix: '-2',
    place: '@2',
    title: 'Circuit 2',
    pressure: 'accumulator_pressure_2',
    pump: 'pump_on_2',
    lamp: 'lamp_amber',
    storeOf: (unit) => unit.second,
  },
];

export const store = storeSteps<StoredPressureUnit>({
  circuits: storedCircuits,
  lever,
  strokeLevel: ({ unit }) => fullForce(unit),
  live,
  driven: 'engine',
  cautions: ['levelling-drops'],
  alarm: 'lamp-pressure',
});
