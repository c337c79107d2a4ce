import { goneOnce } from '../../procedure/interlock';
import { storeSteps } from '../../toolboxes/store/steps/store-steps';
import type { StoreCircuit } from '../../toolboxes/store/model/store-unit';
import { pressAngle, type PedalValveUnit } from './geometry';

export const lever = 'pedal_angle';

export const live = { engine: 1 } as const;

export const circuits: readonly StoreCircuit<PedalValveUnit>[] = [
  {
    suffix: '',
    place: '',
    title: 'Front',
    pressure: 'accumulator_pressure',
    pump: 'pump_on',
    lamp: 'lamp_red',
    storeOf: (unit) => unit.front,
  },
  {
    suffix: '-2',
    place: '@2',
    title: 'Rear',
    pressure: 'accumulator_pressure_2',
    pump: 'pump_on_2',
    lamp: 'lamp_red',
    storeOf: (unit) => unit.rear,
  },
];

export const store = storeSteps<PedalValveUnit>({
  circuits,
  lever,
  strokeLevel: ({ unit }) => pressAngle(unit),
  live,
  driven: 'engine',
  cautions: [],
  alarm: 'alarm-pressure',
});

export const openOnce = { interlock: goneOnce('pressure'), brings: ['pressure'] } as const;
