import { faultBench, measuredValue } from '../../../../../tests/support/fault-bench';
import { servoCylinder } from '.';

describe('faults of a servo cylinder show as the trade knows them', () => {
  it('a leaking reservoir leaks the same flow at rest and applied', () => {
    const steps = faultBench(servoCylinder)([{ id: 'reservoir-leak', severity: 0.5 }]);
    const atRest = measuredValue(steps['vacuum-hold-rest'], 'leak-flow');
    const applied = measuredValue(steps['vacuum-hold-applied'], 'leak-flow');
    expect(applied / atRest).toBeGreaterThan(0.85);
    expect(applied / atRest).toBeLessThan(1.15);
  });
});
