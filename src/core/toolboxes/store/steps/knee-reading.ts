import { onGauge } from '../../../dials/asked';
import { entryFromReadings, type AskedReading, type Figures, type Reckoned } from '../../../dials/from-readings';
import { combinedStandard, random, readingComponents, systematic } from '../../../instruments/uncertainty';
import { prechargeTemperature, restatePrecharge } from '../../../physics/gas-law';
import { shellTemperature } from '../../../procedure/shell-temperature';
import type { Found } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import type { TypedEntry, TypedValues } from '../../../procedure/typed-entry';
import type { CharacteristicId } from '../../../quantities/characteristics';
import type { StoreCircuit } from '../model/store-unit';
import { idOf, type StoreKit } from './store-kit';

/** A jumping needle is read to a few divisions at best, as a share, one sigma. */
const jumps = 0.01;

/** Where the needle jumps to, or collapses from, on one circuit's gauge: the gas's own pressure at today's warmth. */
export function kneeAsked<Unit>(
  { circuits, tolerances }: Pick<StoreKit<Unit>, 'circuits' | 'tolerances'>,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
  words: { readonly title: string; readonly hint: string },
): AskedReading {
  const store = circuit.storeOf(context.unit);
  const gas = (store.precharge + context.ambient.pressure) * (context.airTemperature / prechargeTemperature);
  const here = gas - context.ambient.pressure;
  const tolerance = tolerances(store, context).precharge.value;
  return onGauge(idOf('knee', circuit.suffix), circuit.pressure, named(circuits, circuit, words.title), {
    hint: words.hint,
    expected: { low: here * (1 - tolerance), high: here * (1 + tolerance) },
  });
}

/** A field's title, with the circuit in front where there are several. */
export function named<Unit>(
  circuits: readonly StoreCircuit<Unit>[],
  circuit: StoreCircuit<Unit>,
  title: string,
): string {
  return circuits.length > 1 ? `${circuit.title}: ${title}` : title.charAt(0).toUpperCase() + title.slice(1);
}

/** The precharges (Pa gauge at 20 °C) of the knees that were read, with what warmth and a jumping needle leave unknown of them. */
function prechargesOfKnees<Unit>(
  circuits: readonly StoreCircuit<Unit>[],
  read: TypedValues,
  context: StepContext<Unit>,
): { readonly figures: (moved: TypedValues) => Figures } & Required<Pick<Reckoned, 'besides' | 'also'>> {
  const shell = shellTemperature(context);
  const ambient = context.ambient.pressure;
  const restated = (knee: number) => restatePrecharge(knee, shell.value, prechargeTemperature, ambient);
  const seen = circuits.flatMap((circuit) => {
    const knee = read[idOf('knee', circuit.suffix)];
    return knee === undefined ? [] : [{ circuit, knee }];
  });
  const besidesOf = (knee: number) => [
    random('timing', knee * jumps),
    systematic('temperature', ((knee + ambient) * shell.standard) / shell.value),
  ];
  const foundOf = ({ circuit, knee }: (typeof seen)[number]): Found => {
    const gauge = context.instruments.get(circuit.pressure);
    const components = [...besidesOf(knee), ...(gauge ? readingComponents(gauge, knee, context.date) : [])];
    return { value: restated(knee), standard: combinedStandard({ components }) };
  };
  return {
    figures: (moved) =>
      Object.fromEntries(
        seen.map(({ circuit }) => [idOf('precharge', circuit.place), restated(moved[idOf('knee', circuit.suffix)])]),
      ),
    besides: Object.fromEntries(seen.map(({ circuit, knee }) => [idOf('precharge', circuit.place), besidesOf(knee)])),
    also: {
      notes: shell.notes,
      corrections: { precharge: Object.fromEntries(seen.map((each) => [each.circuit.suffix, foundOf(each)])) },
    },
  };
}

/** Entry of a step that reads knees and other things beside them: what the knees come to, and the figures of the rest. */
export function kneeEntry<Unit>(
  circuits: readonly StoreCircuit<Unit>[],
  entry: {
    readonly characteristics: () => readonly CharacteristicId[];
    readonly once: (context: StepContext<Unit>) => readonly AskedReading[];
    readonly beside: (read: TypedValues) => Figures;
  },
): TypedEntry<Unit> {
  return entryFromReadings<Unit>({
    characteristics: entry.characteristics,
    once: entry.once,
    reckon: ({ once }, context) => {
      const precharges = prechargesOfKnees(circuits, once, context);
      return {
        ...precharges,
        figures: (moved) => ({ ...precharges.figures(moved.once), ...entry.beside(moved.once) }),
      };
    },
  });
}
