import { fromStored, toStored } from './stored-json';

describe('what is stored as text', () => {
  it('comes back as it was, with the numbers that JSON does not have', () => {
    const value = {
      strokes: [{ output: 2.5e6, vacuum: Number.NaN }],
      limits: [Infinity, -Infinity, 0, null],
      word: 'NaN',
    };
    expect(fromStored(toStored(value))).toEqual(value);
  });
});
