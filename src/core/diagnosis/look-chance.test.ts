import fc from 'fast-check';
import { inOrderOptions, leakOptions } from '../procedure/look-step';
import { lookFindsUnlisted } from './chances';
import { lookChance } from './look-chance';

describe('what a look finds', () => {
  it('is one of its options, whatever is there', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(inOrderOptions, leakOptions),
        fc.constantFrom(undefined, 0, 1, 2),
        fc.boolean(),
        (options, shown, unlisted) => {
          const anyway = unlisted ? lookFindsUnlisted : undefined;
          const all = options.map(({ id }) =>
            lookChance(options, id, shown === undefined ? undefined : options[shown].id, anyway),
          );
          expect(all.reduce((sum, each) => sum + each, 0)).toBeCloseTo(1, 9);
        },
      ),
    );
  });

  it('that fails is hardly ever seen where nothing is wrong, what is worth a note now and then', () => {
    const sound = (id: string) => lookChance(inOrderOptions, id, undefined);
    expect(sound('unfit')).toBeLessThan(sound('note') / 3);
    expect(lookChance(inOrderOptions, 'unfit', 'unfit') / sound('unfit')).toBeGreaterThan(50);
  });
});
