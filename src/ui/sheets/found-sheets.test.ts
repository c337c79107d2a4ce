import { foundSheets } from './found-sheets';

const sheets = [
  { name: 'Ullerby W6', family: 'brake-by-wire', familyTitle: 'Decoupled unit with a plunger' },
  { name: 'Ostvale Works MB3', family: 'motor-boost', familyTitle: 'Motor booster' },
  { name: 'Tarnock R7', family: 'vacuum-remote', familyTitle: 'Remote vacuum unit' },
];
const names = (text: string) => foundSheets(sheets, text).sheets.map(({ name }) => name);

describe('sheets found by words', () => {
  it('by name, by kind, and by what shops call a kind', () => {
    expect(names('')).toHaveLength(3);
    expect(names('tarnock')).toEqual(['Tarnock R7']);
    expect(names('vacuum')).toEqual(['Tarnock R7']);
    expect(names('Brake-by-wire')).toEqual(['Ullerby W6']);
    expect(names('electric booster')).toEqual(['Ostvale Works MB3']);
    expect(names('unicorn')).toEqual([]);
  });

  it('says the exact words for a word that means several things', () => {
    expect(foundSheets(sheets, 'brake by wire').said.map(({ title }) => title)).toEqual([
      'Decoupled unit',
      'Dry by-wire',
    ]);
    expect(foundSheets(sheets, 'tarnock').said).toEqual([]);
  });
});
