import { standInUnit, valueOf } from '../../../../tests/support/stand-in-unit';
import { makeTrace } from '../../traces/trace';
import { scanTool, vacuumShown } from './scan-tool';
import { pumpDownVacuum, settledVacuum, thresholds, type VacuumSupplyUnit } from './geometry';
import { vacuumSupplySchema } from './sheet';

const source = standInUnit<VacuumSupplyUnit>('vacuum-supply', 'vehicle');
const { unit, context } = source;

describe('vacuum source', () => {
  it('draws down as p_u + (p_0 − p_u)·exp(−S·t/Vol), and that is what the analysis finds again', () => {
    const tau = unit.volume / unit.speed;
    expect(pumpDownVacuum(unit, tau, 70e3)).toBeCloseTo(70e3 * (1 - Math.exp(-1)), 6);
    const analysis = source.run('pump-down');
    expect(Number(valueOf(analysis, 'pump-speed')) / unit.speed).toBeCloseTo(1, 1);
    const ultimate = context.ambient.pressure - settledVacuum(unit, context.ambient);
    expect(Math.abs(Number(valueOf(analysis, 'ultimate-pressure')) - ultimate)).toBeLessThan(700);
    const expectedDraw = -Math.log(0.05) * ((unit.volume + 6e-4) / unit.speed);
    expect(Number(valueOf(analysis, 'draw-time')) / expectedDraw).toBeCloseTo(1, 1);
  });

  it('starts and stops where the sheet says, and shifts with height only by an absolute sensor', () => {
    const analysis = source.run('pump-switch');
    expect(Math.abs(Number(valueOf(analysis, 'pump-cut-in')) - 54e3)).toBeLessThan(900);
    expect(Math.abs(Number(valueOf(analysis, 'pump-cut-out')) - 68e3)).toBeLessThan(900);
    const absolute = standInUnit<VacuumSupplyUnit>('vacuum-supply', 'vehicle', {
      spec: { sensorReference: 'absolute' },
    });
    const here = thresholds(absolute.unit, absolute.context.ambient);
    expect(here?.cutIn).toBeCloseTo(54e3 - (101_325 - absolute.context.ambient.pressure), 3);
    expect(thresholds(unit, context.ambient)?.cutIn).toBe(54e3);
  });

  it.each([
    ['pump-worn', 'pump-down', ['pump-speed', 'ultimate-pressure']],
    ['hose-restricted', 'pump-down', ['pump-speed']],
    ['supply-leak', 'rest-leak', ['leak-flow']],
    ['reservoir-check-leak', 'check-valve', ['reverse-leak']],
    ['switch-cut-in-low', 'pump-switch', ['pump-cut-in']],
    ['switch-cut-out-high', 'pump-switch', ['pump-cut-out', 'run-time']],
  ])('%s fails %s on %p alone', (fault, step, failing) => {
    const found = source.judge([{ id: fault, severity: 0.5 }]).steps.find((each) => each.step === step);
    const failed = found?.checks.filter((check) => check.verdict.kind === 'fail').map((check) => check.characteristic);
    expect(failed).toEqual(failing);
  });

  it('a dead pump builds nothing and is said to', () => {
    const analysis = source.run('pump-down', [{ id: 'pump-motor-dead', severity: 1 }]);
    expect(valueOf(analysis, 'pump-speed')).toBe('nothing-builds');
    expect(valueOf(source.run('pump-switch', [{ id: 'pump-motor-dead', severity: 1 }]), 'pump-cut-in')).toBe(
      'pump-never-started',
    );
  });

  it('a sensor that is off is told from the gauge on the tee', () => {
    const notes = source.run('pump-switch', [{ id: 'sensor-offset', severity: 0.5 }]).notes;
    expect(notes.map((note) => note.code)).toContain('sensor-differs');
    // A scan tool shows its sensor's last figure until it has the next.
    expect(source.run('pump-switch').notes.map((note) => note.code)).toEqual(['written-over']);
  });

  it('a sound source passes', () => {
    expect(source.judge().steps.filter((step) => step.verdict === 'fail')).toEqual([]);
  });

  it('one stroke costs what the gauge falls by, no more and no less', () => {
    // Written by hand: 68 kPa, a stroke of 300 N from 3 s to 4 s, 60.5 kPa from then on.
    const time = Float64Array.from({ length: 1600 }, (_, i) => i / 200);
    const trace = makeTrace(time, {
      pedal_force: time.map((t) => (t >= 3 && t < 4 ? 300 : 0)),
      supply_vacuum: time.map((t) => (t < 4.1 ? 68e3 : 60.5e3)),
    });
    const analysis = source.kind.steps.find((step) => step.id === 'demand');
    if (analysis?.kind !== 'measured') throw new Error('there is no such step');
    expect(valueOf(analysis.analyse(trace, context), 'vacuum-per-application')).toBeCloseTo(7.5e3, 0);
  });

  it('states a known leak as a standard flow', () => {
    // 0.3 mm² lets in choked air at a rate that the closed volume must lose as pressure.
    const analysis = source.run('rest-leak', [{ id: 'supply-leak', severity: 0 }]);
    const flow = Number(valueOf(analysis, 'leak-flow'));
    const choked = (0.03e-6 * context.ambient.pressure * 0.0404184) / Math.sqrt(284.15);
    expect(flow / (choked / 1.2041)).toBeCloseTo(1, 1);
  });

  it.each([
    ['cutInVacuumKpa', { cutInVacuumKpa: 80, cutOutVacuumKpa: 70 }],
    ['cutOutVacuumKpa', { cutOutVacuumKpa: 95, seaLevelVacuumKpa: 90 }],
    ['sourceKind', { sourceKind: 'manifold' }],
  ])('refuses an impossible %s by name', (field, change) => {
    const parsed = vacuumSupplySchema.safeParse({ ...(source.kind.sheet.example.spec as object), ...change });
    expect(parsed.success ? [] : parsed.error.issues.map((issue) => issue.path[0])).toContain(field);
  });
});

describe('stand-in scan tool', () => {
  it('shows a vacuum as negative gauge pressure, in whole millibars, four times a second', () => {
    const tool = scanTool(0);
    expect(tool.advance(0.1, 58_640)).toBe(-0);
    expect(tool.advance(0.2, 58_640)).toBe(-58_600);
    expect(vacuumShown(-58_600)).toBe(58_600);
    const kept = tool.snapshot();
    tool.advance(1, 0);
    tool.restore(kept);
    expect(tool.advance(0, 10_000)).toBe(-58_600);
  });
});
