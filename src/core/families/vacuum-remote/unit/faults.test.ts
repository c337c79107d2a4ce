import { faultBench, itShowsAsTold, measuredValue, type Signature } from '../../../../../tests/support/fault-bench';
import { inLineSlave } from '../in-line-slave';

const signatures: readonly Signature[] = [
  {
    id: 'power-diaphragm-leak',
    severity: 0.6,
    fails: ['vacuum-hold-applied'],
    holds: ['vacuum-hold-rest', 'pressure-hold'],
  },
  {
    id: 'atmosphere-valve-leak',
    severity: 0.6,
    fails: ['vacuum-hold-rest'],
    holds: ['low-pressure-hold', 'pressure-hold'],
  },
  {
    id: 'vacuum-valve-leak',
    severity: 0.8,
    fails: ['vacuum-hold-applied', 'boost-curve'],
    holds: ['vacuum-hold-rest'],
  },
  {
    id: 'control-piston-sticking',
    severity: 0.7,
    fails: ['boost-curve'],
    holds: ['vacuum-hold-rest', 'pressure-hold'],
  },
  {
    id: 'slave-piston-seal-bypass',
    severity: 0.6,
    fails: ['pressure-hold'],
    holds: ['low-pressure-hold', 'boost-curve'],
  },
  { id: 'bypass-check-leak', severity: 0.6, fails: ['boost-curve', 'pressure-hold'], holds: ['vacuum-hold-rest'] },
  { id: 'bypass-check-blocked', severity: 0.6, fails: ['gauge-agreement', 'release'], holds: ['vacuum-hold-rest'] },
  { id: 'return-spring-weak', severity: 0.8, fails: ['release'], holds: ['vacuum-hold-rest', 'pressure-hold'] },
  {
    id: 'external-hydraulic-leak',
    severity: 0.6,
    fails: ['low-pressure-hold', 'pressure-hold'],
    holds: ['vacuum-hold-rest'],
  },
  { id: 'power-piston-friction', severity: 0.6, fails: ['boost-curve'], holds: ['vacuum-hold-rest', 'pressure-hold'] },
  { id: 'supply-hose-collapsed', severity: 1, fails: [], holds: ['pressure-hold', 'vacuum-hold-rest'] },
  { id: 'breather-restricted', severity: 0.5, fails: [], holds: ['vacuum-hold-rest', 'pressure-hold', 'boost-curve'] },
  { id: 'control-piston-seal-leak', severity: 0.6, fails: [], holds: ['vacuum-hold-rest'] },
  { id: 'rod-seal-leak', severity: 0.6, fails: [], holds: ['vacuum-hold-rest'] },
  { id: 'switch-out-of-range', severity: 0.5, fails: ['stop-lamp-switch'], holds: ['boost-curve', 'pressure-hold'] },
];

describe('faults of a remote vacuum unit show as the trade knows them', () => {
  itShowsAsTold(inLineSlave, signatures);

  const evaluateWith = faultBench(inLineSlave);

  it('a leaking control piston seal or rod seal lets the input fall in a hold', () => {
    for (const id of ['control-piston-seal-leak', 'rod-seal-leak'])
      expect(measuredValue(evaluateWith([{ id, severity: 0.6 }])['pressure-hold'], 'input-creep')).toBeLessThan(-500);
  });

  it('a collapsed hose sags the supply at the unit', () => {
    const sag = (faults: Parameters<typeof evaluateWith>[0]) =>
      measuredValue(evaluateWith(faults)['boost-curve'], 'supply-sag');
    expect(sag([{ id: 'supply-hose-collapsed', severity: 1 }])).toBeGreaterThan(10 * Math.max(30, sag([])));
  });
});
