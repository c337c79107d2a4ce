import type { Truth } from '../../contract/model';
import { pressureOfFoot } from '../../calculators/brake-force';
import { aroundStores, storeTruth } from '../../toolboxes/store/model/store-truth';
import type { AccumulatorCondition, ByWireCondition } from './faults';
import { bankDrain, bankEnergy, wheels, type AccumulatorUnit, type ByWireUnit, type PlungerUnit } from './geometry';
import { restBeforeLoad } from './backup-step';
import { transferIds } from './transfer-analysis';
import { trackingIds } from './tracking-analysis';
import type { SensorPlace } from './sensors';
import type { Context } from './step-parts';

/** What a perfect measurement would say of a decoupled unit. */
export function byWireTruth(unit: ByWireUnit, condition: ByWireCondition, places: readonly SensorPlace[]): Truth {
  const { simulator } = unit;
  return {
    'quiescent-current': condition.asleep,
    'stroke-creep': condition.creep,
    'fallback-pressure': pressureOfFoot(unit, unit.fallbackForce),
    // A pedal that hardly moves is not followed to where it changes stage, and one that creeps is not where its spring has it.
    ...(condition.stiffer > 1
      ? { 'stage-1-stiffness': simulator.stiffness1 * condition.stiffer }
      : condition.creep !== 0
        ? {}
        : {
            'stage-1-stiffness': simulator.stiffness1,
            'stage-2-stiffness': simulator.stiffness2,
            'stage-change-travel': simulator.changeTravel,
          }),
    ...bankTruth(unit, condition),
    ...Object.fromEntries(places.flatMap((place) => sensorTruth(condition, place))),
    ...Object.fromEntries(wheels.flatMap((wheel) => wheelTruth(unit, condition, wheel))),
  };
}

function bankTruth(unit: ByWireUnit, { capacitance }: ByWireCondition): Truth {
  const { bank } = unit;
  if (!bank) return {};
  // Between charger and load it drains a little.
  const open = bank.full * Math.exp(-restBeforeLoad / bankDrain(unit));
  return { 'backup-energy': bankEnergy(bank.capacitance * capacitance, open, bank.least) };
}

function sensorTruth({ sensors }: ByWireCondition, place: SensorPlace): readonly (readonly [string, number])[] {
  const [offset, gain, linearity] = transferIds(place);
  const { offset: off, gain: factor } = sensors[place];
  return [
    [offset, off],
    [gain, factor],
    [linearity, 0],
  ];
}

function wheelTruth(
  unit: ByWireUnit,
  condition: ByWireCondition,
  wheel: (typeof wheels)[number],
): readonly (readonly [string, number])[] {
  const { gain, offset, slower } = condition.wheels[wheel];
  const [tracking, , deadTime, lag, overshoot] = trackingIds(wheel);
  return [
    // A pressure cannot fall below none: an offset downwards bends the line at its foot.
    ...(offset < 0 ? [] : ([[tracking, gain]] as const)),
    [deadTime, condition.deadTime],
    ...(offset < 0 ? [] : ([[lag, unit.timeConstant * slower]] as const)),
    ...(condition.creep === 0 ? ([[overshoot, 0]] as const) : []),
    [`wheel-residual@${wheel}`, Math.max(0, offset)],
  ];
}

export function plungerTruth(
  unit: PlungerUnit,
  condition: ByWireCondition,
  _context: Context,
  places: readonly SensorPlace[],
): Truth {
  return { ...byWireTruth(unit, condition, places), 'plunger-creep': condition.plungerCreep };
}

export function accumulatorTruth(
  unit: AccumulatorUnit,
  condition: AccumulatorCondition,
  context: Context,
  places: readonly SensorPlace[],
): Truth {
  const around = aroundStores(context);
  return {
    ...byWireTruth(unit, condition, places),
    ...storeTruth({ store: unit.store, condition: condition.circuit, place: '', around }),
  };
}
