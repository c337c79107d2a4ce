import type { RecoveryCase } from '../../../../../scripts/studies/boost-curve-recovery';
import { study as runStudy } from '../../../../../tests/support/study';
import { sized } from '../../../../../tests/support/study-size';

type Bounds = Readonly<Record<string, { readonly kind: 'relative' | 'absolute'; readonly most: number }>>;

/** Root-mean-square error that must hold, per characteristic: relative, or absolute in Pa. */
const common: Bounds = {
  'run-out-input': { kind: 'relative', most: 0.03 },
  'cut-in-pressure': { kind: 'absolute', most: 25_000 },
  hysteresis: { kind: 'relative', most: 0.15 },
};

interface Study {
  readonly title: string;
  readonly layout: 'in-line' | 'servo';
  readonly bounds: Bounds;
  readonly seeds: number;
  /** First geometry of each process. */
  readonly firsts: readonly number[];
  readonly each: number;
}

const seeds = sized(120, 200);

const studies: readonly Study[] = [
  {
    title: 'a slave piston in the line, over 4 geometries',
    layout: 'in-line',
    bounds: {
      'boost-ratio': { kind: 'relative', most: 0.01 },
      'boost-slope': { kind: 'relative', most: 0.02 },
      ...common,
    },
    seeds,
    firsts: [0, 2],
    each: 2,
  },
  {
    title: 'a servo cylinder, over 2 geometries',
    layout: 'servo',
    bounds: {
      'servo-force': { kind: 'relative', most: 0.01 },
      'servo-slope': { kind: 'relative', most: 0.02 },
      ...common,
    },
    // Of two geometries fewer would not tell a coverage to two in a hundred.
    seeds: 200,
    firsts: [0, 1],
    each: 1,
  },
];

/** Two processes: the machine has two cores. */
async function casesOf({ layout, firsts, each, seeds }: Study): Promise<RecoveryCase[]> {
  const parts = await Promise.all(
    firsts.map((first) => runStudy<RecoveryCase[]>('boost-curve-recovery', layout, first, each, seeds)),
  );
  return parts.flat();
}

describe.each(studies)('boost curve against the model’s truth: $title', (study) => {
  const { bounds } = study;
  let cases: RecoveryCase[] = [];
  beforeAll(async () => {
    cases = await casesOf(study);
  }, 600_000);

  it('prints what was found', () => {
    const rows = Object.keys(bounds).map((id) => {
      const of = cases.filter((each) => each.characteristic === id);
      const rms = rootMeanSquare(of.map((each) => each.value - each.truth));
      const relative = rootMeanSquare(of.map((each) => each.value / each.truth - 1));
      return `${id.padEnd(16)} n ${of.length}   rms ${rms.toPrecision(3).padStart(9)}   rms % ${(100 * relative).toFixed(3)}   U covers ${(100 * coverage(of)).toFixed(1)} %`;
    });
    process.stdout.write(`\n${study.title}\n${rows.join('\n')}\n`);
    expect(cases).toHaveLength(study.seeds * study.firsts.length * study.each * Object.keys(bounds).length);
  });

  it.each(Object.entries(bounds))('%s is recovered', (id, { kind, most }) => {
    const of = cases.filter((each) => each.characteristic === id);
    const errors = of.map((each) => (kind === 'relative' ? each.value / each.truth - 1 : each.value - each.truth));
    expect(rootMeanSquare(errors)).toBeLessThan(most);
  });

  it.each(Object.keys(bounds))('stated U of %s covers the truth in 93–97 % of cases', (id) => {
    const share = coverage(cases.filter((each) => each.characteristic === id));
    expect(share).toBeGreaterThanOrEqual(0.93);
    expect(share).toBeLessThanOrEqual(0.97);
  });
});

function rootMeanSquare(values: readonly number[]): number {
  return Math.sqrt(values.reduce((sum, value) => sum + value * value, 0) / values.length);
}

function coverage(cases: readonly RecoveryCase[]): number {
  return cases.filter((each) => Math.abs(each.value - each.truth) <= each.expanded).length / cases.length;
}
