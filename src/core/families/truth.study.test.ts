import { labelledSeed } from '../physics/random';
import { full } from '../../../tests/support/study-size';
import { compareWithTruth, everyCase, held, type Compared } from '../../../tests/support/truth-bench';

/* As `truth.test.ts`, with the steps of every fault that do not tell it (of every fifth of them with each change), and the coverage of each figure. */

const byFigure = new Map<string, Compared[]>();

describe('what a step finds is what is true, whatever the fault', () => {
  it.each(everyCase.filter((_, at) => full || at % 5 === 0))('%s', (_name, kind, plan, fault) => {
    const compared = compareWithTruth(kind, plan, fault, {
      steps: 'others',
      // Another bench for every fault: one gauge that is a little off would be so in all of them.
      bench: labelledSeed(6, fault?.id ?? 'sound'),
    });
    expect(held(compared).far).toEqual([]);
    for (const each of compared) {
      const key = `${kind.family} ${kind.value} ${each.what}`;
      byFigure.set(key, [...(byFigure.get(key) ?? []), each]);
    }
  });

  it('of every figure most lie within U', () => {
    const seldom = [...byFigure].filter(([, all]) => all.length >= 6 && held(all).within < all.length / 2);
    expect(seldom.map(([figure]) => figure)).toEqual([]);
  });
});
