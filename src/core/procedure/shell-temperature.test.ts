import { shellTemperature } from './shell-temperature';

const airTemperature = 290;

describe('temperature of a shell', () => {
  it('is what was measured on it', () => {
    const found = shellTemperature({ shell: { kind: 'stated', temperature: 302 }, airTemperature });
    expect(found).toEqual({ value: 302, standard: 1, notes: [] });
  });

  it('is the air’s where it is known to have stood in it', () => {
    expect(shellTemperature({ shell: { kind: 'as-air', settled: true }, airTemperature }).value).toBe(290);
  });

  it('is the air’s within 5 K where nobody knows, and that is said', () => {
    const found = shellTemperature({ shell: { kind: 'as-air', settled: false }, airTemperature });
    expect(found.value).toBe(290);
    expect(found.standard * Math.sqrt(3)).toBeCloseTo(5, 12);
    expect(found.notes).toEqual([{ code: 'shell-taken-as-air', within: 5 }]);
  });
});
