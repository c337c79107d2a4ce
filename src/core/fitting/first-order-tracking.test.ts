import { labelledSeed, randomSource } from '../physics/random';
import type { Samples } from '../traces/own-samples';
import { fitTracking, follow, type FollowingLaw } from './first-order-tracking';

const steps = [0, 4e6, 1e6, 8e6, 2e6, 10e6, 0];
const held = (rate: number): Samples => {
  const count = Math.round(steps.length * 2 * rate);
  const time = Float64Array.from({ length: count }, (_, i) => i / rate);
  return { time, value: time.map((t) => steps[Math.min(steps.length - 1, Math.floor(t / 2 + 1e-9))]) };
};
const stretches = steps.slice(1).map((_, k) => ({ from: 2 * (k + 1) - 0.1, to: 2 * (k + 1) + 1.2 }));

/** One Euler step a tenth of a millisecond, of code that knows nothing of the exact one. */
function slowly(command: Samples, law: FollowingLaw): Float64Array {
  const fine = 1e-4;
  let p = law.offset;
  let t = 0;
  let k = 0;
  return command.time.map((until) => {
    while (t < until - 1e-9) {
      while (k + 1 < command.time.length && command.time[k + 1] + law.deadTime <= t + 1e-9) k++;
      const aim = law.offset + law.gain * (t >= law.deadTime ? command.value[k] : 0);
      const slope = Math.max(-law.rateLimit, Math.min(law.rateLimit, (aim - p) / law.timeConstant));
      p += slope * fine;
      t += fine;
    }
    return p;
  });
}

const law: FollowingLaw = { deadTime: 0.02, timeConstant: 0.05, gain: 0.99, offset: 20e3, rateLimit: Infinity };

describe('an output that follows a command', () => {
  it.each([law, { ...law, rateLimit: 60e6 }])('is what small steps make of it too (%#)', (each) => {
    const command = held(100);
    const exact = follow(command, command.time, each.offset, each);
    const euler = slowly(command, each);
    for (let i = 0; i < exact.length; i++) expect(Math.abs(exact[i] - euler[i])).toBeLessThan(25e3);
  });

  it('does not care into how many pieces a wait is cut', () => {
    const command = held(200);
    const whole = follow(command, Float64Array.of(0, 3.03), 0, { ...law, rateLimit: 60e6 });
    const pieces = follow(
      command,
      Float64Array.from({ length: 304 }, (_, i) => i / 100),
      0,
      {
        ...law,
        rateLimit: 60e6,
      },
    );
    expect(whole[1]).toBeCloseTo(pieces[303], 3);
  });

  it('is told apart from noise at any rate: dead time and time constant within 5 %, U as often as it says', () => {
    let [within, of] = [0, 0];
    for (let seed = 0; seed < 100; seed++) {
      const random = randomSource(labelledSeed(seed, 'tracking'));
      const rate = [50, 100, 200, 500, 1000][seed % 5];
      const command = held(rate);
      const truth = {
        deadTime: 0.01 + 0.05 * random.uniform(),
        timeConstant: 0.03 + 0.1 * random.uniform(),
        gain: 0.95 + 0.1 * random.uniform(),
        offset: 40e3 * random.normal(),
        rateLimit: Infinity,
      };
      const response = {
        time: command.time,
        value: follow(command, command.time, truth.offset, truth).map((p) => p + 8e3 * random.normal()),
      };
      const fit = fitTracking(command, response, stretches, { gain: 1, offset: 0 });
      expect([seed, fit.termination]).toEqual([seed, 'converged']);
      expect(Math.abs(fit.deadTime / truth.deadTime - 1)).toBeLessThan(0.05);
      expect(Math.abs(fit.timeConstant / truth.timeConstant - 1)).toBeLessThan(0.05);
      if (Math.abs(fit.deadTime - truth.deadTime) <= 2 * fit.deadTimeStandard) within++;
      if (Math.abs(fit.timeConstant - truth.timeConstant) <= 2 * fit.timeConstantStandard) within++;
      of += 2;
    }
    expect(within / of).toBeGreaterThan(0.91);
    expect(within / of).toBeLessThan(0.985);
  });

  it('finds a rate limit where there is one, and none where there is none', () => {
    const command = held(200);
    const random = randomSource(7);
    const noisy = (each: FollowingLaw) => ({
      time: command.time,
      value: follow(command, command.time, 0, each).map((p) => p + 8e3 * random.normal()),
    });
    const limited = fitTracking(command, noisy({ ...law, rateLimit: 50e6 }), stretches, { gain: 1, offset: 0 });
    expect(limited.rateLimit / 50e6).toBeCloseTo(1, 1);
    expect(limited.timeConstant).toBeCloseTo(0.05, 2);
    expect(fitTracking(command, noisy(law), stretches, { gain: 1, offset: 0 }).rateLimit).toBe(Infinity);
  });

  it('says so where there is too little to fit', () => {
    const command = held(50);
    expect(fitTracking(command, command, [{ from: 0, to: 0.1 }], { gain: 1, offset: 0 }).termination).toBe(
      'too-few-points',
    );
  });
});
