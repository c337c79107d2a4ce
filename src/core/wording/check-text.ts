import type { Check } from '../judging/judge-step';
import type { Remedy } from '../vocabulary/verdict';
import type { LimitSource } from '../procedure/limit';
import { figure, shownUnit, withUnit, type DisplayUnits } from './display';
import { shownAs } from '../quantities/shown-as';
import { analysisProblemText } from './problem-text';

/** Where a limit comes from. */
export function limitSourceText(source: LimitSource): string {
  return source.kind === 'sheet' ? 'unit sheet' : 'workshop default; the maker’s data wins';
}

/** Limit as an interval. */
export function limitText(check: Check, units: DisplayUnits): string {
  const as = shownAs(check.characteristic);
  const { low, high } = check.limit;
  const unit = shownUnit(as, units);
  const symbol = unit.symbol === '1' ? '' : ` ${unit.symbol}`;
  if (low !== null && high !== null) return `${figure(low, unit)} to ${figure(high, unit)}${symbol}`;
  if (high !== null) return `at most ${withUnit(high, as, units)}`;
  const from = check.limit.restatedFrom;
  const written = from === undefined || low === null ? '' : ` (${withUnit(from, as, units)} at the sea)`;
  return low === null ? 'none' : `at least ${withUnit(low, as, units)}${written}`;
}

export function remedyText(remedy: Remedy, units: DisplayUnits): string {
  switch (remedy.kind) {
    case 'repeats':
      return `${remedy.count} repeats in all would decide.`;
    case 'better-gauge':
      return `A gauge ${remedy.factor} times as good would decide.`;
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

export const verdictWords = {
  pass: 'Pass',
  fail: 'Fail',
  undecided: 'Undecided',
  recorded: 'Recorded',
  'not-run': 'Not run',
  incomplete: 'Incomplete',
} as const;
