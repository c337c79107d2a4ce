import fc from 'fast-check';
import { measurementUnits, unitOf } from './measurement-unit';
import { readFigure, type FigureExpected } from './read-figure';

const vacuum = { unit: unitOf('kPa'), reference: 'vacuum', ambient: 85_400 } as const;
const force = { unit: unitOf('N'), reference: 'none', ambient: 85_400 } as const;

const gauge = { unit: unitOf('MPa'), reference: 'gauge', ambient: 85_400 } as const;

const si = (text: string, expected: FigureExpected = vacuum) => {
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
    expect(readFigure('12 furlong', force)).toMatchObject({
      kind: 'unknown-unit',
      unit: 'furlong',
      accepted: expect.arrayContaining(['N', 'lbf', 'kN']),
    });
    expect(readFigure('12 bar', force)).toMatchObject({ kind: 'wrong-unit', unit: 'bar', wanted: 'N' });
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

  const psi = 6894.757;
  const inHg = 3386.389;

  it.each<[string, FigureExpected, number | string]>([
    // Pressures of a store or a circuit, asked for in MPa gauge
    ['14', gauge, 14e6],
    ['14.5', gauge, 14.5e6],
    ['14,5', gauge, 14.5e6],
    ['0.57', gauge, 0.57e6],
    ['5.7 bar', gauge, 0.57e6],
    ['5.7 barg', gauge, 0.57e6],
    ['5.7 bar g', gauge, 0.57e6],
    ['5.7 bar (g)', gauge, 0.57e6],
    ['5.7bar gauge', gauge, 0.57e6],
    ['1450 psi', gauge, 1450 * psi],
    ['1450psig', gauge, 1450 * psi],
    ['1450 PSI', gauge, 1450 * psi],
    ['1 450 psi', gauge, 1450 * psi],
    ['1\u00a0450 psi', gauge, 1450 * psi],
    ['1\u202f450 psi', gauge, 1450 * psi],
    ["1'450 psi", gauge, 1450 * psi],
    ['1,450.5 psi', gauge, 1450.5 * psi],
    ['1.450,5 psi', gauge, 1450.5 * psi],
    ['1,450,000 Pa', gauge, 1.45e6],
    ['1.450.000 Pa', gauge, 1.45e6],
    ['1.450 psi', gauge, 1.45 * psi],
    ['16 200 kPa', gauge, 16.2e6],
    ['162 kgf/cm2', gauge, 162 * 98066.5],
    ['162 kg/cm²', gauge, 162 * 98066.5],
    // Absolute, with today's air taken off
    ['15 bara', gauge, 1.5e6 - 85_400],
    ['15 bar abs', gauge, 1.5e6 - 85_400],
    ['15 bar (abs)', gauge, 1.5e6 - 85_400],
    ['15 bar absolute', gauge, 1.5e6 - 85_400],
    ['200 psia', gauge, 200 * psi - 85_400],
    ['0.1 MPaa', gauge, 1e5 - 85_400],
    ['-0.02 bar', gauge, -2_000],
    ['–0.02 bar', gauge, -2_000],
    // Vacuum, asked for in kPa
    ['17 inHg', vacuum, 17 * inHg],
    ['17 in.Hg', vacuum, 17 * inHg],
    ['17"Hg', vacuum, 17 * inHg],
    ['43 cmHg', vacuum, 43 * 1333.224],
    ['430 mmHg', vacuum, 430 * 133.3224],
    ['430 torr', vacuum, 430 * 133.3224],
    ['580 mbar', vacuum, 58_000],
    ['580 hPa', vacuum, 58_000],
    ['580 hpa', vacuum, 58_000],
    ['58 kPa vac', vacuum, 58_000],
    ['58 kPa vacuum', vacuum, 58_000],
    ['−58', vacuum, 58_000],
    ['– 58 kPa', vacuum, 58_000],
    ['27.4 kPa abs', vacuum, 58_000],
    ['274 mbara', vacuum, 58_000],
    ['274 hPa abs', vacuum, 58_000],
    ['-0.58 barg', vacuum, 58_000],
    ['0.58 barg', vacuum, -58_000],
    // Forces, and what cannot be read
    ['200', force, 200],
    ['45 lbf', force, 45 * 4.448222],
    ['1 200 N', force, 1200],
    ['45 bar', force, 'wrong-unit'],
    ['14 furlong', gauge, 'unknown-unit'],
    ['fifty', gauge, 'not-a-figure'],
    ['0x1F', gauge, 'not-a-figure'],
    ['1e300', gauge, 'not-a-figure'],
    ['1.2.3', gauge, 'not-a-figure'],
    ['12,34,567', gauge, 'not-a-figure'],
    ['--3', gauge, 'not-a-figure'],
    ['', gauge, 'empty'],
  ])('“%s” is what a hand meant by it', (text, expected, meant) => {
    const read = si(text, expected);
    if (typeof meant === 'string') expect(read).toBe(meant);
    else expect(read).toBeCloseTo(meant, 3);
    const found = readFigure(text, expected);
    if (found.kind === 'figure') expect(found.either).toBeNull();
  });

  it.each([
    ['1,450 psi', 1450 * psi, ['1450 psi', '1.450 psi']],
    ['-1,450 psi', -1450 * psi, ['-1450 psi', '-1.450 psi']],
    ['16,200', 16_200e6, ['16200', '16.200']],
  ])('“%s” is taken for thousands, and asked about', (text, value, either) => {
    const read = readFigure(text, gauge);
    expect(read).toMatchObject({ kind: 'figure', either });
    expect(si(text, gauge)).toBeCloseTo(value, 3);
    // Either answer is beyond doubt.
    for (const answer of either) expect(readFigure(answer, gauge)).toMatchObject({ kind: 'figure', either: null });
  });

  it('a comma after a nought parts decimals', () => {
    expect(si('0,570', gauge)).toBeCloseTo(0.57e6, 6);
    expect(readFigure('0,570', gauge)).toMatchObject({ either: null });
  });

  it('a text as long as a letter is refused at once', () => {
    expect(readFigure(`1${' '.repeat(100_000)}x`, gauge).kind).toBe('not-a-figure');
    expect(readFigure('1 450'.repeat(10_000), gauge).kind).toBe('not-a-figure');
  });
});

describe('times as people write them', () => {
  const seconds = { unit: unitOf('s'), reference: 'none', ambient: 0 } as const;
  const hours = { ...seconds, unit: unitOf('h') };
  it.each([
    ['1:30', 90],
    ['1:02:30', 3750],
    ['0:45.5', 45.5],
    ['2\'30"', 150],
    ['2′ 30″', 150],
    ["3'", 180],
    ['2 min 30 s', 150],
    ['1 h 5 min', 3900],
    ['90 seconds', 90],
    ['1.5 min', 90],
    ['1,5 minutes', 90],
    ['12', 12],
  ])('%s', (text, expected) => {
    expect(readFigure(text, seconds)).toMatchObject({ kind: 'figure', value: expected });
  });

  it('hours and minutes where hours are asked for', () => {
    expect(readFigure('11:30', hours)).toMatchObject({ kind: 'figure', value: 41_400 });
  });

  it.each(['1:75', '30 s 2 min', '1:2:3:4', "2'75", 'min'])('is none: %s', (text) => {
    expect(readFigure(text, seconds).kind).not.toBe('figure');
  });
});

describe('units as people write them', () => {
  const pressure = { unit: unitOf('kPa'), reference: 'gauge', ambient: 101_325 } as const;
  const push = { unit: unitOf('N'), reference: 'none', ambient: 0 } as const;
  it.each([
    ['kPa 38', pressure, 38e3],
    ['inHg: 14', { ...pressure, reference: 'vacuum' } as const, undefined],
    ['14 in. Hg', { ...pressure, reference: 'vacuum' } as const, 14 * 3386.389],
    ['3 inH2O', pressure, 747.2667],
    ['2 atm', pressure, 202_650],
    ['5 N/mm²', pressure, 5e6],
    ['0.3 kN', push, 300],
    ['20 daN', push, 200],
    ['20 kp', push, 196.133],
    ['45 lbs', push, 200.16999],
  ])('%s', (text, expected, value) => {
    const read = readFigure(text, expected);
    if (value === undefined) expect(read.kind).not.toBe('figure');
    else expect(read.kind === 'figure' && read.value).toBeCloseTo(value, 3);
  });
});
