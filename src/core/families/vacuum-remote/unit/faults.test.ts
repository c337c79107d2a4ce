import { faultBench, measuredValue } from '../../../../../tests/support/fault-bench';
import { inLineSlave } from '../in-line-slave';

describe('faults of a remote vacuum unit show as the trade knows them', () => {
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
