import { contextAt } from '../../formats/site-file';
import { checkKind } from '../../formats/unit-sheet';
import { kindNamed } from '../../families';
import { estimateOf } from '../../procedure/analysis-result';
import { expandedUncertainty } from '../../instruments/uncertainty';
import { pressureHoldEntry } from './pressure-hold-entry';

const kind = kindNamed('vacuum-remote');
const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const context = contextAt(checked.value, { altitudeM: 0 }, '2026-11-23');
const entry = pressureHoldEntry<unknown>({
  options: () => ({ seconds: 60, withInputCreep: false, between: [1e6, 8e6] }),
  limit: (_context, held) => (0.05 * held) / 60,
  lockedIn: () => [4e6, 6e6],
});
const rateOf = (typed: Record<string, number>) => {
  const analysis = entry.analyse(typed, context);
  return { rate: estimateOf(analysis, 'output-decay-rate')!, doubts: analysis.doubts?.map(({ code }) => code) ?? [] };
};

describe('a pressure hold read off a dial', () => {
  it('is the fall over the time where that is the time of its limit', () => {
    const { rate, doubts } = rateOf({ start: 5e6, seconds: 60, end: 4.9e6 });
    expect(rate.value).toBeCloseTo(0.1e6 / 60, 6);
    expect(doubts).toEqual([]);
  });

  it('that lost nearly all in an hour says what it may have lost in its first minute, and is no pass', () => {
    const { rate, doubts } = rateOf({ start: 5e6, seconds: 3600, end: 0.2e6 });
    expect(doubts).toEqual(['read-far-from-limit']);
    // In proportion to what is left: 5 MPa · (1 − 0.04^(1/60)) in the first minute.
    const most = (5e6 * (1 - 0.04 ** (1 / 60))) / 60;
    expect(rate.value).toBeLessThan(most);
    expect(rate.value + expandedUncertainty(rate)).toBeGreaterThan(most);
    expect(rate.value).toBeGreaterThan(4.8e6 / 3600);
  });
});
