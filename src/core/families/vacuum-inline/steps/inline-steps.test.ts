import { analysisOf } from '../../../judging/evaluate-unit';
import { expandedUncertainty } from '../../../instruments/uncertainty';
import { concludeInquiry } from '../../../judging/conclude-inquiry';
import { entryOf } from '../../../dials/characteristic-entry';
import type { CharacteristicId } from '../../../quantities/characteristics';
import { planOf } from '../../../contract/kind';
import { standInUnit, valueOf } from '../../../../../tests/support/stand-in-unit';
import type { VacuumInlineUnit } from '../unit/geometry';
import { masterPressure, pressureSlope, runOutForce } from '../unit/quasi-static';
import { noCorrections } from '../../../procedure/step-analysis';
import { rodGap } from './rod-gap-step';
import type { TypedValues } from '../../../procedure/typed-entry';
import type { Context } from './step-parts';

const bench = standInUnit<VacuumInlineUnit>('vacuum-inline', 'bench');
const vehicle = standInUnit<VacuumInlineUnit>('vacuum-inline', 'vehicle');

describe('assist curve against the model’s truth', () => {
  const seeds = 60;
  const truths: readonly [CharacteristicId, number, number][] = [
    ['cut-in-force', bench.unit.cutInForce, 0.03],
    ['jump-in-output', masterPressure(bench.unit, bench.unit.jumpInForce), 0.05],
    ['force-slope', pressureSlope(bench.unit, bench.unit.servoRatio), 0.015],
    ['run-out-force', runOutForce(bench.unit, 60e3) ?? Number.NaN, 0.015],
    ['force-hysteresis', bench.unit.hysteresis, 0.08],
  ];
  const runs = Array.from({ length: seeds }, (_, seed) =>
    bench.run('assist-curve', [], { benchSeed: seed + 1, runSeed: seed + 1 }),
  );

  it.each(truths)('%s is recovered, and its U is honest', (id, truth, most) => {
    const found = runs.flatMap((analysis) => {
      const one = analysis.characteristics.find((each) => each.id === id);
      return one?.kind === 'measured' ? [one.estimate] : [];
    });
    expect(found).toHaveLength(seeds);
    const rms = Math.sqrt(found.reduce((sum, { value }) => sum + (value / truth - 1) ** 2, 0) / seeds);
    expect(rms).toBeLessThan(most);
    const covered = found.filter((each) => Math.abs(each.value - truth) <= expandedUncertainty(each)).length / seeds;
    expect(covered).toBeGreaterThan(0.85);
  });

  it('a supply that was never opened is seen in a column of a few samples, too', () => {
    const trace = bench.trace('assist-curve');
    const slow = trace.columns.supply_vacuum.map((_, i) => (i % 400 === 0 ? 200 : Number.NaN));
    const step = bench.kind.steps.find((each) => each.id === 'assist-curve');
    if (step?.kind !== 'measured') throw new Error('the assist curve is measured');
    const found = step.analyse({ ...trace, columns: { ...trace.columns, supply_vacuum: slow } }, bench.context);
    expect(valueOf(found, 'cut-in-force')).toBe('source-never-opened');
  });

  it('a push that ends on the modulating line gives no run-out, only how far it was missed', () => {
    const weak = standInUnit<VacuumInlineUnit>('vacuum-inline', 'bench', { spec: { servoRatio: 5 } });
    const step = weak.kind.steps.find((each) => each.id === 'assist-curve');
    if (step?.kind !== 'measured') throw new Error('no assist curve');
    const time = Float64Array.from({ length: 4000 }, (_, i) => i / 200);
    const force = time.map((t) => (t < 2 ? 0 : t < 14 ? (t - 2) * 30 : Math.max(0, 360 - (t - 14) * 90)));
    const output = force.map((f) => (f < 110 ? 0 : 669e3 + 9374 * (f - 110)));
    const analysis = step.analyse({ time, columns: { rod_force: force, output_pressure: output } }, weak.context);
    expect(analysis.characteristics.find((each) => each.id === 'run-out-force')?.kind).toBe('beyond');
    expect(valueOf(analysis, 'run-out-output')).toBe('knee-not-reached');
    expect(valueOf(analysis, 'force-slope')).toBeCloseTo(9374, -1);
  });
});

describe('bench plan', () => {
  it('a sound unit passes every step', () => {
    for (const step of bench.judge().steps) expect([step.step, step.verdict]).not.toContain('fail');
  });

  it.each([
    ['diaphragm-leak', 'vacuum-hold-applied'],
    ['vacuum-valve-leak', 'vacuum-hold-applied'],
    ['atmosphere-valve-leak', 'vacuum-hold-rest'],
    ['check-valve-leak', 'check-valve'],
    ['reaction-disc-missing', 'assist-curve'],
    ['rod-gap-too-small', 'release'],
    ['return-spring-broken', 'release'],
  ])('%s fails %s and not the other hold', (fault, failing) => {
    const { steps } = bench.judge([{ id: fault, severity: 0.3 }]);
    const verdicts = new Map(steps.map((step) => [step.step, step.verdict]));
    expect(verdicts.get(failing)).toBe('fail');
    const other = failing === 'vacuum-hold-rest' ? 'unassisted-curve' : 'vacuum-hold-rest';
    expect(verdicts.get(other)).toBe('pass');
  });

  it('a unit tested at 1,420 m on a weak pump gets the verdict it would get at the sea', () => {
    const sea = standInUnit<VacuumInlineUnit>('vacuum-inline', 'bench', { site: { altitudeM: 0 } });
    const curve = (where: typeof bench, spec: object = {}) => {
      const on = standInUnit<VacuumInlineUnit>('vacuum-inline', 'bench', {
        spec,
        site: where === sea ? { altitudeM: 0 } : {},
      });
      return on.judge().steps.find((step) => step.step === 'assist-curve');
    };
    // A pump that pulls 42 kPa only: run-out comes early, and the curve is judged at the vacuum that was there.
    const weak = standInUnit<VacuumInlineUnit>('vacuum-inline', 'bench', { site: { altitudeM: 4600 } });
    const high = weak.judge().steps.find((step) => step.step === 'assist-curve');
    expect(curve(sea)?.verdict).toBe('pass');
    expect(high?.verdict).toBe('pass');
    const runOut = (step: typeof high) =>
      step?.characteristics.find((each) => each.id === 'run-out-force' && each.kind === 'measured');
    const value = (step: typeof high) => {
      const found = runOut(step);
      return found?.kind === 'measured' ? found.estimate.value : Number.NaN;
    };
    expect(value(high)).toBeLessThan(0.9 * value(curve(sea)));
    expect(high?.analyses[0].notes.map((note) => note.code)).toContain('short-of-assist');
  });
});

describe('rod gap', () => {
  const context = bench.context as Context;

  it('is the pocket’s depth less stand-off and protrusion, with the uncertainty of three readings', () => {
    const values = { 'pocket-depth': 14.2e-3, 'stand-off': 3.1e-3, protrusion: 10.5e-3 };
    const [gap] = rodGap.feeds.dials.analyse(values, context).characteristics;
    if (gap.kind !== 'measured') throw new Error('no gap');
    expect(gap.estimate.value).toBeCloseTo(0.6e-3, 9);
    expect(expandedUncertainty(gap.estimate)).toBeLessThan(0.3e-3);
  });

  it('says where a sound rod would stand once the other two are read', () => {
    const fields = rodGap.feeds.dials.fields(context, { 'pocket-depth': 14.2e-3, 'stand-off': 3.1e-3 });
    const { expected } = fields[2];
    expect(expected?.low).toBeCloseTo(10.2e-3, 9);
    expect(expected?.high).toBeCloseTo(10.8e-3, 9);
    expect(rodGap.feeds.dials.fields(context, {})[2].expected).toBeNull();
  });

  it('gives nothing until all three are read', () => {
    expect(valueOf(rodGap.feeds.dials.analyse({ protrusion: 0.01 }, context), 'rod-gap')).toBe('not-read');
  });
});

describe('hard-pedal inquiry on the stand-in vehicle', () => {
  const looks = (step: string, changed: Record<string, string> = {}) => {
    const definition = vehicle.kind.steps.find((each) => each.id === step);
    if (definition?.kind !== 'look') throw new Error(`${step} is no look`);
    const best = definition.feeds.look.options[0].id;
    return {
      [step]: { ...Object.fromEntries(definition.feeds.look.points.map((point) => [point.id, best])), ...changed },
    };
  };
  const findings = { ...looks('complaint'), ...looks('hose-look') };

  it.each([
    ['low-source-vacuum', 'source'],
    ['hose-collapsing', 'hose'],
    ['check-valve-leak', 'check-valve'],
    ['atmosphere-valve-leak', 'leaking-unit'],
    ['vacuum-valve-leak', 'unit'],
    ['linings-glazed', 'not-the-booster'],
  ])('%s ends at %s', (fault, end) => {
    const evaluation = vehicle.judge([{ id: fault, severity: fault === 'vacuum-valve-leak' ? 1 : 0.6 }], findings);
    const state = concludeInquiry(planOf(vehicle.kind, 'vehicle'), evaluation);
    expect(state.kind === 'concluded' ? state.conclusion.id : 'open').toBe(end);
  });

  it('what is found behind the booster ends it there, and before anything was measured it is open', () => {
    const behind = { ...findings, ...looks('behind-the-booster', { 'combination-valve': 'found' }) };
    const state = concludeInquiry(planOf(vehicle.kind, 'vehicle'), vehicle.judge([], behind));
    expect(state.kind === 'concluded' && state.conclusion.id).toBe('combination-valve');
    const nothing = { verdict: 'incomplete' as const, steps: [], corrections: noCorrections };
    expect(concludeInquiry(planOf(vehicle.kind, 'vehicle'), nothing).kind).toBe('open');
  });

  it('the pedal sinks when the engine brings assist, and hardly when there is none to bring', () => {
    const sound = vehicle.run('pedal-drop');
    const weak = vehicle.run('pedal-drop', [{ id: 'low-source-vacuum', severity: 1 }]);
    expect(valueOf(sound, 'pedal-sink')).toBeGreaterThan(0.02);
    expect(Number(valueOf(weak, 'pedal-sink'))).toBeLessThan(0.5 * Number(valueOf(sound, 'pedal-sink')));
  });

  it('the same-force pair recovers the model’s ratio', () => {
    expect(valueOf(vehicle.run('same-force-pair'), 'vehicle-ratio')).toBeCloseTo(5.7, 0);
  });
});

describe('source limits', () => {
  const limitOf = (
    kind: 'manifold' | 'pump' | undefined,
    school: 'both' | 'sixteen' | 'eighteen',
    altitudeM = 1420,
  ) => {
    const where = standInUnit<VacuumInlineUnit>('vacuum-inline', 'vehicle', {
      spec: { sourceKind: kind },
      site: { altitudeM },
    });
    const step = where.kind.steps.find((each) => each.id === 'source-vacuum');
    if (step?.kind !== 'measured') throw new Error('no source step');
    const nothing = { characteristics: [], events: [], notes: [] };
    const context = { ...where.context, schools: { ...where.context.schools, leastVacuum: school } };
    return step.limits(nothing, context)[0];
  };
  const inHg = 3386.389;

  it('are restated as the source loses its vacuum: 16.0 inHg is 11.3 for a manifold and 13.5 for a pump', () => {
    expect((limitOf('manifold', 'sixteen').low ?? 0) / inHg).toBeCloseTo(11.3, 1);
    expect((limitOf('pump', 'sixteen').low ?? 0) / inHg).toBeCloseTo(13.5, 1);
    expect(limitOf('manifold', 'sixteen', 0).low).toBeCloseTo(16 * inHg, 3);
    expect((limitOf('pump', 'eighteen').restatedFrom ?? 0) / inHg).toBeCloseTo(18, 6);
  });

  it('by both schools a pass between them is marginal', () => {
    const limit = limitOf('pump', 'both');
    expect(limit.stricterLow).toBeGreaterThan(limit.low ?? Infinity);
    expect(limitOf('pump', 'sixteen').stricterLow).toBeUndefined();
  });

  it('cannot be said without knowing the source, except at the sea', () => {
    expect(limitOf(undefined, 'both').withheld?.code).toBe('source-kind-missing');
    expect(limitOf(undefined, 'both', 0).withheld).toBeUndefined();
  });
});

describe('typed entries of measured steps', () => {
  const stepNamed = (id: string) => {
    const step = bench.kind.steps.find((each) => each.id === id);
    if (step?.kind !== 'measured') throw new Error(`no step ${id}`);
    return step;
  };

  it('a step without one of its own asks for its characteristics with what a sound unit shows', () => {
    const step = stepNamed('source-vacuum');
    const [idle] = entryOf(step).fields(bench.context, {});
    expect(idle.expected?.low).toBeGreaterThan(30e3);
    expect(idle.plausible[1]).toBeLessThanOrEqual(102e3);
    expect(valueOf(entryOf(step).analyse({ 'idle-vacuum': 55e3 }, bench.context), 'idle-vacuum')).toBe(55e3);
  });

  it('a figure that was worked out by somebody and kept so is judged as it stands', () => {
    const step = stepNamed('check-valve');
    expect(valueOf(analysisOf(step, { readings: { 'reverse-leak': 500 } }, bench.context), 'reverse-leak')).toBe(500);
    const readings = { 'at-start': 60e3, 'each-wait': 15, 'after-shut': 59.8e3, 'after-open': 59.1e3 };
    expect(valueOf(analysisOf(step, { readings }, bench.context), 'reverse-leak')).toBeCloseTo(500);
  });

  it('a hold is read at its ends and stated for its own time, however long it was', () => {
    const entry = entryOf(stepNamed('vacuum-hold-rest'));
    const ends = (seconds: number, end: number) => ({ start: 60e3, seconds, end });
    expect(valueOf(entry.analyse(ends(15, 59e3), bench.context), 'vacuum-loss')).toBeCloseTo(1000, 6);
    // Between an even leak's 10 Pa and an exponential one's.
    const overnight = valueOf(entry.analyse(ends(36_000, 36e3), bench.context), 'vacuum-loss');
    expect(overnight).toBeGreaterThan(10);
    expect(overnight).toBeLessThan(60e3 * (1 - 0.6 ** (15 / 36_000)));
    const [, , end] = entry.fields(bench.context, { start: 60e3, seconds: 30 });
    expect(end.expected?.low).toBeCloseTo(60e3 - 6600, 6);
    expect(end.expected?.high).toBe(60e3);
    // What an allowed leak empties is emptied, never more than that.
    const [, , late] = entry.fields(bench.context, { start: 60e3, seconds: 3600 });
    expect(late.expected?.low).toBeGreaterThanOrEqual(0);
    expect(late.expected?.low).toBeLessThan(1000);
    expect(valueOf(entry.analyse({ start: 60e3 }, bench.context), 'vacuum-loss')).toBe('not-read');
  });

  it('a longer hold is the more certain one, and an uneven one is said', () => {
    const entry = entryOf(stepNamed('vacuum-hold-rest'));
    const doubt = (seconds: number) => {
      const [loss] = entry.analyse({ start: 60e3, seconds, end: 60e3 - 10 * seconds }, bench.context).characteristics;
      return loss.kind === 'measured' ? expandedUncertainty(loss.estimate) : Number.NaN;
    };
    expect(doubt(600)).toBeLessThan(0.2 * doubt(15));
    const between = { start: 60e3, seconds: 3600, end: 50e3, 'middle-seconds': 1800, middle: 51e3 };
    const codes = (values: TypedValues) => (entry.analyse(values, bench.context).doubts ?? []).map((each) => each.code);
    expect(codes(between)).toEqual(['uneven-loss']);
    expect(codes({ ...between, middle: 55e3 })).toEqual([]);
    const after = entry.analyse({ ...between, 'middle-seconds': 4000 }, bench.context);
    expect(after.notes.map((note) => note.code)).toEqual(['not-between']);
  });

  it('a needle that rose, that had nothing to start from, or that fell to nothing is judged as what it is', () => {
    const entry = entryOf(stepNamed('vacuum-hold-rest'));
    const typed = (values: TypedValues) => entry.analyse(values, bench.context);
    const kindOf = (values: TypedValues) => {
      const [loss] = typed(values).characteristics;
      return loss.kind === 'absent' ? loss.problem.code : loss.kind;
    };
    expect(kindOf({ start: 58e3, seconds: 15, end: 57.5e3 })).toBe('measured');
    expect(kindOf({ start: 58e3, seconds: 15, end: 60.5e3 })).toBe('gains');
    expect(kindOf({ start: 300, seconds: 15, end: 0 })).toBe('source-never-opened');
    const gone = typed({ start: 58e3, seconds: 15, end: 0 }).characteristics[0];
    expect(gone).toMatchObject({ kind: 'beyond', side: 'above', bound: { value: 58e3 } });
    expect(typed({ start: 20e3, seconds: 15, end: 19.9e3 }).doubts?.map((each) => each.code)).toEqual([
      'too-little-vacuum',
    ]);
  });
});
