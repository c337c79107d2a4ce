import fc from 'fast-check';
import { restControls } from '../../../physics/bench-controls';
import { findFamily, defaultWorkshopLimits } from '../..';
import { kindOf } from '../../../contract/family';
import { checkSpec } from '../../../formats/unit-sheet';
import { runOutInput } from '../unit/control-valve';
import { servoCylinderModel } from './model';
import { servoCylinderPlant } from './plant';
import { soundCondition } from '../unit/faults';
import { conditionWith } from '../../../contract/model';
import { expectedForce, expectedPull, forceAt, forceBand, fullForce, prepareServo, pullBegins } from './servo';
import { servoCylinderSchema } from './sheet';
import { inLineSlave } from '../in-line-slave';
import { servoCylinder } from '.';

const spec = servoCylinderSchema.parse(servoCylinder.sheet.example.spec);
const unit = prepareServo(spec);
const ambient = 85_400;

const sheets = fc
  .record({
    powerPistonDiameterMm: fc.integer({ min: 150, max: 300 }),
    cutInPressureKpa: fc.integer({ min: 200, max: 600 }),
    controlAreaRatio: fc.double({ min: 0.02, max: 0.06, noNaN: true }),
    returnSpringForceN: fc.integer({ min: 0, max: 400 }),
  })
  .map((drawn) => prepareServo(servoCylinderSchema.parse({ ...spec, ...drawn })));

const vacuums = fc.double({ min: 30e3, max: 80e3, noNaN: true });

describe('quasi-static model of a servo cylinder', () => {
  it('without vacuum it pulls nothing, whatever the input: nothing passes through', () => {
    fc.assert(
      fc.property(sheets, fc.double({ min: 0, max: 5e6, noNaN: true }), (each, input) => {
        expect(forceAt(each, input, 0)).toBe(0);
      }),
    );
  });

  it('begins to pull where the piston beats its spring, rises by eta·k·A, and ends flat at p_1 + V/k', () => {
    fc.assert(
      fc.property(sheets, vacuums, (each, vacuum) => {
        const begins = pullBegins(each);
        const runOut = runOutInput(each, vacuum);
        fc.pre(begins < runOut * 0.9);
        expect(forceAt(each, begins, vacuum)).toBeLessThan(1e-6 * fullForce(each, vacuum) + 1e-9);
        const rise = forceAt(each, runOut, vacuum) / (runOut - begins);
        expect(rise / each.forceGain).toBeCloseTo(1, 9);
        expect(forceAt(each, runOut * 1.4, vacuum)).toBeCloseTo(fullForce(each, vacuum), 6);
      }),
    );
  });

  it('the way back lies above the pull by H along the input', () => {
    fc.assert(
      fc.property(sheets, vacuums, fc.double({ min: 0, max: 3e6, noNaN: true }), (each, vacuum, input) => {
        expect(forceAt(each, input, vacuum, 'way-back')).toBeCloseTo(forceAt(each, input + each.hysteresis, vacuum), 6);
      }),
    );
  });

  it('a stated force is restated to another vacuum by the diameter', () => {
    const stated = prepareServo({ ...spec, servoForceN: 1500 });
    expect(expectedForce(stated, stated.ratedVacuum)).toBeCloseTo(1500, 9);
    expect(expectedForce(stated, 40e3) / expectedForce(unit, 40e3)).toBeCloseTo(1500 / expectedForce(unit, 60e3), 9);
  });

  it('the drawn corners are points of the model and the band holds them, never narrower than two hundredths', () => {
    const curve = expectedPull(unit, 58e3, 0.1);
    for (const { input, output } of curve.apply) {
      expect(output).toBeCloseTo(forceAt(unit, input, 58e3), 6);
      const [low, high] = forceBand(unit, { input, vacuum: 58e3 }, { tolerance: 0.1, upper: 'apply' });
      expect(low).toBeLessThan(output);
      expect(high - low).toBeGreaterThanOrEqual(0.04 * fullForce(unit, 58e3) * 0.999);
    }
  });

  it('the reservoir counts with what is evacuated, and not with the cylinder', () => {
    expect(unit.shellVolume).toBeCloseTo(4600e-6 + 9000e-6, 12);
    expect(unit.cylinder.shell).toBeCloseTo(4600e-6, 12);
    expect(prepareServo({ ...spec, shellVolumeCm3: undefined }).shellVolume).toBeNull();
  });
});

describe('dynamic model of a servo cylinder', () => {
  const plantFrom = (startsFrom: 'vented' | 'evacuated', faults: { id: string; severity: number }[] = []) =>
    servoCylinderPlant(unit, conditionWith(servoCylinderModel, unit, faults), {
      mounted: 'bench',
      ambient,
      temperature: 284,
      supply: 60e3,
      benchVolume: 0.6e-3,
      startsFrom,
    });

  const run = (plant: ReturnType<typeof plantFrom>, seconds: number, controls: Partial<typeof restControls>) => {
    for (let i = 0; i < seconds * 1000; i++) plant.advance(0.001, { ...restControls, ...controls });
    const out = new Float64Array(plant.channels.length);
    plant.read(out);
    return Object.fromEntries(plant.channels.map((channel, at) => [channel, out[at]]));
  };

  it('settles on the quasi-static pull, with the lever held', () => {
    for (const lever of [600e3, 1.1e6, 1.6e6, 2.4e6]) {
      const read = run(plantFrom('evacuated'), 6, { lever, source: 1 });
      expect(read.input_pressure).toBeCloseTo(lever, -2);
      const expected = forceAt(unit, lever, read.supply_vacuum);
      expect(Math.abs(read.rod_force - expected)).toBeLessThan(0.01 * fullForce(unit, 60e3));
    }
  });

  it('pulls nothing from a vented reservoir', () => {
    expect(run(plantFrom('vented'), 4, { lever: 2e6 }).rod_force).toBeLessThan(1);
  });

  it('a larger reservoir sags less for the same pull with the source shut', () => {
    const sag = (reservoirVolumeCm3: number) => {
      const plant = servoCylinderPlant(prepareServo({ ...spec, reservoirVolumeCm3 }), soundCondition(), {
        mounted: 'bench',
        ambient,
        temperature: 284,
        supply: 60e3,
        benchVolume: 0.6e-3,
        startsFrom: 'evacuated',
      });
      // Held at full pull, then let back: the air that was let in goes to the reservoir.
      run(plant, 4, { lever: 2.4e6, source: 1, isolated: 1 });
      return 60e3 - run(plant, 4, { lever: 0, source: 1, isolated: 1 }).supply_vacuum;
    };
    expect(sag(20_000)).toBeLessThan(0.6 * sag(5_000));
    expect(sag(20_000)).toBeGreaterThan(1000);
  });

  it('goes on from a snapshot as if nothing had happened, a rod that has pulled included', () => {
    const faults = [{ id: 'return-spring-weak', severity: 0.7 }];
    const first = plantFrom('evacuated', faults);
    run(first, 3, { lever: 1.4e6, source: 1 });
    const second = plantFrom('evacuated', faults);
    second.restore(first.snapshot());
    const after = { lever: 0, source: 1 };
    expect(run(second, 2, after)).toEqual(run(first, 2, after));
    expect(() => second.restore([1, 2])).toThrow('plant state');
  });
});

describe('sheet of a servo cylinder', () => {
  const family = findFamily('vacuum-remote')!;

  it('leads to its own steps, curve and unit; nothing said means a slave piston in the line', () => {
    expect(kindOf(family, spec).title).toBe(servoCylinder.title);
    expect(kindOf(family, {}).title).toBe(inLineSlave.title);
    const sheet = checkSpec(family, 'S11', spec, 's11.json');
    expect(sheet.ok && sheet.value.kind.curve.outputs[0]).toBe('rod_force');
    expect(sheet.ok && sheet.value.kind.plans[0].steps).not.toContain('gauge-agreement');
  });

  it.each([
    ['returnSpringForceN', 5000],
    ['hysteresisKpa', 420],
    ['appliedVolumeCm3', 4600],
    ['slaveBoreMm', 25.4],
    ['powerPistonDiameterMm', -3],
    ['servoForceN', 0],
    ['layout', 'sideways'],
  ])('refuses %s %s and names it', (field, value) => {
    const checked = checkSpec(family, 'S11', { ...spec, [field]: value }, 's11.json');
    expect(checked.ok ? [] : checked.problems.map((each) => ('field' in each ? each.field : each.code))).toContain(
      `spec.${field}`,
    );
  });

  it('a slave piston’s figures are refused where there is none, and the other way round', () => {
    const inLine = { ...(inLineSlave.sheet.example.spec as object), reservoirVolumeCm3: 9000 };
    expect(checkSpec(family, 'R7', inLine, 'r7.json').ok).toBe(false);
    expect(checkSpec(family, 'S11', { ...spec, boostRatio: 2 }, 's11.json').ok).toBe(false);
  });

  it('residual force is judged by the sheet, else by the workshop’s share of the full pull', () => {
    const release = servoCylinder.steps.find((step) => step.id === 'release');
    if (release?.kind !== 'measured') throw new Error('release is measured');
    const limitOf = (given: typeof unit) =>
      release
        .limits({ characteristics: [], events: [], notes: [] }, {
          unit: given,
          workshopLimits: defaultWorkshopLimits,
        } as Parameters<typeof release.limits>[1])
        .find((limit) => limit.characteristic === 'servo-residual')?.high;
    expect(limitOf(unit)).toBeCloseTo(0.02 * fullForce(unit, 60e3), 9);
    expect(limitOf(prepareServo({ ...spec, residualForceMaxN: 12 }))).toBe(12);
  });
});
