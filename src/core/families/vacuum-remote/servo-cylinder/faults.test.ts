import { faultBench, itShowsAsTold, measuredValue, type Signature } from '../../../../../tests/support/fault-bench';
import { servoCylinder } from '.';

const signatures: readonly Signature[] = [
  { id: 'power-diaphragm-leak', severity: 0.8, fails: ['vacuum-hold-applied'], holds: ['vacuum-hold-rest'] },
  { id: 'atmosphere-valve-leak', severity: 0.9, fails: ['vacuum-hold-rest'], holds: ['pressure-hold'] },
  { id: 'vacuum-valve-leak', severity: 0.8, fails: ['vacuum-hold-applied'], holds: ['vacuum-hold-rest'] },
  {
    id: 'control-piston-sticking',
    severity: 0.7,
    fails: ['boost-curve'],
    holds: ['vacuum-hold-rest', 'pressure-hold'],
  },
  {
    id: 'control-piston-seal-leak',
    severity: 0.6,
    fails: ['low-pressure-hold', 'pressure-hold'],
    holds: ['vacuum-hold-rest', 'boost-curve'],
  },
  { id: 'breather-restricted', severity: 0.5, fails: [], holds: ['vacuum-hold-rest', 'pressure-hold'] },
  { id: 'supply-hose-collapsed', severity: 1, fails: [], holds: ['pressure-hold', 'vacuum-hold-rest'] },
  { id: 'switch-out-of-range', severity: 0.5, fails: ['stop-lamp-switch'], holds: ['boost-curve', 'pressure-hold'] },
  {
    id: 'reservoir-leak',
    severity: 0.9,
    fails: ['vacuum-hold-rest', 'vacuum-hold-applied'],
    holds: ['pressure-hold', 'low-pressure-hold'],
  },
  { id: 'return-spring-weak', severity: 0.8, fails: ['release'], holds: ['vacuum-hold-rest', 'pressure-hold'] },
  {
    id: 'external-hydraulic-leak',
    severity: 0.6,
    fails: ['low-pressure-hold', 'pressure-hold'],
    holds: ['vacuum-hold-rest'],
  },
  { id: 'power-piston-friction', severity: 0.6, fails: ['boost-curve'], holds: ['vacuum-hold-rest', 'pressure-hold'] },
];

describe('faults of a servo cylinder show as the trade knows them', () => {
  itShowsAsTold(servoCylinder, signatures);

  it('a leaking reservoir leaks the same flow at rest and applied', () => {
    const steps = faultBench(servoCylinder)([{ id: 'reservoir-leak', severity: 0.5 }]);
    const atRest = measuredValue(steps['vacuum-hold-rest'], 'leak-flow');
    const applied = measuredValue(steps['vacuum-hold-applied'], 'leak-flow');
    expect(applied / atRest).toBeGreaterThan(0.85);
    expect(applied / atRest).toBeLessThan(1.15);
  });
});
