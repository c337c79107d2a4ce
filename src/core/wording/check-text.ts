import type { Check } from '../judging/judge-step';
import type { UncertaintySource } from '../instruments/uncertainty';
import type { Remedy } from '../vocabulary/verdict';
import type { LimitSource } from '../procedure/limit';
import type { Characteristic } from '../procedure/step-analysis';
import { figure, foundSize, shownUnit, withUnit, type DisplayUnits } from './display';
import { shownAs } from '../quantities/shown-as';
import { analysisProblemText } from './problem-text';

/** Where a limit comes from. */
export function limitSourceText(source: LimitSource): string {
  return source.kind === 'sheet' ? 'unit sheet' : 'workshop default; the maker’s data wins';
}

/** Limit as an interval, in the unit of the reading that stands beside it. */
export function limitText({ characteristic, limit }: Check, units: DisplayUnits, beside?: Characteristic): string {
  const { low, high, restatedFrom } = limit;
  const size = beside && beside.kind !== 'absent' ? foundSize(beside) : (high ?? low ?? 0);
  const unit = shownUnit(shownAs(characteristic), units, size);
  const symbol = unit.symbol === '1' ? '' : ` ${unit.symbol}`;
  const said = (value: number) => `${figure(value, unit)}${symbol}`;
  if (low !== null && high !== null) return `${figure(low, unit)} to ${said(high)}`;
  if (high !== null) return `at most ${said(high)}`;
  const written = restatedFrom === undefined ? '' : ` (${said(restatedFrom)} at the sea)`;
  return low === null ? 'none' : `at least ${said(low)}${written}`;
}

/** What lessens each part of a doubt, as an order. */
const knowBetter: Readonly<Record<UncertaintySource | 'limit', string>> = {
  fit: 'Record for longer, or more evenly: the scatter about the fitted line decides',
  noise: 'Record for longer: the noise decides',
  resolution: 'Use a gauge with finer divisions',
  'gauge-zero': 'Zero the gauge before the step',
  'gauge-gain': 'Use a better gauge',
  'gauge-linearity': 'Use a better gauge',
  model: 'Measure where the figure itself is stated: the law it is carried on by decides',
  'gauge-stability': 'Let the gauge warm up, or use one that drifts less: what it may have drifted meanwhile decides',
  'pair-gain': 'Compare the two gauges first: their difference decides',
  'pair-offset': 'Compare the two gauges first: their difference decides',
  counting: 'Do it again: one stroke lay close to the threshold',
  'force-match': 'Hold both forces alike',
  timing: 'Move more slowly, log faster, or enter how late each gauge reads on its instrument: lag and timing decide',
  volume: 'Measure the volume better: it decides',
  temperature: 'Measure the temperature of the shell: it decides',
  'reserve-left': 'Pump until the strokes read the same: what is left of the reserve decides',
  'gas-heat': 'Let the air settle for half a minute before the source is shut, or hold for longer: its warming decides',
  repeats: 'Find out why the repeats scatter: that decides',
  limit: 'Find out better what the limit depends on (the vacuum that was there, today’s air)',
};

export function remedyText(remedy: Remedy, units: DisplayUnits): string {
  switch (remedy.kind) {
    case 'repeats':
      return `${remedy.count} repeats in all would decide.`;
    case 'better-gauge':
      return `A gauge ${remedy.factor} times as good would decide.`;
    case 'know-better':
      return `${knowBetter[remedy.part]}.`;
    case 'at-the-limit':
      return 'It lies at the limit, closer than any gauge at hand can tell.';
    case 'measure-again':
      return analysisProblemText(remedy.because, units);
  }
}

/** Why a check came out as it did. */
export function checkReason(check: Check, units: DisplayUnits): string {
  switch (check.verdict.kind) {
    case 'pass':
      return check.verdict.marginal
        ? `marginal: inside ${limitText(check, units)}, but short of the stricter school’s ${withUnit(check.limit.stricterLow ?? Number.NaN, shownAs(check.characteristic), units)}`
        : `inside ${limitText(check, units)} with its uncertainty`;
    case 'fail':
      return check.verdict.side === 'high' ? `above ${limitText(check, units)}` : `below ${limitText(check, units)}`;
    case 'undecided':
      return `cannot be told from ${limitText(check, units)}. ${check.verdict.remedies.map((r) => remedyText(r, units)).join(' ')}`.trim();
  }
}
