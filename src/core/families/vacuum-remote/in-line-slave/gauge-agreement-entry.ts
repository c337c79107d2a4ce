import { plausibleRange } from '../../../dials/plausible-range';
import { nothingMeasured } from '../../../procedure/analysis-result';
import type { StepContext } from '../../../procedure/step-context';
import type { TypedEntry, TypedField, TypedValues } from '../../../procedure/typed-entry';
import { agreementOf, type LevelPair } from '../steps/gauge-agreement-analysis';
import { pairLimit } from '../steps/step-parts';
import type { InLineUnit } from './geometry';

type Context = StepContext<InLineUnit>;

const names = ['at rest', 'at the first level', 'at the second level', 'at the third level', 'at the fourth level'];
/** A level may be held this far from where it is asked for. */
const nearLevel = 0.15;
/** No two needles are read together better than to this, Pa. */
const leastStandard = 1;

/** Entry of the gauge comparison: what both gauges show at rest and at each level, and both vacuum gauges on one tee. */
export function gaugeAgreementEntry(levelsOf: (context: Context) => readonly number[]): TypedEntry<InLineUnit> {
  return {
    fields: (context, values) => {
      const limit = pairLimit(context).value;
      const gauge = (id: string, title: string, channel: string): TypedField => ({
        id,
        title,
        hint: '',
        as: 'gauge',
        channel,
        expected: null,
        plausible: plausibleRange('gauge', channel, context),
        optional: false,
      });
      const vacuum = (id: string, title: string, channel: string): TypedField => ({
        id,
        title,
        hint: 'Both vacuum gauges on one tee, the unit shut off',
        as: 'vacuum',
        channel,
        expected: null,
        plausible: plausibleRange('vacuum', channel, context),
        optional: true,
      });
      return [
        ...[0, ...levelsOf(context)].flatMap((level, at) => {
          const input = values[`input-${at}`];
          const off = Math.max(limit * (input ?? level), context.workshopLimits.pairErrorFloor * level);
          return [
            {
              ...gauge(`input-${at}`, `Input gauge ${names[at]}`, 'input_pressure'),
              hint: at === 0 ? 'Vacuum off, lever home' : 'Vacuum off; hold until both needles stand',
              toHold: true as const,
              expected: level === 0 ? null : { low: level * (1 - nearLevel), high: level * (1 + nearLevel) },
            },
            {
              ...gauge(`output-${at}`, `Output gauge ${names[at]}`, 'output_pressure'),
              expected: input === undefined || level === 0 ? null : { low: input - off, high: input + off },
            },
          ];
        }),
        vacuum('supply-tee', 'Supply vacuum gauge', 'supply_vacuum'),
        vacuum('control-tee', 'Control vacuum gauge', 'control_vacuum'),
      ];
    },
    analyse: (values, context) => {
      const pairs = pairsOf(values, levelsOf(context).length, context);
      if (pairs.length === 0) return nothingMeasured(['pair-offset', 'pair-gain'], { code: 'not-read' });
      const { 'supply-tee': supply, 'control-tee': control } = values;
      const tee =
        supply === undefined || control === undefined
          ? null
          : {
              difference: control - supply,
              standard: Math.hypot(readTo('supply_vacuum', context), readTo('control_vacuum', context)),
            };
      return agreementOf(pairs, tee, context, {
        fraction: pairLimit(context).value,
        floor: context.workshopLimits.pairErrorFloor,
      });
    },
  };
}

/** Standard uncertainty of reading a needle, SI. */
function readTo(channel: string, context: Context): number {
  return (context.instruments.get(channel)?.resolution ?? 0) / Math.sqrt(12);
}

function pairsOf(values: TypedValues, levels: number, context: Context): LevelPair[] {
  const standard = Math.max(
    leastStandard,
    Math.hypot(readTo('input_pressure', context), readTo('output_pressure', context)),
  );
  return Array.from({ length: levels + 1 }, (_, at) => at).flatMap((at) => {
    const [input, output] = [values[`input-${at}`], values[`output-${at}`]];
    return input === undefined || output === undefined ? [] : [{ input, output, standard }];
  });
}
