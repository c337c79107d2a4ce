import fc from 'fast-check';
import { minibus, minibusPedal as master } from '../../../tests/support/minibus';
import { brakeForce, footForPressure, pressureFor, pressureOfFoot } from './brake-force';
import { lightRule } from './stop-rule';

describe('what brakes make of a pressure', () => {
  it('3,709 kPa at the front is 6,445 N of brake force', () => {
    expect(minibus.frontTorque * 3709e3).toBeCloseTo(742, 0);
    expect(brakeForce(minibus, 3709e3)).toBeCloseTo(6445, -1);
  });

  it('2.44 m/s2 of 1,600 kg takes 2,126 kPa', () => {
    expect(pressureFor(minibus, lightRule.decelerationLeast) / 1e3).toBeCloseTo(2126, 0);
  });

  it('the pressure that a deceleration takes gives just that deceleration, before and behind the split', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 7, noNaN: true }), fc.boolean(), (wanted, valve) => {
        const vehicle = valve ? minibus : { ...minibus, proportioning: null };
        expect(brakeForce(vehicle, pressureFor(vehicle, wanted)) / vehicle.mass).toBeCloseTo(wanted, 9);
      }),
    );
  });

  it('the foot that a pressure takes makes just that pressure, and a light one makes none', () => {
    expect(pressureOfFoot(master, 500) / 1e3).toBeCloseTo(3709, 0);
    expect(footForPressure(master, 2126e3)).toBeCloseTo(294, 0);
    expect(pressureOfFoot(master, 15)).toBe(0);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 20e6, noNaN: true }), (pressure) => {
        expect(pressureOfFoot(master, footForPressure(master, pressure))).toBeCloseTo(pressure, 3);
      }),
    );
  });
});
