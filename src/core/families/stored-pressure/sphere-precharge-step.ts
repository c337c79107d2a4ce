import { goneNow } from '../../procedure/interlock';
import { shellTemperature } from '../../procedure/shell-temperature';
import { readingComponents } from '../../instruments/uncertainty';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { absent, measured } from '../../procedure/analysis-result';
import { around, limitFrom } from '../../procedure/limit';
import { plausibleRange } from '../../dials/plausible-range';
import { fluidKinds } from '../../vocabulary/fluid';
import { prechargeTemperature, restatePrecharge } from '../../physics/gas-law';
import { spherePurposes, sphereChoices } from '../../vocabulary/sphere-purpose';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { TypedStep } from '../../procedure/step-definition';
import type { TypedField } from '../../procedure/typed-entry';
import type { StoredPressureCondition } from './faults';
import type { StoredPressureUnit } from './geometry';
import { storedCircuits } from './step-parts';

type Typed = TypedStep<StoredPressureUnit, StoredPressureCondition>;

/** A choice among words, kept as its place in the list. */
const choice = (id: string, title: string, hint: string, titles: readonly string[], expected: number): TypedField => ({
  id,
  title,
  hint,
  as: 'state',
  channel: null,
  expected: { low: expected, high: expected },
  plausible: [0, titles.length - 1],
  optional: false,
  choices: titles,
});

const fluidTitles = ['Glycol', 'Silicone', 'Mineral oil'];

export const spherePrecharge: Typed = {
  id: 'sphere-precharge',
  kind: 'typed',
  title: 'Spheres on the bench',
  why: 'Each sphere on the charging tool: its precharge restated to 20 °C. A sphere for another purpose, or one that had another fluid in it, does not go back.',
  minutes: 15,
  cautions: ['gas-sphere', 'stored-pressure', 'fluid-not-mixed'],
  optional: false,
  characteristics: ['precharge', 'precharge@2'],
  interlock: goneNow('pressure'),
  feeds: {
    dials: {
      fields: (context): readonly TypedField[] => [
        ...storedCircuits.flatMap((circuit): TypedField[] => {
          const { precharge } = circuit.storeOf(context.unit);
          const ambient = context.ambient.pressure;
          const here = restatePrecharge(precharge, prechargeTemperature, context.airTemperature, ambient);
          const tolerance =
            circuit.storeOf(context.unit).prechargeTolerance ?? context.workshopLimits.prechargeTolerance;
          return [
            {
              id: `sphere${circuit.suffix}`,
              title: `${circuit.title}: precharge`,
              hint: 'Off the charging tool’s gauge, sphere settled at the bench’s temperature',
              as: 'gauge',
              channel: circuit.pressure,
              expected: { low: here * (1 - tolerance), high: here * (1 + tolerance) },
              plausible: plausibleRange('gauge', circuit.pressure, context),
              optional: false,
            },
          ];
        }),
        choice(
          'purpose',
          'The spheres are for',
          'Off the plates of both; the sheet’s purpose and no other',
          sphereChoices.map((each) => each.title),
          spherePurposes.indexOf(context.unit.spec.spherePurpose),
        ),
        choice(
          'fluid',
          'Fluid found in them',
          'What runs out; the sheet’s fluid and no other',
          fluidTitles,
          fluidKinds.indexOf(context.unit.spec.fluid),
        ),
      ],
      analyse: (values, context): StepAnalysis => {
        const notes: AnalysisProblem[] = [];
        const { spherePurpose, fluid } = context.unit.spec;
        const found = spherePurposes[values.purpose] ?? spherePurpose;
        const ran = fluidKinds[values.fluid] ?? fluid;
        if (found !== spherePurpose) notes.push({ code: 'sphere-of-other-purpose', found, wanted: spherePurpose });
        if (ran !== fluid) notes.push({ code: 'fluid-mixed', found: ran, wanted: fluid });
        const [refusal] = notes;
        const shell = shellTemperature(context);
        const characteristics = storedCircuits.map((circuit): Characteristic => {
          const id = `precharge${circuit.place}` as const;
          // Whatever its gauge says, such a sphere is not passed.
          if (refusal)
            return { kind: 'beyond', id, side: 'below', bound: { value: 0, components: [] }, problem: refusal };
          const reading = values[`sphere${circuit.suffix}`];
          if (reading === undefined) return absent(id, { code: 'not-read' });
          const instrument = context.instruments.get(circuit.pressure);
          const ambient = context.ambient.pressure;
          return measured(id, restatePrecharge(reading, shell.value, prechargeTemperature, ambient), [
            { source: 'temperature', standard: ((reading + ambient) * shell.standard) / shell.value, random: false },
            ...(instrument ? readingComponents(instrument, reading, context.date) : []),
          ]);
        });
        return { characteristics, events: [], notes: [...notes, ...shell.notes] };
      },
    },
    standIn: (context, condition, source) => {
      const { unit, ambient, airTemperature } = context;
      const reading = (precharge: number, gas: number) => {
        const here = restatePrecharge(
          (precharge + ambient.pressure) * gas - ambient.pressure,
          prechargeTemperature,
          airTemperature,
          ambient.pressure,
        );
        return Math.max(0, Math.round((here * (1 + 0.003 * source.normal())) / 1e4) * 1e4);
      };
      const purpose = spherePurposes.indexOf(unit.spec.spherePurpose);
      const fluid = fluidKinds.indexOf(unit.spec.fluid);
      return {
        sphere: reading(unit.first.precharge, condition.first.gas),
        'sphere-2': reading(unit.second.precharge, condition.second.gas),
        purpose: condition.wrongSphere ? (purpose === 2 ? 0 : 2) : purpose,
        fluid: condition.wrongFluid ? (fluid === 0 ? 2 : 0) : fluid,
      };
    },
  },
  limits: (_analysis, context) =>
    storedCircuits.map((circuit) => {
      const { precharge, prechargeTolerance } = circuit.storeOf(context.unit);
      return around(
        `precharge${circuit.place}`,
        precharge,
        limitFrom(
          { field: 'prechargeTolerancePercent', value: prechargeTolerance ?? undefined },
          { key: 'prechargeTolerance', value: context.workshopLimits.prechargeTolerance },
        ),
      );
    }),
};
