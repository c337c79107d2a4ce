import fc from 'fast-check';
import { followForce } from '../../physics/follow-force';
import { kneeForce, masterPressure, pressureSlope, servoForce, type ServoUnit } from './servo-law';

const unit: ServoUnit = {
  servoRatio: 5,
  cutInForce: 60,
  jumpInForce: 250,
  hysteresis: 35,
  masterArea: 4.5e-4,
  masterEfficiency: 0.92,
  masterSpring: 80,
};

const units = fc.record({
  servoRatio: fc.double({ min: 1.5, max: 9, noNaN: true }),
  cutInForce: fc.double({ min: 10, max: 150, noNaN: true }),
  jumpInForce: fc.double({ min: 150, max: 600, noNaN: true }),
  hysteresis: fc.double({ min: 0, max: 80, noNaN: true }),
  masterArea: fc.constant(4.5e-4),
  masterEfficiency: fc.double({ min: 0.7, max: 1, noNaN: true }),
  masterSpring: fc.double({ min: 0, max: 200, noNaN: true }),
});
const force = fc.double({ min: 0, max: 4000, noNaN: true });
const assist = fc.double({ min: 700, max: 6000, noNaN: true });

describe('servo of a pedal-operated unit', () => {
  it('gives nothing before cut-in, jumps in there, then follows its ratio to the knee, then one for one', () => {
    const help = 3000;
    expect(servoForce(unit, 59.9, help)).toBe(0);
    expect(servoForce(unit, 60, help)).toBe(250);
    expect(servoForce(unit, 160, help)).toBe(250 + 5 * 100);
    const knee = kneeForce(unit, help) ?? Number.NaN;
    // F_k = (3000 − 250 + 5·60)/4
    expect(knee).toBeCloseTo(762.5, 9);
    expect(servoForce(unit, knee, help)).toBeCloseTo(knee + help, 6);
    expect(servoForce(unit, knee + 100, help) - servoForce(unit, knee, help)).toBeCloseTo(100, 6);
  });

  it('never gives less for a harder foot, nor for more assist, and never more than foot and assist together', () => {
    fc.assert(
      fc.property(units, force, force, assist, assist, (any, one, other, a, b) => {
        const [soft, hard] = [Math.min(one, other), Math.max(one, other)];
        const [weak, strong] = [Math.min(a, b), Math.max(a, b)];
        expect(servoForce(any, hard, strong)).toBeGreaterThanOrEqual(servoForce(any, soft, strong));
        expect(servoForce(any, hard, strong)).toBeGreaterThanOrEqual(servoForce(any, hard, weak));
        expect(servoForce(any, hard, strong)).toBeLessThanOrEqual(hard + strong);
      }),
    );
  });

  it('on the way back it gives at least what it gave on the way up', () => {
    fc.assert(
      fc.property(units, force, assist, (any, rod, help) => {
        expect(servoForce(any, rod, help, 'way-back')).toBeGreaterThanOrEqual(servoForce(any, rod, help));
        expect(servoForce(any, rod, help, 'way-back')).toBe(servoForce(any, rod + any.hysteresis, help));
      }),
    );
  });

  it('bends only at its knee: below it the ratio, above it one for one', () => {
    fc.assert(
      fc.property(units, assist, (any, help) => {
        const knee = kneeForce(any, help);
        fc.pre(knee !== null);
        const slope = (from: number, to: number) =>
          (servoForce(any, to, help) - servoForce(any, from, help)) / (to - from);
        const middle = (any.cutInForce + knee) / 2;
        expect(slope(middle, knee - 1e-6)).toBeCloseTo(any.servoRatio, 2);
        expect(slope(knee + 1e-6, knee + 500)).toBeCloseTo(1, 6);
      }),
    );
  });

  it('without assist the foot alone is left, and a spring that pushes back takes its part', () => {
    expect(servoForce(unit, 40, 0)).toBe(40);
    expect(servoForce(unit, 40, -15)).toBe(25);
    expect(servoForce(unit, 10, -15)).toBe(0);
    // The valve is not reached for: hysteresis alone makes the way back differ.
    expect(servoForce(unit, 40, 0, 'way-back')).toBe(75);
  });

  it('has no knee where assist ends before cut-in', () => {
    expect(kneeForce(unit, 100)).toBeNull();
    expect(kneeForce(unit, unit.jumpInForce - unit.cutInForce)).toBeNull();
    expect(kneeForce(unit, unit.jumpInForce)).toBeGreaterThan(unit.cutInForce);
  });

  it('the master cylinder takes its spring and its friction, and never sucks', () => {
    expect(masterPressure(unit, 0)).toBe(0);
    expect(masterPressure(unit, 80 / 0.92)).toBeCloseTo(0, 6);
    const [low, high] = [masterPressure(unit, 1000), masterPressure(unit, 1100)];
    expect((high - low) / 100).toBeCloseTo(pressureSlope(unit, 1), 6);
    expect(high).toBeCloseTo((1100 * 0.92 - 80) / 4.5e-4, 3);
  });
});

describe('a rod that follows the hand', () => {
  const settle = (rod: ReturnType<typeof followForce>, hand: number) => {
    for (let i = 0; i < 2000; i++) rod.advance(1e-3, hand);
  };

  it('comes to the hand with its lag: 63 % after one, 99.3 % after five', () => {
    const rod = followForce(0.1, 0);
    for (let i = 0; i < 1000; i++) rod.advance(1e-4, 500);
    expect(rod.force() / 500).toBeCloseTo(1 - Math.exp(-1), 3);
    for (let i = 0; i < 4000; i++) rod.advance(1e-4, 500);
    expect(rod.force() / 500).toBeCloseTo(1 - Math.exp(-5), 3);
  });

  it('what the valve feels stays until the play is used up, then goes along with it', () => {
    const rod = followForce(0.02, 35);
    settle(rod, 400);
    expect(rod.felt()).toBeCloseTo(400, 3);
    settle(rod, 370);
    expect(rod.force()).toBeCloseTo(370, 3);
    expect(rod.felt()).toBeCloseTo(400, 3);
    settle(rod, 300);
    expect(rod.felt()).toBeCloseTo(335, 3);
    settle(rod, 320);
    expect(rod.felt()).toBeCloseTo(335, 3);
    settle(rod, 360);
    expect(rod.felt()).toBeCloseTo(360, 3);
  });

  it('what is felt lies between the rod and the rod with its play, whatever the hand does', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 900, noNaN: true }), { maxLength: 60 }), (hands) => {
        const rod = followForce(0.03, 35);
        for (const hand of hands) {
          rod.advance(0.01, hand);
          expect(rod.felt()).toBeGreaterThanOrEqual(rod.force() - 1e-9);
          expect(rod.felt()).toBeLessThanOrEqual(rod.force() + 35 + 1e-9);
        }
      }),
    );
  });

  it('goes on from a snapshot exactly as it would have', () => {
    const [one, other] = [followForce(0.05, 20), followForce(0.05, 20)];
    settle(one, 250);
    one.advance(0.01, 100);
    other.restore(one.snapshot());
    for (const hand of [0, 50, 300, 20]) {
      one.advance(0.02, hand);
      other.advance(0.02, hand);
      expect([other.force(), other.felt()]).toEqual([one.force(), one.felt()]);
    }
  });
});
