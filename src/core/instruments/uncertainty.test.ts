import { calibrationState, type Instrument } from './instrument';
import {
  classError,
  differenceComponents,
  differenceResolution,
  expandedUncertainty,
  readingComponents,
  stabilityComponent,
} from './uncertainty';

const gauge: Instrument = {
  channel: 'input_pressure',
  name: 'test gauge',
  range: 10e6,
  resolution: 0,
  classFraction: 0.01,
  classOf: 'full-scale',
  calibratedOn: '2026-01-01',
  dueOn: '2027-01-01',
};
const date = '2026-06-01';
const total = (parts: { standard: number }[]) => Math.sqrt(parts.reduce((sum, part) => sum + part.standard ** 2, 0));

describe('uncertainty of an instrument', () => {
  it('a reading at full scale carries the whole class error a/√3', () => {
    expect(total(readingComponents(gauge, 10e6, date))).toBeCloseTo(100e3 / Math.sqrt(3), 3);
  });

  it('a resolution r counts r/√12', () => {
    const fine = { ...gauge, classFraction: 0, resolution: 1000 };
    expect(total(readingComponents(fine, 5e6, date))).toBeCloseTo(1000 / Math.sqrt(12), 6);
  });

  it('the zero cancels in a difference, and a small difference is small whatever its level', () => {
    const near = total(differenceComponents(gauge, 7e6, 7.1e6, date));
    expect(near).toBeLessThan(0.05 * total(readingComponents(gauge, 7e6, date)));
    expect(near).toBeCloseTo(total(differenceComponents(gauge, 0, 0.1e6, date)), 6);
  });

  it('the linearity counts in full for each of two readings more than a fifth of the range apart', () => {
    const linearity = differenceComponents(gauge, 0, 3e6, date).find((part) => part.source === 'gauge-linearity');
    expect(linearity?.standard).toBeCloseTo((Math.SQRT2 * 100e3) / 3, 6);
  });

  it('a class of reading is all gain', () => {
    const ofReading = { ...gauge, classOf: 'reading' as const };
    expect(total(readingComponents(ofReading, 2e6, date))).toBeCloseTo(20e3 / Math.sqrt(3), 6);
    expect(readingComponents(ofReading, 0, date).every((part) => part.standard === 0)).toBe(true);
  });

  it('an overdue calibration doubles the class error and says so', () => {
    expect(classError(gauge, 1e6, '2027-02-01')).toBe(2 * classError(gauge, 1e6, date));
    expect(calibrationState(gauge, '2027-02-01')).toEqual({ kind: 'overdue', dueOn: '2027-01-01' });
    expect(calibrationState(gauge, '2027-01-01').kind).toBe('in-date');
    expect(calibrationState({ ...gauge, dueOn: null }, date).kind).toBe('unknown');
  });

  it('a difference counts the division of both its readings, and repeats do not shrink it', () => {
    const part = differenceResolution({ resolution: 1000 });
    expect(part.standard).toBeCloseTo((Math.SQRT2 * 1000) / Math.sqrt(12), 6);
    expect(part.random).toBe(false);
  });

  it('a gauge drifts by a tenth of its class in a minute, with the root of the time, never by more than its class', () => {
    const after = (seconds: number, of = gauge) => stabilityComponent(of, 5e6, seconds, date).standard * Math.sqrt(3);
    expect(after(60)).toBeCloseTo(10e3, 6);
    expect(after(15)).toBeCloseTo(5e3, 6);
    expect(after(100 * 3600)).toBeCloseTo(100e3, 6);
    expect(after(60, { ...gauge, stabilityShare: 0.02 })).toBeCloseTo(2e3, 6);
  });

  it('U is twice the root sum of squares', () => {
    const components = [3, 4].map((standard) => ({ source: 'noise' as const, standard, random: true }));
    expect(expandedUncertainty({ value: 0, components })).toBe(10);
  });
});
