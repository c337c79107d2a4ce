import fc from 'fast-check';
import { minibus, minibusPedal as master } from '../../../tests/support/minibus';
import { boreWindow } from './bore-window';
import { failedAssistStop, roadLimit } from './failed-assist-stop';
import { distanceAllowed, lightRule, ruleOf } from './stop-rule';

const own = {
  speedKmh: 60,
  decelerationMPerS2: 2.2,
  distanceA: 0.15,
  distanceB: 0.0385,
  pedalForceN: 700,
  source: 'Code of the Vennholm quarries, 4.2',
};

describe('a stop with the assist gone', () => {
  it('1,600 kg on a bore of 23.8 mm: 4.03 m/s² in 105.8 m at 500 N, where 168 m and 2.44 m/s² are asked; 294 N would do', () => {
    const stop = failedAssistStop(minibus, master, lightRule);
    expect(stop.frontPressure / 1e3).toBeCloseTo(3709, 0);
    expect(stop.rearPressure / 1e3).toBeCloseTo(2984, 0);
    expect(stop.brakeForce).toBeCloseTo(6445, -1);
    expect(stop.deceleration).toBeCloseTo(4.03, 2);
    expect(stop.stoppingDistance).toBeCloseTo(105.8, 1);
    expect(stop.distanceAllowed).toBeCloseTo(168, 0);
    expect(stop.pedalForceNeeded).toBeCloseTo(294, 0);
    expect(stop.pressureNeeded / 1e3).toBeCloseTo(2126, 0);
    expect(stop).toMatchObject({ holds: true, limitedBy: 'brakes' });
  });

  it('the road’s limit is named where the brakes could do more', () => {
    const light = { ...minibus, mass: 500 };
    expect(failedAssistStop(light, master, lightRule)).toMatchObject({ deceleration: roadLimit, limitedBy: 'road' });
  });

  it('a pedal that makes no pressure never stops, and does not hold', () => {
    const stuck = failedAssistStop(minibus, { ...master, masterSpring: 5000 }, lightRule);
    expect(stuck).toMatchObject({ brakeForce: 0, deceleration: 0, stoppingDistance: null, holds: false });
  });

  it('the pedal force needed gives just the rule’s deceleration', () => {
    fc.assert(
      fc.property(fc.double({ min: 400, max: 4000, noNaN: true }), (mass) => {
        const vehicle = { ...minibus, mass };
        const { pedalForceNeeded } = failedAssistStop(vehicle, master, lightRule);
        const again = failedAssistStop(vehicle, master, { ...lightRule, pedalForceMost: pedalForceNeeded });
        expect(again.deceleration).toBeCloseTo(lightRule.decelerationLeast, 6);
      }),
    );
  });
});

describe('the rule of a vehicle', () => {
  it('of its own is its own, in every figure', () => {
    const found = ruleOf('own', own);
    if (found.kind !== 'rule') throw new Error('it is whole');
    expect(found.rule).toMatchObject({
      category: 'own',
      decelerationLeast: 2.2,
      pedalForceMost: 700,
      source: own.source,
    });
    expect(found.rule.speed).toBeCloseTo(16.667, 3);
    // 0.15·60 + 0.0385·60²
    expect(distanceAllowed(found.rule)).toBeCloseTo(147.6, 1);
    expect(distanceAllowed(lightRule)).toBeCloseTo(0.1 * 100 + 0.0158 * 100 ** 2, 9);
  });

  it('of its own never falls back to that of light vehicles, whatever is left out of it', () => {
    const fields = Object.keys(own) as (keyof typeof own)[];
    fc.assert(
      fc.property(fc.subarray(fields, { minLength: 1 }), (left) => {
        const rest = Object.fromEntries(
          Object.entries(own).filter(([field]) => !left.includes(field as keyof typeof own)),
        );
        expect(ruleOf('own', rest)).toEqual({ kind: 'incomplete', missing: left });
      }),
    );
    expect(ruleOf('own', { ...own, source: '' })).toEqual({ kind: 'incomplete', missing: ['source'] });
  });
});

describe('bores that a vehicle can have', () => {
  const displacement = { volume: 12e-6, pedalTravelMost: 0.15 };

  it('lie between a pedal that goes too far and one that is too hard', () => {
    const { window, endedBy, points } = boreWindow(minibus, master, lightRule, displacement);
    expect(endedBy).toEqual({ below: 'travel', above: 'force' });
    // 12 cm3·4/150 mm = 320 mm2; 1,650 N/2,126 kPa = 776 mm2.
    expect(window!.from * 1e3).toBeCloseTo(20.19, 2);
    expect(window!.to * 1e3).toBeCloseTo(31.43, 2);
    for (const { bore, pedalForce, pedalTravel } of points) {
      const holds = pedalForce <= 500 && pedalTravel! <= 0.15;
      expect(holds).toBe(bore >= window!.from && bore <= window!.to);
    }
    const rising = points.every((point, at) => at === 0 || point.pedalForce > points[at - 1].pedalForce);
    const falling = points.every((point, at) => at === 0 || point.pedalTravel! < points[at - 1].pedalTravel!);
    expect([rising, falling]).toEqual([true, true]);
  });

  it('are every small one where the pedal moves no fluid, and none where nothing fits', () => {
    const decoupled = boreWindow(minibus, master, lightRule, null);
    expect(decoupled.window!.from).toBeCloseTo(15e-3, 9);
    expect(decoupled.endedBy).toEqual({ below: 'range', above: 'force' });
    expect(decoupled.points.every(({ pedalTravel }) => pedalTravel === null)).toBe(true);
    expect(boreWindow({ ...minibus, mass: 6000 }, master, lightRule, displacement).window).toBeNull();
  });
});
