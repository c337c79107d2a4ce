import fc from 'fast-check';
import { context, firstOf, judgedAs, measuredStep, minibus } from '../../../../tests/support/foundation-vehicle';
import { dice, goodGauge, writeLog, type Signal } from '../../../../tests/support/second-writer/logger';
import { tableOf } from '../../../../tests/support/tables';
import { standInUnit, valueOf } from '../../../../tests/support/stand-in-unit';
import { rearPressure } from '../../calculators/brake-force';
import { evidenceOf } from '../../diagnosis/evidence';
import { hypothesisId } from '../../diagnosis/hypothesis';
import { rank } from '../../diagnosis/rank';
import { concludeInquiry } from '../../judging/conclude-inquiry';
import { planOf } from '../../contract/kind';
import { expandedUncertainty } from '../../instruments/uncertainty';
import { estimateOf } from '../../procedure/analysis-result';
import { makeTrace } from '../../traces/trace';
import { bleedPlan } from './bleed-plan';
import type { FoundationUnit } from './geometry';
import { rearWindow } from './rear-window';
import { foundationSchema } from './sheet';

/** A press of both axles as somebody's own logger has it: a hand, gauges and clock that are none of the stand-in's. */
function pressed(seed: number, split: number, slope: number, lower = 1, top = 2.2) {
  const luck = dice(seed);
  const reach = top * split;
  const seconds = luck.between(8, 25);
  const wobble = luck.between(0, 0.01);
  const front = (t: number) => {
    const share = Math.max(0, Math.min(1, (t - 1.5) / seconds));
    return (
      reach *
      (share + wobble * Math.sin(5 * t) * share) *
      (t > seconds + 3 ? Math.max(0, 1 - (t - seconds - 3) / 2) : 1)
    );
  };
  const rear = (p: number) => lower * (p <= split ? p : split + slope * (p - split));
  const signal = (at: (t: number) => number): Signal => ({
    at,
    gauging: { ...goodGauge, white: luck.between(1e3, 8e3), division: luck.oneOf([0, 1e3, 1e4]) },
  });
  const log = writeLog(
    { front_pressure: signal(front), rear_pressure: signal((t) => rear(front(t))) },
    { seconds: seconds + 6, rate: luck.oneOf([20, 50, 200]) },
    luck,
  );
  return measuredStep('proportioning').analyse(log, context);
}

describe('rear against front, as others log it', () => {
  it('joint and slope are found within 2 %, whatever hand, gauges and rate', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 10_000 }),
        fc.double({ min: 1.5e6, max: 5e6, noNaN: true }),
        fc.double({ min: 0.25, max: 0.6, noNaN: true }),
        (seed, split, slope) => {
          const analysis = pressed(seed, split, slope);
          expect(Math.abs(estimateOf(analysis, 'split-pressure')!.value / split - 1)).toBeLessThan(0.02);
          expect(Math.abs(estimateOf(analysis, 'rear-slope')!.value / slope - 1)).toBeLessThan(0.02);
          expect(estimateOf(analysis, 'lower-slope')!.value).toBeCloseTo(1, 1);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('a press that ends below the joint has no split, and says so', () => {
    const analysis = pressed(7, 2.5e6, 0.4, 1, 0.8);
    expect(valueOf(analysis, 'split-pressure')).toBe('no-split');
    expect(valueOf(analysis, 'rear-slope')).toBe('no-split');
    expect(estimateOf(analysis, 'lower-slope')!.value).toBeCloseTo(1, 2);
  });
});

describe('rear over front that is no valve’s line', () => {
  /** Pressed in so many seconds, the rear coming so much later, s. */
  const log = (seconds: number, lag: number, rear: (front: number) => number) => {
    const time = Float64Array.from({ length: 1600 }, (_, i) => i / 100);
    const front = time.map((t) => 8e6 * Math.max(0, Math.min(1, (t - 1) / seconds)));
    let behind = 0;
    const late = front.map((p) => (behind += ((rear(p) - behind) * 0.01) / (lag + 0.01)));
    return judgedAs('proportioning', makeTrace(time, { front_pressure: front, rear_pressure: late }));
  };
  const sound = (p: number) => rearPressure(minibus.unit.vehicle, p);

  it('a rear that comes late at a quick push is no shifted valve', () => {
    expect(log(8, 0.005, sound).verdict).toBe('pass');
    const quick = log(0.8, 0.3, sound);
    expect(quick.verdict).toBe('undecided');
    expect(valueOf(quick, 'lower-slope')).toBe('neither-line');
  });

  it('a valve that holds back from the start fails by its slope, and has no split to name', () => {
    const found = log(8, 0.005, (p) => 0.5 * p);
    expect(found.verdict).toBe('fail');
    expect(estimateOf(found, 'lower-slope')!.value).toBeCloseTo(0.5, 2);
    expect(valueOf(found, 'split-pressure')).toBe('behind-from-the-start');
  });

  it('a valve that never holds back is no bypass of the master cylinder', () => {
    const found = log(8, 0.005, (p) => p);
    expect(found.verdict).toBe('fail');
    const table = tableOf(minibus.kind, context.plan);
    const evidence = evidenceOf(minibus.kind, table, [found.evaluation], context, []);
    const bypass = rank(minibus.kind, table, evidence).ranked.find(
      ({ hypothesis }) => hypothesisId(hypothesis) === 'master-cylinder-bypass',
    );
    expect(bypass!.probability).toBeLessThan(0.5);
  });
});

describe('both axles at one push', () => {
  const push = (front: number, rear: number, lamp: number | null) => {
    const time = Float64Array.from({ length: 400 }, (_, i) => i / 50);
    const share = (t: number) => Math.max(0, Math.min(1, (t - 2) / 0.5, (7 - t) / 0.5));
    const of = (top: number) => time.map((t, i) => top * share(t) + 1e3 * Math.sin(12.9898 * i));
    return judgedAs(
      'combination-valve',
      makeTrace(time, {
        pedal_force: time.map((t) => 200 * share(t)),
        front_pressure: of(front),
        rear_pressure: of(rear),
        ...(lamp === null ? {} : { lamp_red: time.map(() => lamp) }),
      }),
    );
  };

  it.each([
    ['lit', 0, 1, 'fail', 'one-axle-alone'],
    ['lit', 4e5, 1, 'fail', 'measured'],
    ['dark', 0, 0, 'undecided', 'gauge-never-moved'],
    ['dark', 4e5, 0, 'undecided', 'one-axle-alone'],
    ['not logged', 0, null, 'undecided', 'gauge-never-moved'],
    ['not logged', 4e5, null, 'undecided', 'lamp-not-recorded'],
  ] as const)('with the lamp %s and %d Pa at the rear it comes to what is shown', (_, rear, lamp, verdict, told) => {
    const found = push(5e6, rear, lamp);
    expect(found.verdict).toBe(verdict);
    const value = valueOf(found, 'axle-ratio');
    expect(typeof value === 'number' ? 'measured' : value).toBe(told);
  });

  it('two axles together pass', () => {
    expect(push(5e6, 3e6, 0).verdict).toBe('pass');
  });

  it('two axles together under a lit lamp pass, and the lamp is said to have another cause', () => {
    const { verdict, notes } = push(5e6, 3e6, 1);
    expect(verdict).toBe('pass');
    expect(notes.map(({ code }) => code)).toContain('lamp-lit-for-another');
  });

  it('however hard somebody pushed, a valve within its tolerances accuses nobody', () => {
    const { unit } = minibus;
    fc.assert(
      fc.property(
        fc.double({ min: 1e6, max: 12e6, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (front, within) => {
          const [low, high] = rearWindow(unit, front);
          expect(low).toBeLessThanOrEqual(rearPressure(unit.vehicle, front));
          expect(high).toBeGreaterThanOrEqual(rearPressure(unit.vehicle, front));
          expect(firstOf(push(front, low + within * (high - low), 0).evaluation)).toBe('no-fault');
        },
      ),
      { numRuns: 25 },
    );
  });
});

it('a rear gauge that never moved is no valve that shuts the rear off', () => {
  expect(valueOf(pressed(11, 2.5e6, 0.4, 0), 'lower-slope')).toBe('gauge-never-moved');
});

it('a stop-lamp contact that opens when it is pressed is none that is set too tight', () => {
  const time = Float64Array.from({ length: 600 }, (_, i) => i / 50);
  const share = time.map((t) => Math.max(0, Math.min(1, (t - 2) / 6, (11 - t) / 2)));
  const by = minibus.unit.stopLamp.by;
  const top = 3 * minibus.unit.stopLamp.most;
  const log = (opens: boolean) =>
    makeTrace(time, {
      [by]: share.map((each) => top * each),
      stop_switch: share.map((each) => (each > 0.2 && opens ? 0 : 1)),
    });
  const id = by === 'master_pressure' ? 'stop-lamp-pressure' : 'stop-lamp-travel';
  expect(valueOf(judgedAs('stop-lamp-adjust', log(true)), id)).toBe('switch-opens-when-pressed');
  expect(judgedAs('stop-lamp-adjust', log(true)).verdict).toBe('undecided');
  expect(judgedAs('stop-lamp-adjust', log(false)).verdict).toBe('fail');
});

describe('a stop with the assist gone', () => {
  it('is there from the first moment on, by the worked figures, and is no approval', () => {
    const found = minibus.judge().steps.find(({ step }) => step === 'failed-assist-stop')!;
    const value = (id: string) => {
      const one = found.characteristics.find((each) => each.id === id);
      return one?.kind === 'measured' ? one.estimate.value : Number.NaN;
    };
    expect(value('deceleration')).toBeCloseTo(4.03, 2);
    expect(value('stopping-distance')).toBeCloseTo(105.8, 1);
    expect(value('pedal-force-needed')).toBeCloseTo(294, 0);
    expect(found.verdict).toBe('pass');
    expect(found.analyses[0].notes).toContainEqual(expect.objectContaining({ code: 'calculation-only' }));
    for (const each of found.characteristics)
      if (each.kind === 'measured')
        expect(expandedUncertainty(each.estimate)).toBeGreaterThan(0.05 * each.estimate.value);
  });

  it('a vehicle under a rule of its own is held against that alone, and a rule with a hole is refused', () => {
    const own = {
      category: 'own',
      ownSpeedKmh: 40,
      ownDecelerationMinMPerS2: 5,
      ownDistanceA: 0.15,
      ownDistanceB: 0.0077,
      ownPedalForceMaxN: 700,
      ownSource: 'The workshop’s book, page 12',
    };
    const judged = standInUnit<FoundationUnit>('foundation', 'vehicle', { spec: own }).judge();
    const stop = judged.steps.find(({ step }) => step === 'failed-assist-stop')!;
    const deceleration = stop.checks.find(({ characteristic }) => characteristic === 'deceleration')!;
    expect(deceleration.limit.low).toBe(5);
    expect(deceleration.limit.source).toEqual({ kind: 'sheet', field: 'ownDecelerationMinMPerS2' });
    const example = minibus.kind.sheet.example.spec as object;
    for (const field of Object.keys(own).filter((each) => each !== 'category')) {
      const parsed = foundationSchema.safeParse({ ...example, ...own, [field]: undefined });
      expect(parsed.error?.issues.map(({ path }) => path[0])).toEqual([field]);
    }
  });
});

it('a stop-lamp switch that closes late is ranked as too slack, one that closes early as too tight', () => {
  const leads = (id: string, severity: number) => {
    const { steps } = minibus.judge([{ id, severity }]);
    return firstOf(steps.find(({ step }) => step === 'stop-lamp-adjust')!);
  };
  for (const severity of [0.1, 0.5, 0.9]) {
    expect(leads('stop-switch-slack', severity)).toBe('stop-switch-slack');
    expect(leads('stop-switch-misadjusted', severity)).toBe('stop-switch-misadjusted');
  }
});

describe('where the inquiry ends', () => {
  const plan = planOf(minibus.kind, 'vehicle');
  const ends = (faults: Parameters<typeof minibus.judge>[0], findings: Parameters<typeof minibus.judge>[1] = {}) => {
    const state = concludeInquiry(plan, minibus.judge(faults, findings));
    return state.kind === 'concluded' ? state.conclusion.id : 'open';
  };
  const good = Object.fromEntries(
    minibus.kind.steps.flatMap((step) =>
      step.kind === 'look'
        ? [[step.id, Object.fromEntries(step.feeds.look.points.map(({ id }) => [id, step.feeds.look.options[0].id]))]]
        : [],
    ),
  );

  it('at the shuttle, at a switch that is too tight or too slack, at nothing at all', () => {
    expect(ends([{ id: 'combination-valve-shuttled', severity: 0.5 }])).toBe('shuttle');
    expect(ends([{ id: 'stop-switch-misadjusted', severity: 0.9 }])).toBe('stop-lamps');
    expect(ends([{ id: 'stop-switch-slack', severity: 0.5 }])).toBe('stop-lamps');
    expect(ends([{ id: 'master-cylinder-bypass', severity: 0.5 }])).toBe('master-cylinder');
    expect(ends([], good)).toBe('nothing-behind');
    expect(ends([])).toBe('open');
  });

  it('the wrong fluid stops it before anything else', () => {
    const wrong = { ...good, 'fluid-look': { ...good['fluid-look'], kind: 'unfit' } };
    expect(ends([{ id: 'combination-valve-shuttled', severity: 0.5 }], wrong)).toBe('fluid');
  });

  it.each([
    ['lever-down', 'lever-switch'],
    ['float-lifted', 'float'],
    ['all-plugs-off', 'lamp-wire'],
    ['pressure-on', 'circuit'],
    ['key-on', 'bulb'],
  ])('a lamp that %s changes leads to %s', (point, conclusion) => {
    expect(ends([], { ...good, 'red-lamp': { ...good['red-lamp'], [point]: 'unfit' } })).toBe(conclusion);
  });
});

it('is bled by the sheet: its fluid, its order, old fluid out first', () => {
  const by = (spec: object) => bleedPlan(standInUnit<FoundationUnit>('foundation', 'vehicle', { spec }).unit);
  expect(by({})[3]).toMatch(/^Farthest wheel first: rear right, rear left, front right, front left/);
  expect(by({ bleedOrder: 'by-circuit' })[3]).toMatch(/^By circuit/);
  expect(by({ fluid: 'mineral' })[0]).toContain('mineral oil');
  expect(by({})[1]).toContain('thrown away');
});
