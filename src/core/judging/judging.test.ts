import fc from 'fast-check';
import { kindNamed } from '../families';
import type { LookStep } from '../procedure/look-step';
import type { Characteristic } from '../procedure/step-analysis';
import { combinedStandard, expandedUncertainty, type Estimate } from '../instruments/uncertainty';
import { combineRepeats } from './combine-repeats';
import { decide } from './decide';
import { judgeStep, lookVerdict, stepVerdict, unitVerdict } from './judge-step';

const estimate = (value: number, u: number): Estimate => ({
  value,
  components: [{ source: 'noise', standard: u / 2, random: true }],
});
const upTo = (high: number) => ({ low: null, high, standard: 0 });

describe('guarded decision', () => {
  it('passes and fails only with the whole of ± U on one side', () => {
    expect(decide(estimate(8, 1), upTo(10), 'guarded').kind).toBe('pass');
    expect(decide(estimate(12, 1), upTo(10), 'guarded')).toEqual({ kind: 'fail', side: 'high' });
    expect(decide(estimate(9.5, 1), upTo(10), 'guarded').kind).toBe('undecided');
    expect(decide(estimate(3, 1), { low: 5, high: 10, standard: 0 }, 'guarded')).toEqual({ kind: 'fail', side: 'low' });
  });

  it('a reading whose U reaches over the low limit is not below it', () => {
    const low = { low: 5, high: null, standard: 0 };
    expect(decide(estimate(4.5, 1), low, 'guarded').kind).toBe('undecided');
    expect(decide(estimate(3.5, 1), low, 'guarded')).toEqual({ kind: 'fail', side: 'low' });
  });

  it('simple acceptance looks at the reading alone', () => {
    expect(decide(estimate(9.5, 1), upTo(10), 'simple').kind).toBe('pass');
  });

  it('counts the uncertainty of the limit itself', () => {
    expect(decide(estimate(8.9, 1), upTo(10), 'guarded').kind).toBe('pass');
    expect(decide(estimate(8.9, 1), { ...upTo(10), standard: 0.5 }, 'guarded').kind).toBe('undecided');
  });

  it('a better gauge never turns a decided verdict round', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.double({ min: 0.01, max: 5, noNaN: true }),
        (value, u) => {
          const first = decide(estimate(value, u), upTo(10), 'guarded').kind;
          fc.pre(first !== 'undecided');
          expect(decide(estimate(value, u / 3), upTo(10), 'guarded').kind).toBe(first);
        },
      ),
    );
  });

  it('says how many repeats would decide, and that many do', () => {
    const undecided = decide(estimate(9.5, 1), upTo(10), 'guarded');
    if (undecided.kind !== 'undecided') throw new Error('expected undecided');
    const [remedy] = undecided.remedies;
    if (remedy.kind !== 'repeats') throw new Error('expected repeats');
    const repeats = Array.from({ length: remedy.count }, (): Characteristic[] => [
      { kind: 'measured', id: 'boost-ratio', estimate: estimate(9.5, 1) },
    ]);
    const [combined] = combineRepeats(repeats).characteristics;
    expect(combined.kind === 'measured' && decide(combined.estimate, upTo(10), 'guarded').kind).toBe('pass');
  });

  it.each([
    ['volume', 'volume'],
    ['gas-heat', 'gas-heat'],
    ['timing', 'timing'],
    ['gauge-stability', 'gauge-stability'],
  ] as const)('names %s where that is what dominates', (source, part) => {
    const wide: Estimate = {
      value: 9.5,
      components: [
        { source, standard: 0.6, random: false },
        { source: 'gauge-gain', standard: 0.1, random: false },
      ],
    };
    expect(decide(wide, upTo(10), 'guarded')).toEqual({ kind: 'undecided', remedies: [{ kind: 'know-better', part }] });
  });

  it('asks for no gauge that nobody has', () => {
    const hopeless: Estimate = { value: 9.99, components: [{ source: 'gauge-gain', standard: 0.5, random: false }] };
    expect(decide(hopeless, upTo(10), 'guarded')).toEqual({ kind: 'undecided', remedies: [{ kind: 'at-the-limit' }] });
  });

  it('asks for a better gauge where repeats cannot help', () => {
    const systematic: Estimate = { value: 9.5, components: [{ source: 'gauge-gain', standard: 0.5, random: false }] };
    const undecided = decide(systematic, upTo(10), 'guarded');
    expect(undecided).toEqual({ kind: 'undecided', remedies: [{ kind: 'better-gauge', factor: 2 }] });
  });
});

describe('repeats', () => {
  const repeat = (value: number): Characteristic[] => [
    {
      kind: 'measured',
      id: 'boost-slope',
      estimate: {
        value,
        components: [
          { source: 'fit', standard: 0.2, random: true },
          { source: 'pair-gain', standard: 0.1, random: false },
        ],
      },
    },
  ];

  it('average the value, shrink the random part and keep the systematic one', () => {
    const { characteristics, differing } = combineRepeats([repeat(3), repeat(3.2), repeat(3.1), repeat(3.1)]);
    const [combined] = characteristics;
    if (combined.kind !== 'measured') throw new Error('expected a value');
    expect(combined.estimate.value).toBeCloseTo(3.1, 12);
    expect(combined.estimate.components.map((part) => [part.source, part.standard])).toEqual([
      ['fit', expect.closeTo(0.1, 12)],
      ['pair-gain', expect.closeTo(0.1, 12)],
      ['repeats', 0],
    ]);
    expect(differing).toEqual([]);
  });

  it('few that scatter say less of it than many: k follows their number', () => {
    const widening = (values: readonly number[]) => {
      const [combined] = combineRepeats(values.map(repeat)).characteristics;
      if (combined.kind !== 'measured') throw new Error('expected a value');
      return expandedUncertainty(combined.estimate) / combinedStandard(combined.estimate);
    };
    expect(widening([3.1, 3.1])).toBeCloseTo(2, 2);
    expect(widening([2.6, 3.6])).toBeGreaterThan(widening([2.6, 3.6, 2.6, 3.6]));
    expect(widening([2.6, 3.6, 2.6, 3.6])).toBeGreaterThan(2.2);
    expect(widening(Array.from({ length: 40 }, (_, i) => (i % 2 ? 2.6 : 3.6)))).toBeCloseTo(2, 1);
  });

  it('that scatter by more than their noise widen U, and that differ beyond it differ', () => {
    const scattered = combineRepeats([repeat(3), repeat(3.6), repeat(2.6), repeat(3.2)]);
    const [combined] = scattered.characteristics;
    if (combined.kind !== 'measured') throw new Error('expected a value');
    // Type A: s/√n = 0.4163/2, of which 0.1 is the fits' own.
    expect(combined.estimate.components[2]).toMatchObject({ source: 'repeats', standard: expect.closeTo(0.1826, 3) });
    expect(combineRepeats([repeat(3), repeat(11)]).differing.map(({ problem }) => problem)).toEqual([
      { code: 'repeats-differ', characteristic: 'boost-slope', by: 8 },
    ]);
  });

  it('of a gauge and a dial, whose parts stand in another order, are combined by where each part comes from', () => {
    const part = (source: 'fit' | 'gauge-gain' | 'resolution', standard: number) => ({
      source,
      standard,
      random: source === 'fit',
    });
    const of = (...components: readonly ReturnType<typeof part>[]): Characteristic[] => [
      { kind: 'measured', id: 'boost-slope', estimate: { value: 3, components } },
    ];
    const live = of(part('fit', 0.4), part('gauge-gain', 0.1));
    const dialled = of(part('gauge-gain', 0.3), part('resolution', 0.2));
    const [combined] = combineRepeats([live, dialled]).characteristics;
    if (combined.kind !== 'measured') throw new Error('expected a value');
    expect(Object.fromEntries(combined.estimate.components.map(({ source, standard }) => [source, standard]))).toEqual({
      fit: expect.closeTo(0.4 / 2, 12),
      'gauge-gain': expect.closeTo(Math.sqrt((0.1 ** 2 + 0.3 ** 2) / 2), 12),
      resolution: expect.closeTo(0.2 / Math.SQRT2, 12),
      repeats: 0,
    });
  });

  const ended = (code: 'no-boost' | 'not-read'): Characteristic[] => [
    { kind: 'absent', id: 'boost-slope', problem: { code } },
  ];
  const bounded = (side: 'above' | 'below', value: number): Characteristic[] => [
    { kind: 'beyond', id: 'boost-slope', side, bound: estimate(value, 0.1), problem: { code: 'not-read' } },
  ];

  it('of which one ended in a finding are no silent pass, and one that was not read says nothing', () => {
    const [{ problem }] = combineRepeats([repeat(3), ended('no-boost')]).differing;
    expect(problem).toEqual({ code: 'repeats-end-differently', characteristic: 'boost-slope' });
    expect(combineRepeats([ended('not-read'), repeat(3)])).toEqual({ characteristics: repeat(3), differing: [] });
  });

  it('that found a bound agree with a number on its side of it, and contradict one on the other', () => {
    expect(combineRepeats([repeat(3), bounded('above', 2)])).toEqual({ characteristics: repeat(3), differing: [] });
    const [{ problem }] = combineRepeats([bounded('above', 9), repeat(3)]).differing;
    expect(problem).toEqual({ code: 'repeats-differ', characteristic: 'boost-slope', by: 6 });
  });

  it('come to the same in whatever order they were kept', () => {
    const figure = fc.double({ min: 0, max: 10, noNaN: true });
    const parts = fc.array(
      fc.record({
        source: fc.constantFrom('fit', 'noise', 'gauge-gain', 'resolution', 'pair-offset'),
        standard: fc.double({ min: 0.001, max: 2, noNaN: true }),
        random: fc.boolean(),
      }),
      { maxLength: 4 },
    );
    const one: fc.Arbitrary<Characteristic[]> = fc.oneof(
      fc
        .record({ value: figure, components: parts })
        .map((each): Characteristic[] => [{ kind: 'measured', id: 'boost-slope', estimate: each as Estimate }]),
      fc.tuple(fc.constantFrom('above', 'below'), figure).map(([side, value]) => bounded(side, value)),
      fc.constantFrom('no-boost', 'not-read').map(ended),
    );
    const both = fc
      .array(one, { minLength: 1, maxLength: 5 })
      .chain((repeats) =>
        fc.tuple(
          fc.constant(repeats),
          fc.shuffledSubarray(repeats, { minLength: repeats.length, maxLength: repeats.length }),
        ),
      );
    fc.assert(
      fc.property(both, ([kept, shuffled]) => {
        const said = (of: typeof kept) => {
          const { characteristics, differing } = combineRepeats(of);
          const [only] = characteristics;
          if (only.kind === 'absent') return [only.problem, differing.map(({ problem }) => problem)];
          const { value, components } = only.kind === 'measured' ? only.estimate : only.bound;
          const u = components.reduce((sum, { standard }) => sum + standard ** 2, 0);
          return [only.kind, value.toPrecision(12), u.toPrecision(9), differing.map(({ problem }) => problem.code)];
        };
        expect(said(shuffled)).toEqual(said(kept));
      }),
    );
  });
});

describe('verdict of a step and a unit', () => {
  const bound: Characteristic = {
    kind: 'beyond',
    id: 'switch-close-pressure',
    side: 'above',
    bound: estimate(1000, 10),
    problem: { code: 'switch-never-closed', peak: 1000 },
  };
  const limit = (high: number) => ({
    characteristic: 'switch-close-pressure' as const,
    low: null,
    high,
    expected: null,
    standard: 0,
    source: { kind: 'workshop' as const, key: 'switchCloseMax' as const },
  });

  it('a bound beyond the limit fails, a bound short of it decides nothing', () => {
    expect(stepVerdict(judgeStep([bound], [limit(800)], 'guarded'))).toBe('fail');
    expect(stepVerdict(judgeStep([bound], [limit(1200)], 'guarded'))).toBe('undecided');
  });

  it('a step without limits is recorded', () => {
    expect(stepVerdict([])).toBe('recorded');
  });

  it('a look counts once every point has a finding, and one unfit point fails it', () => {
    const look = kindNamed('vacuum-remote').steps.find((step) => step.id === 'leak-look') as LookStep;
    const dry = Object.fromEntries(look.feeds.look.points.map((point) => [point.id, 'dry']));
    expect(lookVerdict(look, dry)).toBe('recorded');
    expect(lookVerdict(look, { ...dry, 'end-cap': 'dripping' })).toBe('fail');
    expect(lookVerdict(look, { 'end-cap': 'dry' })).toBe('not-run');
  });

  it('fail comes before incomplete, incomplete before undecided', () => {
    const step = (verdict: 'pass' | 'fail' | 'undecided' | 'recorded' | 'not-run', optional = false) => ({
      verdict,
      optional,
    });
    expect(unitVerdict([step('fail'), step('not-run')])).toBe('fail');
    expect(unitVerdict([step('undecided'), step('not-run')])).toBe('incomplete');
    expect(unitVerdict([step('undecided'), step('not-run', true)])).toBe('undecided');
    expect(unitVerdict([step('pass'), step('recorded')])).toBe('pass');
  });
});
