import fc from 'fast-check';
import { applyCircuitFault, circuitFaults } from './circuit-faults';
import { chargingCircuit, soundCircuit, type ChargingCircuit, type CircuitCondition } from './charging-circuit';
import { chargeBand, chargeCurve } from './charge-curve';
import { expectedCharge, predictCharge } from './charge-prediction';
import { predictCycle } from './cycle-map';
import { accumulatorOf } from './store-unit';
import { fluidHeld } from '../../../physics/gas-law';
import {
  plainStore as store,
  shopAir,
  shopAmbient as ambient,
  storeContext,
} from '../../../../../tests/support/store-bench';

const surroundings = { ambient, environment: shopAir };

const dt = 0.02;
const idle = { live: false, bleed: 0, taken: 0, elsewhere: 0 };
const live = { ...idle, live: true };

function pass(circuit: ChargingCircuit, seconds: number, drive = live): void {
  for (let t = 0; t < seconds; t += dt) circuit.advance(dt, drive);
}

const faulty = (change: Partial<CircuitCondition>): CircuitCondition => ({ ...soundCircuit(), ...change });

describe('a store with its pump and switch', () => {
  it('starts at cut-in, stops at cut-out, and nowhere between', () => {
    const circuit = chargingCircuit(store, soundCircuit(), surroundings, false);
    let ran = 0;
    let highest = 0;
    let wentOn: number | null = null;
    let before = false;
    for (let t = 0; t < 1500; t += dt) {
      circuit.advance(dt, live);
      const now = circuit.running();
      const pressure = circuit.pressure();
      if (now && !before && t > 1) wentOn = pressure;
      if (now) ran += dt;
      highest = Math.max(highest, pressure);
      before = now;
    }
    expect(highest / store.cutOut).toBeCloseTo(1, 3);
    expect(wentOn).not.toBeNull();
    expect(wentOn! / store.cutIn).toBeCloseTo(1, 2);
    expect(ran).toBeLessThan(150);
  });

  it('cycles alike whatever the steps that it is followed in', () => {
    const rests = [0.1, 0.05, 0.02].map((step) => {
      const circuit = chargingCircuit(store, soundCircuit(), surroundings, true);
      const wentOn: number[] = [];
      for (let t = step, was = false; wentOn.length < 3; t += step) {
        circuit.advance(step, live);
        if (circuit.running() && !was) wentOn.push(t - circuit.sinceSwitched());
        was = circuit.running();
      }
      return wentOn[2] - wentOn[1];
    });
    expect(rests[0] / rests[2]).toBeCloseTo(1, 3);
    expect(rests[1] / rests[2]).toBeCloseTo(1, 3);
    // As the cycle is predicted, which goes in steps of its own.
    const { run, rest } = predictCycle(store, soundCircuit(), surroundings)!;
    expect((run + rest) / rests[2]).toBeCloseTo(1, 2);
  });

  it('a sound charge takes what the accumulator swallows, over the flow of its pump', () => {
    const slow = { ...store, timeConstant: 0, internalLeak: 0 };
    const { seconds } = predictCharge(slow, surroundings);
    const swallowed = fluidHeld(store.precharge + ambient, store.volume, store.cutOut + ambient, 1);
    const lines = accumulatorOf(store, ambient).lineCompliance * store.cutOut;
    // The pump slips by up to 4 % at no pressure.
    expect((seconds * store.pumpFlow) / (swallowed + lines)).toBeGreaterThan(0.97);
    expect((seconds * store.pumpFlow) / (swallowed + lines)).toBeLessThan(1.01);
  });

  it('fluid is conserved: what is in it is what was pumped less what was taken, with every leak shut', () => {
    const tight = { ...store, internalLeak: 0 };
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1e-6, noNaN: true }), { minLength: 5, maxLength: 80 }), (sips) => {
        const circuit = chargingCircuit(tight, soundCircuit(), surroundings, true);
        const start = circuit.state.fluid;
        let taken = 0;
        for (const sip of sips) {
          circuit.advance(dt, { ...idle, taken: sip });
          taken += sip;
        }
        expect(circuit.state.fluid).toBeCloseTo(start - taken, 12);
      }),
      { numRuns: 40 },
    );
  });

  it('stands still without a leak, and loses just its leak with one', () => {
    const tight = chargingCircuit({ ...store, internalLeak: 0 }, soundCircuit(), surroundings, true);
    const before = tight.pressure();
    pass(tight, 600, idle);
    expect(tight.pressure()).toBeCloseTo(before, 3);
    const leaking = chargingCircuit(store, soundCircuit(), surroundings, true);
    const held = leaking.state.fluid;
    pass(leaking, 600, idle);
    const lost = held - leaking.state.fluid;
    expect(lost / (store.internalLeak * 600)).toBeGreaterThan(0.9);
    expect(lost / (store.internalLeak * 600)).toBeLessThan(1);
  });

  it('the lamp comes on below its threshold and goes out only clearly above it', () => {
    const circuit = chargingCircuit(store, soundCircuit(), surroundings, true);
    expect(circuit.lamp()).toBe(false);
    while (!circuit.lamp()) circuit.advance(dt, { ...idle, bleed: 0.2 });
    expect(circuit.pressure() / store.lamp).toBeCloseTo(1, 2);
    while (circuit.lamp()) circuit.advance(dt, live);
    expect(circuit.pressure()).toBeGreaterThan(store.lamp * 1.02);
    expect(circuit.pressure()).toBeLessThan(store.lamp * 1.05);
  });

  it('can be bled to nothing, and never below', () => {
    const circuit = chargingCircuit(store, soundCircuit(), surroundings, true);
    pass(circuit, 120, { ...idle, bleed: 1 });
    expect(circuit.pressure()).toBeLessThan(60e3);
    pass(circuit, 60, { ...idle, bleed: 1, taken: 1e-6 });
    expect(circuit.pressure()).toBeGreaterThanOrEqual(0);
    expect(circuit.state.held).toBeGreaterThanOrEqual(0);
  });

  it('a stuck switch is stopped by the relief valve alone', () => {
    const circuit = chargingCircuit(store, faulty({ stuck: true }), surroundings, false);
    pass(circuit, 300);
    expect(circuit.running()).toBe(true);
    expect(circuit.pressure() / store.cutOut).toBeGreaterThan(1.1);
    expect(circuit.pressure() / store.cutOut).toBeLessThan(1.16);
  });

  it('a dead pump charges nothing; a failed gas side is full at once and empty at once', () => {
    const dead = chargingCircuit(store, faulty({ dead: true }), surroundings, false);
    pass(dead, 60);
    expect(dead.running()).toBe(false);
    expect(dead.pressure()).toBeLessThan(1e3);
    const failed = predictCharge(store, surroundings, 0);
    expect(failed.seconds).toBeLessThan(predictCharge(store, surroundings).seconds / 10);
  });

  it('goes on from a snapshot exactly as it would have', () => {
    const one = chargingCircuit(store, soundCircuit(), surroundings, false);
    pass(one, 11.3);
    const other = chargingCircuit(store, soundCircuit(), surroundings, true);
    other.restore(one.snapshot());
    for (let i = 0; i < 500; i++) {
      one.advance(dt, live);
      other.advance(dt, live);
    }
    expect(other.snapshot()).toEqual(one.snapshot());
  });
});

describe('faults of a charging circuit move its cycle the way they are known by', () => {
  const cycleWith = (id: (typeof circuitFaults)[number]['id'], severity: number) => {
    const condition = soundCircuit();
    applyCircuitFault(condition, id, severity, store);
    return predictCycle(store, condition, surroundings);
  };
  const sound = predictCycle(store, soundCircuit(), surroundings)!;

  it.each(circuitFaults.map((fault) => [fault.id] as const))('%s is the further off the worse it is', (id) => {
    const distances = [0, 0.4, 0.8].map((severity) => {
      const cycle = cycleWith(id, severity);
      return cycle === null ? Infinity : Math.hypot(Math.log(cycle.run / sound.run), Math.log(cycle.rest / sound.rest));
    });
    expect(distances[0]).toBeGreaterThan(0.02);
    expect(distances[1]).toBeGreaterThanOrEqual(distances[0]);
    expect(distances[2]).toBeGreaterThanOrEqual(distances[1]);
  });

  it('a weak pump only runs longer; a leak only rests shorter; low gas shortens both', () => {
    const weak = cycleWith('pump-weak', 0.5)!;
    expect(weak.run / sound.run).toBeGreaterThan(1.4);
    expect(weak.rest / sound.rest).toBeCloseTo(1, 1);
    const leak = cycleWith('internal-leak', 0.4)!;
    expect(leak.rest / sound.rest).toBeLessThan(0.4);
    expect(leak.run / sound.run).toBeLessThan(1.15);
    const low = cycleWith('precharge-low', 0.6)!;
    expect(low.run / sound.run).toBeLessThan(0.8);
    expect(low.rest / sound.rest).toBeLessThan(0.8);
  });
});

describe('a charge that is expected', () => {
  const here = { ...storeContext(), airTemperature: 284.15 };

  it('lies in its band from start to end, and bends at its knee', () => {
    const curve = chargeCurve(store, here);
    for (const { input, output } of curve.apply) {
      const [low, high] = chargeBand(store, input, here);
      expect(output).toBeGreaterThanOrEqual(low - 1);
      expect(output).toBeLessThanOrEqual(high + 1);
    }
    const [knee] = curve.keyPoints;
    // 8 MPa at 20 °C reads some 3 % less at 11 °C.
    expect(knee.output / store.precharge).toBeCloseTo(284.15 / 293.15, 2);
    const slopeAt = (time: number) => (chargeBand(store, time + 0.2, here)[1] - chargeBand(store, time, here)[1]) / 0.2;
    expect(slopeAt(knee.input * 0.4)).toBeGreaterThan(5 * slopeAt(knee.input + 3));
  });

  it('the colder the shop, the lower the knee and the longer the charge', () => {
    const warm = { ...here, airTemperature: 308.15 };
    expect(chargeCurve(store, warm).keyPoints[0].output).toBeGreaterThan(chargeCurve(store, here).keyPoints[0].output);
    expect(chargeCurve(store, warm).inputEnd).toBeLessThan(chargeCurve(store, here).inputEnd);
  });

  it('is drawn with its low below its high at every time', () => {
    const { points, channel } = expectedCharge(store, surroundings, 0.1, 'accumulator_pressure');
    expect(channel).toBe('accumulator_pressure');
    for (const point of points) expect(point.high).toBeGreaterThanOrEqual(point.low);
    expect(points.some((point) => point.high - point.low > 0.5e6)).toBe(true);
    expect(points.at(-1)!.low / store.cutOut).toBeGreaterThan(0.95);
  });
});
