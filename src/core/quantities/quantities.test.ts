import {
  characteristicKeptAs,
  characteristicRow,
  isCharacteristicId,
  openName,
  type CharacteristicId,
} from './characteristics';
import '../families';
import fc from 'fast-check';
import { findUnit, fromSi, measurementUnits, toSi, unitOf } from './measurement-unit';
import {
  absoluteFromVacuum,
  quantity,
  vacuumFromAbsolute,
  vacuumFromGauge,
  type AbsolutePressure,
  type GaugePressure,
} from './quantity';
import { ambientStandard, ambientFrom, standardAtmosphere } from './standard-atmosphere';

describe('measurement units', () => {
  it.each([
    [1, 'inHg', 3.386389, 'kPa'],
    [1, 'mmHg', 0.1333224, 'kPa'],
    [1, 'psi', 6.894757, 'kPa'],
    [1, 'kgf/cm2', 98.0665, 'kPa'],
    [1, 'lbf', 4.448222, 'N'],
    [1, 'in', 25.4, 'mm'],
    [1, 'in3', 16.387064, 'cm3'],
    [32, '°F', 0, '°C'],
    [1, 'bar', 100, 'kPa'],
  ])('%d %s is %d %s', (shown, from, expected, to) => {
    expect(fromSi(toSi(shown, unitOf(from)), unitOf(to))).toBeCloseTo(expected, 9);
  });

  it('gives back what it was given, in every unit', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...measurementUnits),
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        (unit, value) => {
          expect(fromSi(toSi(value, unit), unit)).toBeCloseTo(value, 6);
        },
      ),
    );
  });

  it('tells MPa from mPa-like slips: the exact symbol wins, other spellings are read in any case', () => {
    expect(findUnit('MPa')?.factor).toBe(1e6);
    expect(findUnit('INHG')?.symbol).toBe('inHg');
    expect(findUnit('furlong')).toBeUndefined();
  });
});

describe('pressure references', () => {
  const ambient = quantity<AbsolutePressure>(85_400);

  it('a vacuum is what is missing to the atmosphere, and −0.7 bar gauge is 70 kPa of it', () => {
    expect(vacuumFromAbsolute(quantity<AbsolutePressure>(25_400), ambient)).toBe(60_000);
    expect(absoluteFromVacuum(vacuumFromAbsolute(ambient, ambient), ambient)).toBe(ambient);
    expect(vacuumFromGauge(quantity<GaugePressure>(-70_000))).toBe(70_000);
  });
});

describe('standard atmosphere', () => {
  it('is 101.325 kPa at the sea and 85.4 kPa at 1,420 m', () => {
    expect(standardAtmosphere(0)).toBe(101_325);
    expect(standardAtmosphere(1420) / 1e3).toBeCloseTo(85.4, 1);
  });

  it('falls with height', () => {
    fc.assert(
      fc.property(fc.integer({ min: -500, max: 10_000 }), (height) => {
        expect(standardAtmosphere(height + 1)).toBeLessThan(standardAtmosphere(height));
      }),
    );
  });

  it('a station barometer wins, and one reduced to the sea is questioned', () => {
    expect(ambientFrom({ altitude: 1420, barometer: 84_900 })).toMatchObject({ pressure: 84_900, questionedBy: null });
    expect(ambientFrom({ altitude: 1420, barometer: 101_300 }).questionedBy).toBeGreaterThan(15_000);
    expect(ambientFrom({}).source).toBe('sea-level-assumed');
  });

  it('is no surer than what told it: a barometer, the altitude, or nothing at all', () => {
    const doubts = [{ barometer: 85_000 }, { altitude: 1420 }, {}].map((site) => ambientStandard(ambientFrom(site)));
    expect(doubts).toEqual([...doubts].sort((p, q) => p - q));
    expect(doubts[2]).toBeGreaterThan(5_000);
    // A weather service's figure in the mountains: as wide as the contradiction.
    expect(ambientStandard(ambientFrom({ altitude: 1420, barometer: 101_500 }))).toBeGreaterThan(9_000);
  });
});

describe('a characteristic at a place', () => {
  it('has the row of its word, with the place said and its own dial', () => {
    const second = characteristicRow('precharge@2');
    expect(second).toMatchObject({ title: 'Precharge at 20 °C, circuit 2', unit: 'kPa', as: 'gauge' });
    expect(second.dial).toEqual({ kind: 'reading', channel: 'accumulator_pressure_2' });
    expect(characteristicRow('port-residual@rear').dial).toEqual({ kind: 'difference', channel: 'rear_pressure' });
    expect(() => characteristicRow('precharge@nowhere' as CharacteristicId)).toThrow('precharge@nowhere');
    expect(isCharacteristicId('nothing@2')).toBe(false);
  });

  it('keeps the name that it has in open files, and readings kept under former names are its', () => {
    expect(openName('store-cut-in@2')).toBe('pump-cut-in-2');
    expect(openName('rise-time@rear')).toBe('rise-time-2');
    expect(openName('port-residual@rear')).toBe('residual-output-2');
    expect(characteristicKeptAs('rise-time-2')).toBe('rise-time@rear');
    expect(characteristicKeptAs('rear-residual')).toBe('port-residual@rear');
    expect(characteristicKeptAs('half-life-2')).toBe('half-life@2');
    expect(characteristicKeptAs('precharge@2')).toBe('precharge@2');
    expect(characteristicKeptAs('sphere-2')).toBeUndefined();
  });
});
