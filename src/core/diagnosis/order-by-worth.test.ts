import fc from 'fast-check';
import type { NextTest, Worth } from './next-test';
import { orderByWorth } from './order-by-worth';

const plan = ['look', 'dead', 'charge', 'hold', 'curve', 'dead-after'];
const worth = (step: string, before: readonly string[] = []): Worth => ({
  step,
  before,
  minutes: 2,
  gain: 0.4,
  between: [{ kind: 'no-fault' }, { kind: 'not-in-this-list' }],
});
const test = (...worths: [Worth, ...Worth[]]): NextTest => ({
  kind: 'test',
  worth: worths[0],
  others: worths.slice(1),
});

describe('a run sheet in the order of what its steps tell', () => {
  it('has what is done first, then what tells most, then what a release wants', () => {
    expect(orderByWorth(plan, new Set(['look']), test(worth('curve'), worth('hold')))).toEqual([
      'look',
      'curve',
      'hold',
      'dead',
      'charge',
      'dead-after',
    ]);
  });

  it('puts before a step what has to be done before it, once', () => {
    expect(
      orderByWorth(plan, new Set(), test(worth('charge', ['dead']), worth('curve', ['dead', 'charge']))).slice(0, 3),
    ).toEqual(['dead', 'charge', 'curve']);
  });

  it('is the plan’s own where nothing is to be found out any more', () => {
    expect(orderByWorth(plan, new Set(), { kind: 'certain', hypothesis: { kind: 'no-fault' } })).toEqual(plan);
    expect(orderByWorth(plan, new Set(), { kind: 'finish-plan', step: 'hold', minutes: 3 })).toEqual(plan);
  });

  it('loses no step and doubles none, whatever is done and worth it', () => {
    const some = fc.subarray(plan, { minLength: 1 });
    fc.assert(
      fc.property(some, some, some, (done, telling, before) => {
        const [first, ...rest] = telling.map((step) =>
          worth(
            step,
            before.filter((each) => each !== step),
          ),
        );
        const ordered = orderByWorth(plan, new Set(done), test(first, ...rest));
        expect([...ordered].sort()).toEqual([...plan].sort());
      }),
    );
  });
});
