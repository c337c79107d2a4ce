import { decide } from '../../judging/decide';
import { ambientFrom } from '../../quantities/standard-atmosphere';
import { defaultWorkshopSchools } from '../../procedure/workshop-limits';
import type { StepContext } from '../../procedure/step-context';
import { vacuumRows } from './rows';
import { leastVacuumLimits } from './source-vacuum-analysis';

const limitAt = (site: { altitude?: number; barometer?: number }) => {
  const context = {
    workshopLimits: vacuumRows.limits,
    schools: defaultWorkshopSchools,
    ambient: ambientFrom(site),
  } as StepContext<unknown>;
  return leastVacuumLimits(['idle-vacuum'], 'manifold', context)[0];
};
const reading = (value: number) =>
  ({ value, components: [{ source: 'gauge-zero', standard: 300, random: false }] }) as const;

describe('least source vacuum, restated for the air', () => {
  it('is 16 inHg at the sea and 11.3 at 1,420 m for an idling engine', () => {
    expect(limitAt({ barometer: 101_325 }).low! / 3386.389).toBeCloseTo(16, 3);
    expect(limitAt({ altitude: 1420 }).low! / 3386.389).toBeCloseTo(11.3, 1);
  });

  it('a reading near it is undecided until somebody says how high the workshop lies', () => {
    const near = limitAt({}).low! + 4_000;
    expect(decide(reading(near), limitAt({}), 'guarded')).toEqual({
      kind: 'undecided',
      remedies: [{ kind: 'know-better', part: 'limit' }],
    });
    expect(decide(reading(near), limitAt({ barometer: 101_325 }), 'guarded').kind).toBe('pass');
  });
});
