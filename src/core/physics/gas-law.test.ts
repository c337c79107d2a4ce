import { fluidHeld, restatePrecharge, usableVolume } from './gas-law';

describe('gas in a store', () => {
  it('squeezed to half its volume it stands at twice the pressure at an even temperature, at 2^1.4 times without heat', () => {
    expect(fluidHeld(8e6, 250e-6, 16e6, 1)).toBeCloseTo(125e-6, 12);
    expect(fluidHeld(8e6, 250e-6, 8e6 * 2 ** 1.4, 1.4)).toBeCloseTo(125e-6, 12);
    expect(fluidHeld(8e6, 250e-6, 7e6, 1.4)).toBe(0);
  });

  it('gives between two pressures what it holds at the one more than at the other', () => {
    const given = usableVolume(8e6, 250e-6, { high: 18e6, low: 14e6 }, 1.4);
    expect(given).toBeCloseTo(250e-6 * ((8 / 14) ** (1 / 1.4) - (8 / 18) ** (1 / 1.4)), 12);
  });

  it('a precharge found warm is less when it is cold, by its absolute pressure', () => {
    expect(restatePrecharge(8e6, 313.15, 293.15, 1e5)).toBeCloseTo((8.1e6 * 293.15) / 313.15 - 1e5, 3);
  });
});
