import { showFault } from '../../../tests/support/fault-bench';
import { full } from '../../../tests/support/study-size';
import { families } from '.';

const everyFault = families.flatMap((family) => {
  const layouts = family.kinds;
  const ids = new Set(layouts.flatMap((each) => each.model.faults.map((fault) => fault.id)));
  return [...ids].map((id) => [family.id, id, layouts] as const);
});

describe('what is said of a fault is what its model does, in the steps that the words name', () => {
  it.each(everyFault)('%s: %s', (_family, id, layouts) => {
    const { told, failed, notLeft } = showFault(layouts, id, 'told-steps');
    expect({ failed, notLeft }).toEqual({ failed: told, notLeft: [] });
    expect(told.length).toBeGreaterThan(0);
  });
});

// Every sixth of them with each change: each runs the better part of all plans of its family.
describe('a fault fails no step of any plan that it is not told of', () => {
  it.each(everyFault.filter((_, at) => full || at % 6 === 1))('%s: %s', (_family, id, layouts) => {
    expect(showFault(layouts, id, 'other-steps').failed).toEqual([]);
  });
});
