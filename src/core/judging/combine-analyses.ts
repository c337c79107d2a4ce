import { mergeCorrections } from '../procedure/corrections';
import type { Corrections, Found, PairCorrection, StepAnalysis } from '../procedure/step-analysis';

/** What an analysis says once of its whole run, as one figure each, SI. */
const figures = [
  'held',
  'vacuum',
  'restVacuum',
  'pedalForce',
  'pedalForceStandard',
  'frontPressure',
  'largestRequest',
] as const;

const mean = (values: readonly number[]): number =>
  [...values].sort((one, other) => one - other).reduce((sum, value) => sum + value, 0) / values.length;

/**
 * What repeats say beside their characteristics, the same in whatever order they were kept: figures of the run, which limits
 * follow from, at their mean.
 */
export function figuresOf(analyses: readonly StepAnalysis[]): Partial<StepAnalysis> {
  return Object.fromEntries(
    figures.flatMap((figure) => {
      const said = analyses.flatMap((each) => each[figure] ?? []);
      return said.length > 0 ? [[figure, mean(said)]] : [];
    }),
  );
}

/** What repeats of one step found out about the bench: means, each as uncertain as one of them. */
export function correctionsTogether(analyses: readonly StepAnalysis[]): Partial<Corrections> {
  const said = analyses.flatMap(({ corrections }) => corrections ?? []);
  if (said.length < 2) return said[0] ?? {};
  const pairs = said.flatMap(({ pair }) => pair ?? []);
  const tees = said.flatMap(({ vacuumPair }) => vacuumPair ?? []);
  return {
    ...said.reduce((all, each) => mergeCorrections(all, each), {} as Partial<Corrections>),
    ...(pairs.length > 0 ? { pair: pairTogether(pairs) } : {}),
    ...(tees.length > 0
      ? {
          vacuumPair: {
            difference: mean(tees.map(({ difference }) => difference)),
            standard: Math.max(...tees.map(({ standard }) => standard)),
          },
        }
      : {}),
    ...placesTogether(said, 'precharge'),
    ...placesTogether(said, 'soakLeak'),
  };
}

function pairTogether(pairs: readonly PairCorrection[]): PairCorrection {
  return {
    offset: mean(pairs.map(({ offset }) => offset)),
    gain: mean(pairs.map(({ gain }) => gain)),
    offsetStandard: Math.max(...pairs.map(({ offsetStandard }) => offsetStandard)),
    gainStandard: Math.max(...pairs.map(({ gainStandard }) => gainStandard)),
    allowedGain: [
      Math.max(...pairs.map(({ allowedGain: [least] }) => least)),
      Math.min(...pairs.map(({ allowedGain: [, most] }) => most)),
    ],
    applied: pairs.every(({ applied }) => applied),
  };
}

function placesTogether(said: readonly Partial<Corrections>[], what: 'precharge' | 'soakLeak') {
  const places = said.flatMap((each) => Object.entries(each[what] ?? {}));
  if (places.length === 0) return {};
  const together = [...new Set(places.map(([place]) => place))].map((place): [string, Found] => {
    const found = places.flatMap(([at, one]) => (at === place ? [one] : []));
    return [
      place,
      { value: mean(found.map(({ value }) => value)), standard: Math.max(...found.map(({ standard }) => standard)) },
    ];
  });
  return { [what]: Object.fromEntries(together) };
}
