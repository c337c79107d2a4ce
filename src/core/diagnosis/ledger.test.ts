import { kindNamed } from '../families';
import { exampleBench } from '../../../tests/support/varied-bench';
import { displayUnits } from '../wording/display';
import { extentText } from '../wording/ledger-text';
import { extentOf } from './ledger';

const kind = kindNamed('vacuum-remote');
const { unit } = exampleBench(kind, 'bench').context;
const over = (shares: readonly number[]) =>
  shares.map((share, at) => ({ severities: [0.1 + (0.9 * at) / (shares.length - 1)], share }));

describe('how much of a fault there is', () => {
  it('is given once something that was measured narrows it, with a U that covers what is left open', () => {
    const known = extentOf(kind, unit, 'vacuum-valve-leak', over([0, 0.2, 0.6, 0.2, 0]), 0);
    expect(known?.sound).toBe(0);
    expect(known!.value).toBeGreaterThan(known!.expanded);
    expect(extentOf(kind, unit, 'vacuum-valve-leak', over([0.2, 0.2, 0.2, 0.2, 0.2]), 0)).toBeNull();
  });

  it('is only said to be more where it lies at the end of what was tried', () => {
    const leak = (shares: readonly number[]) => extentOf(kind, unit, 'vacuum-valve-leak', over(shares), 0)!;
    const [most, inside] = [
      leak([0, 0, 0, 0, 0, 0, 0, 0, 0.02, 0.08, 0.9]),
      leak([0, 0, 0, 0, 0, 0, 0, 0.2, 0.6, 0.2, 0]),
    ];
    expect(most).toMatchObject({ tells: 'more-than', expanded: 0 });
    // More than what it is more than nineteen times in twenty; not than all that was tried.
    const whole = leak([0, 0, 0, 0, 0, 0, 0, 0, 0, 0.01, 0.99]).value;
    expect(most.value).toBeLessThan(whole);
    expect(most.value).toBeGreaterThan(0.8 * whole);
    expect(inside.tells).toBe('about');
    expect(extentText(most, displayUnits('kpa'))).toMatch(/: more than \d[^±]*$/);
  });

  it('is not given of a fault that shows the same however severe it is', () => {
    // A switch that never closes within the pull does not say how much too late it would.
    expect(extentOf(kind, unit, 'switch-out-of-range', [{ severities: [1], share: 1 }], 0)).toBeNull();
  });
});
