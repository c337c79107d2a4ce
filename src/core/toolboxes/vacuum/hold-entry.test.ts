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
    const found = estimateOf(entry.analyse(values, inAir(20)), 'vacuum-loss');
    expect(found?.value).toBeCloseTo(1_000, 6);
  });

  it('gives a leak as air of 20 °C at sea level: colder air in the shell is more of it', () => {
    // 4 kPa in 60 s from 4 L of shell and bench, at 101.325 kPa and 293.15 K.
    const expected = ((4_000 / 60) * 4e-3 * 293.15) / (101_325 * 273.15);
    expect(estimateOf(entry.analyse(values, inAir(0)), 'leak-flow')?.value).toBeCloseTo(expected, 12);
  });
});
