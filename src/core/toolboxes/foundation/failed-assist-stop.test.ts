import fc from 'fast-check';
import { brakeForce, discTorque, lightRule, pressureFor, type VehicleBrakes } from './failed-assist-stop';

const minibus: VehicleBrakes = {
  mass: 1600,
  tyreRadius: 0.3,
  frontTorque: discTorque(0.38, 2290e-6, 0.115),
  rearTorque: discTorque(0.38, 900e-6, 0.11),
  proportioning: { split: 2500e3, slope: 0.4 },
};

describe('a stop with the assist gone', () => {
  it('3,709 kPa at the front is 6,445 N of brake force', () => {
    expect(minibus.frontTorque * 3709e3).toBeCloseTo(742, 0);
    expect(brakeForce(minibus, 3709e3)).toBeCloseTo(6445, -1);
  });

  it('2.44 m/s2 of 1,600 kg takes 2,126 kPa', () => {
    expect(pressureFor(minibus, lightRule.deceleration) / 1e3).toBeCloseTo(2126, 0);
  });

  it('the pressure that a deceleration takes gives just that deceleration, before and behind the split', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 7, noNaN: true }), fc.boolean(), (wanted, valve) => {
        const vehicle = valve ? minibus : { ...minibus, proportioning: null };
        expect(brakeForce(vehicle, pressureFor(vehicle, wanted)) / vehicle.mass).toBeCloseTo(wanted, 9);
      }),
    );
  });
});
