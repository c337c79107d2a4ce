import { barEnd } from './bar-end';

const lever = { channel: 'input_pressure', maximum: 3e6 };

describe('a bar of the bench', () => {
  it('has room for its band', () => {
    expect(barEnd('output_pressure', { output_pressure: [5e6, 7e6] }, lever)).toBeGreaterThan(7e6);
    expect(barEnd('supply_vacuum', {}, lever)).toBe(80_000);
  });
});
