import { labelledSeed } from '../physics/random';
import { compareWithTruth, everyCase, held } from '../../../tests/support/truth-bench';

/*
 * Of every kind, plan and fault: what the steps find lies within what they say of themselves of what the model knows. The model's truth
 * is worked out of unit and condition, never out of a trace. Of a fault the steps that tell it are run; the study runs them all.
 */

let [within, of] = [0, 0];
const figures = new Set<string>();

describe('what a step finds is what is true', () => {
  it.each(everyCase)('%s', (_name, kind, plan, fault) => {
    // Another bench for every fault: one gauge that is a little off would be so in all of them.
    const bench = labelledSeed(6, fault?.id ?? 'sound');
    const compared = compareWithTruth(kind, plan, fault, { steps: 'that-tell', bench });
    const counted = held(compared);
    expect(counted.far).toEqual([]);
    within += counted.within;
    of += compared.length;
    for (const { what } of compared) figures.add(`${kind.family} ${kind.value} ${what}`);
  });

  it('a reserve that soaks behind a check valve that leaks a little loses just that', () => {
    const leaks = everyCase.find(([name]) => name === 'Ullerby P25, vehicle: check-valve-leak')!;
    const [, kind, plan, fault] = leaks;
    const soak = compareWithTruth(kind, plan, fault, { steps: 'all', severity: 0 }).find(
      ({ what }) => what === 'reserve-soak soak-loss',
    )!;
    expect(soak.truth).toBeGreaterThan(5_000);
    expect(Math.abs(soak.found - soak.truth)).toBeLessThan(soak.expanded);
  });

  it('and U covers it as often as it says', () => {
    expect(of).toBeGreaterThan(500);
    expect(figures.size).toBeGreaterThan(120);
    expect(within / of).toBeGreaterThan(0.95);
  });
});
