import { restControls } from '../../../physics/bench-controls';
import fc from 'fast-check';
import { airGasConstant } from '../../../physics/nozzle';
import { soundInline } from './faults';
import { prepareVacuumInline } from './geometry';
import { vacuumInline } from '..';
import { assistForce, masterPressure, outputAt, outputForce, runOutForce } from './quasi-static';
import { assistedCount, predictReserve } from './reserve-prediction';
import { vacuumInlineSchema, type VacuumInlineSpec } from './sheet';
import { unitModel } from './unit-model';

const [kind] = vacuumInline.kinds;
const spec = kind.sheet.example.spec as VacuumInlineSpec;
const unit = prepareVacuumInline(spec);
const ambient = 85_400;

describe('quasi-static model of a pedal-operated unit', () => {
  it('takes the hub off each diaphragm', () => {
    const single = prepareVacuumInline(vacuumInlineSchema.parse({ ...spec, diaphragms: 1 }));
    const tandem = prepareVacuumInline(
      vacuumInlineSchema.parse({ ...spec, diaphragms: 2, frontVolumeCm3: 7000, jumpInForceN: 420 }),
    );
    expect(tandem.area).toBeCloseTo(2 * single.area, 12);
    expect(single.area).toBeCloseTo((Math.PI / 4) * (0.236 ** 2 - 0.046 ** 2), 12);
  });

  it('jumps at cut-in, follows the servo ratio to the knee, and rises one for one beyond it', () => {
    const vacuum = 60e3;
    const knee = runOutForce(unit, vacuum) ?? Number.NaN;
    expect(outputForce(unit, unit.cutInForce - 1, vacuum)).toBe(0);
    expect(outputForce(unit, unit.cutInForce, vacuum)).toBeCloseTo(unit.jumpInForce, 9);
    expect(outputForce(unit, unit.cutInForce + 50, vacuum)).toBeCloseTo(unit.jumpInForce + 50 * unit.servoRatio, 9);
    expect(outputForce(unit, knee, vacuum)).toBeCloseTo(knee + assistForce(unit, vacuum), 6);
    expect(outputForce(unit, knee + 300, vacuum) - outputForce(unit, knee + 100, vacuum)).toBeCloseTo(200, 6);
  });

  it('without vacuum it is the rod less the spring', () => {
    expect(outputForce(unit, 500, 0)).toBeCloseTo(500 - unit.springForce, 9);
    expect(outputForce(unit, 50, 0)).toBe(0);
    expect(outputAt(unit, 500, 0)).toBeCloseTo(masterPressure(unit, 500 - unit.springForce), 6);
  });

  it('never falls with the rod force, and never falls with the vacuum once cut in', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 2000, noNaN: true }),
        fc.double({ min: 0, max: 300, noNaN: true }),
        fc.double({ min: 0, max: 70e3, noNaN: true }),
        (force, more, vacuum) => {
          expect(outputForce(unit, force + more, vacuum)).toBeGreaterThanOrEqual(outputForce(unit, force, vacuum));
          const applied = force + unit.cutInForce;
          expect(outputForce(unit, applied, vacuum + 5e3)).toBeGreaterThanOrEqual(
            outputForce(unit, applied, vacuum) - 1e-9,
          );
        },
      ),
    );
  });

  it('the way back lies to the left by the hysteresis', () => {
    expect(outputForce(unit, 300 - unit.hysteresis, 60e3, 'way-back')).toBeCloseTo(outputForce(unit, 300, 60e3), 9);
  });

  it.each([
    ['hysteresisN', { hysteresisN: 110 }],
    ['hubDiameterMm', { hubDiameterMm: 240 }],
    ['frontVolumeCm3', { frontVolumeCm3: 900 }],
    ['appliedTravelMm', { appliedTravelMm: 50 }],
    ['rodGapMinMm', { rodGapMinMm: 1, rodGapMaxMm: 0.5 }],
    ['jumpInForceN', { jumpInForceN: 4000 }],
  ])('refuses an impossible %s by name', (field, change) => {
    const parsed = vacuumInlineSchema.safeParse({ ...spec, ...change });
    expect(parsed.success ? [] : parsed.error.issues.map((issue) => issue.path[0])).toContain(field);
  });
});

describe('reserve', () => {
  const conditions = { ambient, vacuum: 60e3, benchVolume: 0, rodForce: unit.reserveForce * unit.leverage };

  it('gives fewer useful strokes high up, and none without vacuum', () => {
    const sea = predictReserve(unit, { ...conditions, ambient: 101_325, vacuum: 66e3 }, 8);
    const high = predictReserve(unit, { ...conditions, vacuum: 50e3 }, 8);
    const none = predictReserve(unit, { ...conditions, vacuum: 0 }, 8);
    expect(assistedCount(sea)).toBeGreaterThanOrEqual(2);
    expect(high[0].output).toBeLessThan(sea[0].output);
    expect(assistedCount(none)).toBe(0);
  });

  it('never gains vacuum from stroke to stroke, and ends unassisted', () => {
    const strokes = predictReserve(unit, conditions, 12);
    strokes.slice(1).forEach((stroke, at) => {
      expect(stroke.vacuum).toBeLessThanOrEqual(strokes[at].vacuum + 1e-6);
      expect(stroke.output).toBeLessThanOrEqual(strokes[at].output + 1e-6);
    });
    expect(strokes[11].output).toBeCloseTo(outputAt(unit, conditions.rodForce, 0), -3);
  });

  it('keeps the mass of both chambers: what a fully applied stroke lets in is the rear chamber full of air', () => {
    const [first, second] = predictReserve(unit, conditions, 2);
    const rest = ambient - first.vacuum;
    const swept = unit.area * first.travel;
    const after = rest * unit.frontVolume + first.rear * (unit.rearVolume + swept);
    expect(ambient - second.vacuum).toBeCloseTo(after / (unit.frontVolume + unit.rearVolume), 6);
  });
});

describe('dynamic model', () => {
  const temperature = 284;
  const around = (rodForce: number, hose = ambient) => ({ ambient, temperature, hose, rodForce });

  function settle(rodForce: number, seconds: number, model = unitModel(unit, soundInline(), start)) {
    for (let i = 0; i < seconds * 1000; i++) model.advance(0.001, around(Math.min(rodForce, (rodForce * i) / 2000)));
    return model;
  }
  const start = { front: 25_400, rear: 25_400, temperature: 293.15, benchVolume: 0 };

  it('a slow push settles on the quasi-static curve at the vacuum that is left', () => {
    for (const force of [150, 300, 450, 800]) {
      const { state } = settle(force, 6);
      const left = ambient - state.front.pressure;
      expect(state.output / outputAt(unit, force, left)).toBeCloseTo(1, 2);
    }
  });

  it('moving the piston keeps the air that is in it: only what the inlet lets in is added', () => {
    const model = unitModel(unit, soundInline(), start);
    const mass = () => {
      const { front, rear, travel } = model.state;
      const volume = unit.area * travel;
      const inside = (chamber: typeof front, within: number) =>
        (chamber.pressure * within) / (airGasConstant * chamber.temperature);
      return inside(front, unit.frontVolume - volume) + inside(rear, unit.rearVolume + volume);
    };
    const before = mass();
    // Below cut-in nothing is let in, whatever the rod does.
    for (let i = 0; i < 2000; i++) model.advance(0.001, around((unit.cutInForce - 5) * Math.sin((i / 2000) * Math.PI)));
    expect(mass() / before).toBeCloseTo(1, 6);
    for (let i = 0; i < 2000; i++) model.advance(0.001, around(400));
    expect(mass()).toBeGreaterThan(before * 1.2);
  });

  it('the check valve lets air out and none back in', () => {
    const model = unitModel(unit, soundInline(), { ...start, front: 60e3, rear: 60e3 });
    let left = 0;
    for (let i = 0; i < 3000; i++) left += model.advance(0.001, around(0, 25_000));
    expect(left).toBeGreaterThan(0);
    expect(model.state.front.pressure).toBeLessThan(26_000);
    let back = 0;
    for (let i = 0; i < 3000; i++) back += model.advance(0.001, around(0, ambient));
    expect(back).toBe(0);
  });

  it('a snapshot goes on as if nothing had happened', () => {
    const plant = kind.model.plant!(unit, kind.model.sound(unit), {
      mounted: 'bench',
      ambient,
      temperature,
      supply: 60e3,
      benchVolume: 6e-4,
      startsFrom: 'evacuated',
    });
    const controls = { ...restControls, lever: 400, source: 1 };
    const read = () => {
      const out = new Float64Array(plant.channels.length);
      plant.read(out);
      return [...out];
    };
    for (let i = 0; i < 500; i++) plant.advance(0.001, controls);
    const kept = plant.snapshot();
    for (let i = 0; i < 500; i++) plant.advance(0.001, controls);
    const straight = read();
    plant.restore(kept);
    for (let i = 0; i < 500; i++) plant.advance(0.001, controls);
    expect(read()).toEqual(straight);
  });
});
