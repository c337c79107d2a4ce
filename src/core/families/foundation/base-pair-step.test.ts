import { judgedAs, minibus } from '../../../../tests/support/foundation-vehicle';
import { valueOf } from '../../../../tests/support/stand-in-unit';
import type { Instrument } from '../../instruments/instrument';
import { expandedUncertainty } from '../../instruments/uncertainty';
import type { MeasuredStep } from '../../procedure/step-definition';
import type { TypedValues } from '../../procedure/typed-entry';
import { pressureOfFoot } from '../../calculators/brake-force';
import { concludeInquiry } from '../../judging/conclude-inquiry';
import { evaluateStep, type UnitEvaluation } from '../../judging/evaluate-unit';
import { estimateOf } from '../../procedure/analysis-result';
import { makeTrace } from '../../traces/trace';
import { basePair, ratioWindow } from './base-pair-step';

type Two = readonly [number, number];

/** Two pushes that were held, by somebody's own logger; `engine` says whether it ran at each, where that was logged. */
function pair(forces: Two, pressures: Two, engine: Two | null = null) {
  const time = Float64Array.from({ length: 700 }, (_, i) => i / 50);
  const held = (t: number, [first, second]: Two) => {
    const of = (from: number, to: number) => Math.max(0, Math.min(1, (t - from) / 0.5, (to - t) / 0.5));
    return first * of(2, 6) + second * of(8, 12);
  };
  const noise = (i: number, size: number) => size * Math.sin(12.9898 * i) * Math.cos(78.233 * i);
  const log = makeTrace(time, {
    pedal_force: time.map((t, i) => held(t, forces) + noise(i, 0.5)),
    master_pressure: time.map((t, i) => held(t, pressures) + noise(i, 2e3)),
    ...(engine ? { engine_on: time.map((t) => engine[t < 7 ? 0 : 1]) } : {}),
  });
  return judgedAs('base-pair', log);
}

describe('pressure without and with assist', () => {
  const foot = pressureOfFoot(minibus.unit.master, 200);

  it('is a ratio of two pushes of one foot, whichever came first', () => {
    for (const pressures of [[1.4e6, 4.9e6] as const, [4.9e6, 1.4e6] as const]) {
      const analysis = pair([200, 200], pressures);
      expect(estimateOf(analysis, 'vehicle-ratio')!.value).toBeCloseTo(3.5, 2);
      expect(analysis.pedalForce).toBeCloseTo(200, 0);
    }
  });

  it('of two feet that differ by more than 5 % it is none', () => {
    expect(valueOf(pair([200, 214], [1.4e6, 4.9e6]), 'vehicle-ratio')).toBe('foot-not-still');
    expect(estimateOf(pair([200, 206], [1.4e6, 4.9e6]), 'vehicle-ratio')!.value).toBeCloseTo(3.5, 1);
  });

  it('a foot that makes more than a foot can was helped: that is a doubt, no pass', () => {
    const analysis = pair([200, 200], [4.2e6, 4.9e6]);
    expect(analysis.doubts?.map(({ code }) => code)).toContain('more-than-the-foot');
    expect(valueOf(analysis, 'unassisted-pressure')).toBe('more-than-the-foot');
    expect(analysis.verdict).toBe('undecided');
  });

  it('two pushes without the engine are no unit that gives nothing', () => {
    const alike = pair([200, 200], [foot, 1.02 * foot]);
    expect(valueOf(alike, 'vehicle-ratio')).toBe('engine-not-recorded');
    expect(alike.verdict).toBe('undecided');
    expect(pair([200, 200], [foot, 1.02 * foot], [0, 0]).verdict).toBe('undecided');
    expect(valueOf(pair([200, 200], [foot, 1.02 * foot], [0, 0]), 'vehicle-ratio')).toBe('engine-not-started');
    expect(valueOf(pair([200, 200], [foot, 3 * foot], [1, 1]), 'vehicle-ratio')).toBe('engine-not-stopped');
  });

  it('the engine that was logged says which push is which, and a unit that then gives nothing fails', () => {
    expect(pair([200, 200], [foot, 1.02 * foot], [0, 1]).verdict).toBe('fail');
    const turned = pair([200, 200], [foot, 3.5 * foot], [1, 0]);
    expect(estimateOf(turned, 'vehicle-ratio')?.value ?? 0).toBeLessThan(1);
  });
});

describe('what the ratio may be hangs on the foot', () => {
  const { unit } = minibus;
  const foot = (force: number) => pressureOfFoot(unit.master, force);
  /** A booster with a jump-in, that runs out: what it makes of a foot (Pa). */
  const assisted = (force: number) => Math.min(1.1e6 + 3.1 * foot(force), 4.6e6 + foot(force));

  it.each([[60], [90], [120], [200], [350], [500]])('one sound unit passes at a foot of %d N', (force) => {
    const found = pair([force, force], [foot(force), assisted(force)], [0, 1]);
    const check = found.evaluation.checks.find(({ characteristic }) => characteristic === 'vehicle-ratio')!;
    expect([force, check.verdict.kind]).toEqual([force, 'pass']);
  });

  it('has no upper end where the foot alone makes nothing by the sheet', () => {
    expect(ratioWindow(unit, 10)).toEqual({ low: unit.ratioLeast, high: null });
  });

  it('is the sheet’s own at the sheet’s own foot, and one that gives nothing fails at any', () => {
    expect(ratioWindow(unit, unit.ratioForce)).toEqual({ low: unit.ratioLeast, high: unit.ratioMost });
    for (const force of [90, 200, 250])
      expect(pair([force, force], [foot(force), 1.1 * foot(force)], [0, 1]).verdict).toBe('fail');
  });

  it('too much is no conclusion of too little', () => {
    const steps = (measured: ReturnType<typeof pair>) =>
      ({ steps: [measured.evaluation] }) as unknown as UnitEvaluation;
    const ends = (measured: ReturnType<typeof pair>) => {
      const state = concludeInquiry(minibus.kind.plans[0], steps(measured));
      return state.kind === 'concluded' ? state.conclusion.id : 'open';
    };
    // The wrong bore on the sheet: the foot makes a fifth more than it should by it.
    const much = pair([200, 200], [1.28 * foot(200), 1.28 * 3.5 * foot(200)], [0, 1]);
    expect(much.verdict).toBe('fail');
    expect(ends(much)).toBe('open');
    expect(ends(pair([200, 200], [foot(200), 7.5 * foot(200)], [0, 1]))).toBe('open');
    expect(ends(pair([200, 200], [foot(200), 1.2 * foot(200)], [0, 1]))).toBe('assist');
    expect(ends(pair([200, 200], [0.6 * foot(200), 2.1 * foot(200)], [0, 1]))).toBe('master-cylinder');
  });
});

describe('the pair as it is brought from a vehicle, on one gauge', () => {
  const cell: Instrument = {
    channel: 'pedal_force',
    name: 'Pedal load cell',
    range: 1_000,
    resolution: 1,
    classFraction: 0.01,
    classOf: 'reading',
    calibratedOn: null,
    dueOn: null,
  };
  const instruments = new Map([...minibus.context.instruments, ['pedal_force', cell] as const]);
  const judged = (readings: TypedValues) =>
    evaluateStep(minibus.kind, basePair as MeasuredStep<unknown>, [{ readings }], {
      context: { ...minibus.context, instruments },
      policy: 'guarded',
    });
  const brought = { 'foot-known': 0, foot: 89, off: 550e3, on: 1.1e6 };

  it('89 N, 550 kPa without and 1.1 MPa with assist are a ratio of two, held against what 89 N may give', () => {
    const { characteristics, checks, verdict } = judged(brought);
    const ratio = characteristics.find(({ id }) => id === 'vehicle-ratio')!;
    if (ratio.kind !== 'measured') throw new Error('no ratio');
    expect(ratio.estimate.value).toBeCloseTo(2, 6);
    expect(expandedUncertainty(ratio.estimate)).toBeGreaterThan(0.1);
    expect(expandedUncertainty(ratio.estimate)).toBeLessThan(0.5);
    expect(verdict).not.toBe('fail');
    const unassisted = checks.find(({ characteristic }) => characteristic === 'unassisted-pressure')!;
    expect(unassisted.limit.expected).toBeCloseTo(pressureOfFoot(minibus.unit.master, 89), -3);
  });

  it('a foot that was only felt widens its limits, and one that nobody knows leaves the ratio alone', () => {
    const felt = judged({ ...brought, 'foot-known': 1 });
    const standardOf = (evaluation: typeof felt) =>
      evaluation.checks.find(({ characteristic }) => characteristic === 'unassisted-pressure')?.limit.standard;
    expect(standardOf(felt)).toBeGreaterThan(standardOf(judged(brought)) ?? Infinity);
    const unknown = judged({ 'foot-known': 2, off: 550e3, on: 1.1e6 });
    expect(unknown.checks.map(({ characteristic }) => characteristic)).toEqual(['vehicle-ratio']);
    expect(unknown.verdict).not.toBe('fail');
    expect(unknown.analyses[0].notes.map(({ code }) => code)).toContain('foot-not-known');
  });
});
