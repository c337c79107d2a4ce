import { findFamily } from '../families';
import { couplingWords, couplingsCalled } from './coupling-words';

const titles = (text: string) => couplingsCalled(text).map(({ title }) => title);

describe('what shops call things with wires', () => {
  it('“brake by wire” is two things, however it is written, and neither is a motor booster', () => {
    for (const said of ['brake by wire', 'Brake-by-Wire', ' BRAKE  BY wire ', 'brake‐by‐wire', 'by wire'])
      expect([said, titles(said)]).toEqual([said, ['Decoupled unit', 'Dry by-wire']]);
  });

  it('each is found by its own word alone', () => {
    expect(titles('motor booster')).toEqual(['Motor booster']);
    expect(titles('electric booster')).toEqual(['Motor booster']);
    expect(titles('decoupled')).toEqual(['Decoupled unit']);
    expect(titles('dry by wire')).toEqual(['Dry by-wire']);
    expect(titles('vacuum')).toEqual([]);
    expect(titles('by')).toEqual([]);
  });

  it('names families by the titles that these have', () => {
    for (const { family, title } of couplingWords) if (family !== null) expect(findFamily(family)?.title).toBe(title);
  });
});
