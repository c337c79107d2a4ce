import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import type { RecoveryCase } from '../../../../scripts/studies/boost-curve-recovery';

const run = promisify(execFile);

/** Root-mean-square error that must hold, per characteristic: relative, or absolute in Pa. */
const bounds: Readonly<Record<string, { readonly kind: 'relative' | 'absolute'; readonly most: number }>> = {
  'boost-ratio': { kind: 'relative', most: 0.01 },
  'boost-slope': { kind: 'relative', most: 0.02 },
  'run-out-input': { kind: 'relative', most: 0.03 },
  'cut-in-pressure': { kind: 'absolute', most: 25_000 },
  hysteresis: { kind: 'relative', most: 0.15 },
};

const seedsPerGeometry = 200;

/** Two processes, two geometries each: the machine has two cores. */
async function study(): Promise<RecoveryCase[]> {
  const parts = await Promise.all(
    [0, 2].map((first) =>
      run(
        process.execPath,
        ['--import', 'tsx', 'scripts/studies/boost-curve-recovery.ts', String(first), '2', String(seedsPerGeometry)],
        { maxBuffer: 1e8 },
      ),
    ),
  );
  return parts.flatMap(({ stdout }) => JSON.parse(stdout) as RecoveryCase[]);
}

describe('boost curve against the model’s truth, over 200 seeds and 4 geometries', () => {
  let cases: RecoveryCase[] = [];
  beforeAll(async () => {
    cases = await study();
  }, 600_000);

  it('prints what was found', () => {
    const rows = Object.keys(bounds).map((id) => {
      const of = cases.filter((each) => each.characteristic === id);
      const rms = rootMeanSquare(of.map((each) => each.value - each.truth));
      const relative = rootMeanSquare(of.map((each) => each.value / each.truth - 1));
      return `${id.padEnd(16)} n ${of.length}   rms ${rms.toPrecision(3).padStart(9)}   rms % ${(100 * relative).toFixed(3)}   U covers ${(100 * coverage(of)).toFixed(1)} %`;
    });
    process.stdout.write(`\n${rows.join('\n')}\n`);
    expect(cases).toHaveLength(seedsPerGeometry * 4 * Object.keys(bounds).length);
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
