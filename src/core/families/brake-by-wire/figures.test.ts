import { pressureOfFoot } from '../../calculators/brake-force';
import { bankEnergy, sensorRatio, simulatorForce, simulatorTravel, preparePlunger } from './geometry';
import { plungerSchema } from './sheet';
import { transferTable } from './transfer-step';
import { unit, spec } from '../../../../tests/support/foreign-by-wire';

describe('the figures of a decoupled unit', () => {
  it('a sensor gives 0.50 V at nothing, 0.66 V at 1 MPa and 2.10 V at 10 MPa; on 4.92 V it gives 2.066 V', () => {
    const at = (pressure: number, supply = 5) => supply * sensorRatio(unit.sensor, pressure);
    expect([at(0), at(1e6), at(10e6)].map((volts) => Number(volts.toFixed(4)))).toEqual([0.5, 0.66, 2.1]);
    expect(at(10e6, 4.92)).toBeCloseTo(2.0664, 4);
    const row = transferTable(unit, 5).find(([pressure]) => pressure === 10e6)!;
    expect(row[1]).toBeCloseTo(2.1, 9);
    expect(row[2]).toBeLessThan(2.1);
    expect(row[3]).toBeGreaterThan(2.1);
  });

  it('the foot alone makes (500 N·4·0.9·0.95 − 60 N)/444.9 mm² = 3,709 kPa', () => {
    expect(pressureOfFoot(unit, 500) / 1e3).toBeCloseTo(3709, 0);
    expect(pressureOfFoot(unit, 5)).toBe(0);
  });

  it('a bank of 60 F between 15 V and 9 V holds 4,320 J: seven stops of 600 J', () => {
    expect(bankEnergy(60, 15, 9)).toBe(4320);
    expect(bankEnergy(60, 8, 9)).toBe(0);
  });

  it('a vehicle under a rule of its own is never judged by that of light ones', () => {
    const vehicle = {
      massKg: 1600,
      tyreRadiusMm: 300,
      frictionCoefficientFront: 0.38,
      pistonAreaFrontMm2: 2290,
      effectiveRadiusFrontMm: 115,
      frictionCoefficientRear: 0.38,
      pistonAreaRearMm2: 900,
      effectiveRadiusRearMm: 110,
    };
    const { fallbackPressureMinKpa, ...rest } = spec;
    expect(fallbackPressureMinKpa).toBe(2200);
    const least = (more: object) => preparePlunger(plungerSchema.parse({ ...rest, ...vehicle, ...more })).fallbackLeast;
    expect(least({ category: 'light' })!.value / 1e3).toBeCloseTo(2126, 0);
    expect(least({ category: 'own', ownDecelerationMinMPerS2: 1.22 })!.value / 1e3).toBeCloseTo(1063, 0);
    const refused = (more: object) => plungerSchema.safeParse({ ...rest, ...vehicle, ...more }).error?.issues[0].path;
    expect(refused({})).toEqual(['category']);
    expect(refused({ category: 'own' })).toEqual(['ownDecelerationMinMPerS2']);
  });

  it('a simulator is soft to its change and stiff beyond, and its travel is the inverse of its force', () => {
    expect(simulatorForce(unit.simulator, 0.036)).toBeCloseTo(20 + 72, 9);
    expect(simulatorForce(unit.simulator, 0.046)).toBeCloseTo(20 + 72 + 80, 9);
    for (const travel of [0, 0.01, 0.036, 0.05])
      expect(simulatorTravel(unit.simulator, simulatorForce(unit.simulator, travel))).toBeCloseTo(travel, 12);
  });
});
