import * as fc from 'fast-check';
import { expandedUncertainty } from '../../instruments/uncertainty';
import { contextAt } from '../../formats/site-file';
import { checkKind } from '../../formats/unit-sheet';
import { kindNamed } from '../../families';
import { estimateOf } from '../../procedure/analysis-result';
import { holdEntry } from './hold-entry';

const kind = kindNamed('vacuum-inline');
const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');

const inAir = (airTemperatureC: number) =>
  contextAt(checked.value, { altitudeM: 1420, airTemperatureC, benchVolumeCm3: 600 }, '2026-11-23');
const entry = holdEntry<unknown>({
  seconds: () => 15,
  limit: () => 3_300,
  supplyVacuum: () => 58e3,
  volume: () => 3.4e-3,
});
const values = { start: 58e3, seconds: 60, end: 54e3 };

describe('a hold read off a dial', () => {
  it('is stated for the step’s own time, whatever time it was watched for', () => {
    const found = estimateOf(entry.analyse(values, inAir(20)), 'vacuum-loss')!;
    // Even while choked: 1,000 Pa; exponential: 58 kPa · (1 − (54/58)^¼).
    const [even, exponential] = [1_000, 58e3 * (1 - (54 / 58) ** 0.25)];
    expect(found.value).toBeGreaterThan(even);
    expect(found.value).toBeLessThan(exponential);
    expect(expandedUncertainty(found)).toBeGreaterThan((exponential - even) / 2);
  });

  it('gives a leak as air of 20 °C at sea level: colder air in the shell is more of it', () => {
    // Of 4 L of shell and bench, at 101.325 kPa and 293.15 K.
    const cold = entry.analyse(values, inAir(0));
    const loss = estimateOf(cold, 'vacuum-loss')!.value;
    const expected = ((loss / 15) * 4e-3 * 293.15) / (101_325 * 273.15);
    expect(estimateOf(cold, 'leak-flow')?.value).toBeCloseTo(expected, 12);
  });

  const outcome = (typed: Record<string, number>) => {
    const analysis = entry.analyse(typed, inAir(20));
    const loss = estimateOf(analysis, 'vacuum-loss');
    return { loss, expanded: loss ? expandedUncertainty(loss) : NaN, doubts: analysis.doubts?.map(({ code }) => code) };
  };

  it('of a fast leak that was read late is no pass: the loss may have been the limit’s and twice that', () => {
    const { loss, expanded, doubts } = outcome({ start: 60e3, seconds: 300, end: 5e3 });
    expect(doubts).toContain('read-far-from-limit');
    // Exponential: 60 kPa · (1 − (5/60)^(15/300)) = 7.0 kPa in 15 s.
    expect(loss!.value + expanded).toBeGreaterThan(60e3 * (1 - (5 / 60) ** 0.05));
  });

  it('is decided by a reading near the limit’s own time', () => {
    const { loss, expanded, doubts } = outcome({
      start: 60e3,
      seconds: 300,
      end: 5e3,
      'middle-seconds': 15,
      middle: 53.1e3,
    });
    expect(doubts).toEqual([]);
    expect(loss!.value).toBeCloseTo(6_900, 0);
    expect(loss!.value - expanded).toBeGreaterThan(3_300);
  });

  it('never turns a fast leak into a slow one by being watched longer', () => {
    fc.assert(
      fc.property(fc.double({ min: 30, max: 400, noNaN: true }), fc.integer({ min: 20, max: 900 }), (tau, seconds) => {
        const end = 58e3 * Math.exp(-seconds / tau);
        fc.pre(end > 2_500);
        const truth = 58e3 * (1 - Math.exp(-15 / tau));
        const { loss, expanded } = outcome({ start: 58e3, seconds, end });
        expect(loss!.value + expanded).toBeGreaterThanOrEqual(truth);
      }),
    );
  });
});
