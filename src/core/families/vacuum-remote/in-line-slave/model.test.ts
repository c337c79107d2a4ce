import fc from 'fast-check';
import { nozzleFlow } from '../../../physics/nozzle';
import { restControls } from '../../../physics/bench-controls';
import { defaultWorkshopLimits } from '../..';
import { inLineSlave } from '.';
import { soundCondition } from '../unit/faults';
import { prepareInLine } from './geometry';
import { vacuumRemotePlant } from './plant';
import { runOutInput } from '../unit/control-valve';
import { cutInPressure, expectedCurve, expectedRatio, outputAt } from './quasi-static';
import { inLineSchema } from '../unit/sheet';

const unit = inLineSlave.sheet.prepare(inLineSlave.sheet.example.spec);

const sheets = fc
  .record({
    powerPistonDiameterMm: fc.integer({ min: 150, max: 300 }),
    slaveBoreMm: fc.integer({ min: 19, max: 38 }),
    rodShare: fc.double({ min: 0.2, max: 0.5, noNaN: true }),
    cutInPressureKpa: fc.integer({ min: 200, max: 600 }),
    controlAreaRatio: fc.double({ min: 0.02, max: 0.06, noNaN: true }),
    returnSpringForceN: fc.integer({ min: 0, max: 400 }),
  })
  .map(({ rodShare, ...rest }) => ({
    ...rest,
    pushRodDiameterMm: rest.slaveBoreMm * rodShare,
    hysteresisKpa: 100,
    ratedVacuumKpa: 60,
    referenceInputKpa: 1700,
  }))
  .map((spec) => inLineSchema.safeParse(spec))
  .filter((parsed) => parsed.success)
  .map((parsed) => prepareInLine(parsed.data!));

describe('quasi-static model of a remote vacuum unit', () => {
  it('without vacuum fluid passes straight through', () => {
    fc.assert(
      fc.property(sheets, fc.double({ min: 0, max: 5e6, noNaN: true }), (each, input) => {
        expect(outputAt(each, input, 0)).toBe(input);
      }),
    );
  });

  it('the assisted line meets output = input at cut-in, and full activation is at p_1 + V/k', () => {
    fc.assert(
      fc.property(sheets, fc.double({ min: 30e3, max: 80e3, noNaN: true }), (each, vacuum) => {
        const cutIn = cutInPressure(each);
        const runOut = runOutInput(each, vacuum);
        fc.pre(cutIn < runOut * 0.9);
        expect(outputAt(each, cutIn, vacuum) / cutIn).toBeCloseTo(1, 9);
        const slope = (from: number, to: number) =>
          (outputAt(each, to, vacuum) - outputAt(each, from, vacuum)) / (to - from);
        expect(slope(cutIn * 1.001, runOut * 0.999)).toBeCloseTo(each.a + each.b, 6);
        // A weak unit may fall back to output = input beyond run-out; its line is looked at where it still boosts.
        fc.pre(outputAt(each, runOut * 1.2, vacuum) > runOut * 1.2);
        expect(slope(runOut * 1.001, runOut * 1.2)).toBeCloseTo(each.a, 6);
      }),
    );
  });

  it('output rises with input and with vacuum, and the way back lies above the pull', () => {
    fc.assert(
      fc.property(
        sheets,
        fc.double({ min: 0, max: 4e6, noNaN: true }),
        fc.double({ min: 0, max: 80e3, noNaN: true }),
        (each, input, vacuum) => {
          const here = outputAt(each, input, vacuum);
          expect(outputAt(each, input + 1e4, vacuum)).toBeGreaterThanOrEqual(here);
          expect(outputAt(each, input, vacuum + 1e3)).toBeGreaterThanOrEqual(here);
          expect(outputAt(each, input, vacuum, 'way-back')).toBeGreaterThanOrEqual(here);
        },
      ),
    );
  });

  it('a stated ratio is restated to another vacuum by the geometry', () => {
    const stated = prepareInLine({ ...inLineSlave.sheet.example.spec, boostRatio: 2.4 });
    expect(expectedRatio(stated, stated.ratedVacuum)).toBeCloseTo(2.4, 12);
    expect(expectedRatio(stated, 40e3) / expectedRatio(unit, 40e3)).toBeCloseTo(2.4 / expectedRatio(unit, 60e3), 9);
  });

  it('the drawn corners are points of the model', () => {
    const curve = expectedCurve(unit, 58e3, defaultWorkshopLimits);
    for (const point of curve.apply) expect(point.output).toBeCloseTo(outputAt(unit, point.input, 58e3), 3);
  });
});

describe('sheet of a remote vacuum unit', () => {
  const refused = (change: object) =>
    inLineSchema.safeParse({ ...inLineSlave.sheet.example.spec, ...change }).error?.issues[0].path[0];

  it.each([
    [{ hysteresisKpa: 350 }, 'hysteresisKpa'],
    [{ pushRodDiameterMm: 30 }, 'pushRodDiameterMm'],
    [{ powerPistonDiameterMm: -178 }, 'powerPistonDiameterMm'],
    [{ appliedVolumeCm3: 9000 }, 'appliedVolumeCm3'],
    [{ controlAreaRatio: 0.0001 }, 'controlAreaRatio'],
    [{ switchCloseMinKpa: 700 }, 'switchCloseMinKpa'],
  ])('refuses %j', (change, field) => {
    expect(refused(change)).toBe(field);
  });
});

describe('nozzle flow', () => {
  it('is choked below 0.528 and does not change further', () => {
    const choked = nozzleFlow(1e-6, 100e3, 50e3, 293);
    expect(nozzleFlow(1e-6, 100e3, 10e3, 293)).toBeCloseTo(choked, 15);
    // 1 mm2 from 100 kPa and 293 K: 0.6847/√(R·T)·p·A
    expect(choked).toBeCloseTo((0.68473 * 100e3 * 1e-6) / Math.sqrt(287.05 * 293), 8);
  });

  it('is odd, continuous and rises with the difference', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e3, max: 100e3, noNaN: true }), (down) => {
        expect(nozzleFlow(1e-6, 100e3, down, 293)).toBeCloseTo(-nozzleFlow(1e-6, down, 100e3, 293), 15);
        expect(nozzleFlow(1e-6, 100e3, down, 293)).toBeGreaterThanOrEqual(
          nozzleFlow(1e-6, 100e3, Math.min(100e3, down + 50), 293) - 1e-15,
        );
      }),
    );
  });
});

describe('dynamic model', () => {
  const around = {
    mounted: 'bench',
    ambient: 85_400,
    temperature: 284,
    supply: 60_000,
    benchVolume: 0.6e-3,
    startsFrom: 'evacuated',
  } as const;

  function settle(lever: number, seconds: number, controls = {}) {
    const plant = vacuumRemotePlant(unit, soundCondition(), around);
    const truth = new Float64Array(plant.channels.length);
    for (let t = 0; t < seconds; t += 0.001)
      plant.advance(0.001, { ...restControls, source: 1, ...controls, lever: Math.min(lever, lever * t) });
    plant.read(truth);
    return { input: truth[0], output: truth[1], supply: truth[2], control: truth[3], plant };
  }

  it.each([0.3e6, 0.8e6, 1.4e6, 2.2e6])('settles on the quasi-static curve at %d Pa', (lever) => {
    const { output, supply } = settle(lever, 4);
    expect(output / outputAt(unit, lever, supply)).toBeCloseTo(1, 2);
  });

  it('keeps its air when everything is shut: a sound unit loses nothing', () => {
    const { supply, control } = settle(0, 20, { isolated: 1 });
    expect(supply).toBeCloseTo(60_000, -1);
    expect(control).toBeCloseTo(60_000, -1);
  });

  it('goes on from a snapshot exactly as it would have', () => {
    const { plant } = settle(1.2e6, 1.5);
    const copy = vacuumRemotePlant(unit, soundCondition(), around);
    copy.restore(plant.snapshot());
    const a = new Float64Array(5);
    const b = new Float64Array(5);
    for (let i = 0; i < 500; i++) {
      plant.advance(0.001, { ...restControls, source: 1, lever: 1.6e6 });
      copy.advance(0.001, { ...restControls, source: 1, lever: 1.6e6 });
    }
    plant.read(a);
    copy.read(b);
    expect(b).toEqual(a);
  });
});
