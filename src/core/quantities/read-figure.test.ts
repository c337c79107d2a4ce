import fc from 'fast-check';
import { measurementUnits, unitOf } from './measurement-unit';
import { readFigure } from './read-figure';

const vacuum = { unit: unitOf('kPa'), vacuum: true, ambient: 85_400 };
const force = { unit: unitOf('N'), vacuum: false, ambient: 85_400 };

const si = (text: string, expected = vacuum) => {
  const read = readFigure(text, expected);
  return read.kind === 'figure' ? read.value : read.kind;
};

describe('a typed figure', () => {
  it.each([
    ['14 inHg', 14 * 3386.389],
    ['0.7bar', 70_000],
    ['0,7 bar', 70_000],
    ['-0.7 bar', 70_000],
    ['−0.7 bar', 70_000],
    ['38 kPa abs', 47_400],
    ['50', 50_000],
    ['14 "Hg', 14 * 3386.389],
    ['.5 bar', 50_000],
  ])('%s is understood as a vacuum', (text, expected) => expect(si(text)).toBeCloseTo(expected as number, 6));

  it('says what it inferred about the reference', () => {
    expect(readFigure('-0.7 bar', vacuum)).toMatchObject({ inferred: 'negative-gauge' });
    expect(readFigure('38 kPa abs', vacuum)).toMatchObject({ inferred: 'absolute' });
    expect(readFigure('50', vacuum)).toMatchObject({ inferred: null });
  });

  it('keeps a sign where it is not a vacuum, and names what it cannot use', () => {
    expect(si('-3 N', force)).toBe(-3);
    expect(readFigure('twelve', force)).toEqual({ kind: 'not-a-figure', text: 'twelve' });
    expect(readFigure('12 furlong', force)).toEqual({ kind: 'unknown-unit', unit: 'furlong' });
    expect(readFigure('12 bar', force)).toEqual({ kind: 'wrong-unit', unit: 'bar', wanted: 'N' });
    expect(readFigure('  ', force)).toEqual({ kind: 'empty' });
    expect(readFigure('1.2.3', force).kind).not.toBe('figure');
  });

  it('any figure in any unit comes back as it was meant', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...measurementUnits.filter((unit) => unit.dimension === 'pressure')),
        fc.double({ min: 0.01, max: 9999, noNaN: true }),
        (unit, shown) => {
          const text = shown.toFixed(4);
          expect(si(`${text} ${unit.symbol}`)).toBeCloseTo(Number(text) * unit.factor, 6);
        },
      ),
    );
  });
});
