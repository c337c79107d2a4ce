import type { CurvePicture } from '../../../procedure/picture';
import type { ExpectedCurve, Here } from '../../../procedure/expected';
import { predictCharge } from './charge-prediction';
import { restatePrecharge, prechargeTemperature } from '../../../physics/gas-law';
import type { StoreUnit } from './store-unit';

const points = 60;

const surroundings = (here: Here) => ({ ambient: here.ambient.pressure, environment: here.airTemperature });

const tolerance = (store: StoreUnit, here: Here) => store.prechargeTolerance ?? here.workshopLimits.prechargeTolerance;

type Charge = ReturnType<typeof predictCharge>;

// Charges of one store in one air, drawn over and over while a page is open.
const known = new WeakMap<StoreUnit, Map<string, Charge>>();

function chargeOf(store: StoreUnit, here: Here, gas: number): Charge {
  const charges = known.get(store) ?? new Map<string, Charge>();
  known.set(store, charges);
  const key = `${here.ambient.pressure} ${here.airTemperature} ${gas}`;
  const charge = charges.get(key) ?? predictCharge(store, surroundings(here), gas);
  charges.set(key, charge);
  return charge;
}

/** A charge from empty as the unit's curve: time (s) against the store's pressure (Pa gauge), its knee the key point. */
export function chargeCurve(store: StoreUnit, here: Here): ExpectedCurve {
  const sound = chargeOf(store, here, 1);
  const end = chargeOf(store, here, 1 - tolerance(store, here)).seconds * 1.02;
  const knee = restatePrecharge(store.precharge, prechargeTemperature, here.airTemperature, here.ambient.pressure);
  let kneeTime = 0;
  while (kneeTime < end && sound.pressureAt(kneeTime) < knee) kneeTime += 0.02;
  return {
    apply: Array.from({ length: points + 1 }, (_, at) => {
      // Closer together at the start, where the knee is.
      const input = end * (at / points) ** 2;
      return { input, output: sound.pressureAt(input) };
    }),
    wayBack: [],
    keyPoints: [{ id: 'knee', input: kneeTime, output: knee }],
    tolerance: tolerance(store, here),
    inputEnd: end,
  };
}

/** Lowest and highest pressure (Pa gauge) of a sound store at a time (s) of its charge. */
export function chargeBand(store: StoreUnit, time: number, here: Here): readonly [number, number] {
  const reach = tolerance(store, here);
  const both = [1 - reach, 1 + reach].map((gas) => chargeOf(store, here, gas).pressureAt(time));
  return [Math.min(...both), Math.max(...both)];
}

/** A store's pressure over the time since it left zero, as a charge is drawn. */
export function chargePicture<Unit>(channel: string, storeOf: (unit: Unit) => StoreUnit): CurvePicture<Unit> {
  return {
    kind: 'curve',
    input: 'time',
    outputs: [channel],
    expected: (unit, _supply, here) => chargeCurve(storeOf(unit), here),
    band: (unit, time, _supply, here) => chargeBand(storeOf(unit), time, here),
  };
}
