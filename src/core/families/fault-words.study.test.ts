import { showFault } from '../../../tests/support/fault-bench';
import { families, layoutsOf } from '.';

const everyFault = families.flatMap((family) => {
  const layouts = layoutsOf(family);
  const ids = new Set(layouts.flatMap((each) => each.faults.map((fault) => fault.id)));
  return [...ids].map((id) => [family.id, id, layouts] as const);
});

describe('every step of every plan that a fault fails is told of', () => {
  it.each(everyFault)('%s: %s', (_family, id, layouts) => {
    const { told, failed, notLeft } = showFault(layouts, id, 'every-step');
    expect({ failed, notLeft }).toEqual({ failed: told, notLeft: [] });
    expect(told.length).toBeGreaterThan(0);
  });
});
