import fc from 'fast-check';
import {
  ampacityAt,
  areaForDrop,
  copperResistivity,
  defaultAmpacities,
  planWiring,
  standardFuses,
} from './wire-and-fuse';

const asked = {
  current: 40,
  average: null,
  length: 2.2,
  drop: 0.5,
  feedDropMax: 0.5,
  groundDropMax: 0.2,
  temperatureC: 60,
};

describe('wire and fuse of a feed', () => {
  it('40 A over 2.2 m at 60 °C with 0.5 V to lose is 7.02 mm², taken as 10 mm², behind 40 A', () => {
    expect(copperResistivity(60)).toBeCloseTo(1.995e-8, 11);
    expect(areaForDrop(40, 2.2, 0.5, 60) * 1e6).toBeCloseTo(7.02, 2);
    const plan = planWiring({ ...asked, groundDropMax: 0.25 });
    if (plan.kind !== 'plan') throw new Error('there is a plan');
    expect(plan.area).toBe(10);
    expect(plan.loss).toBeCloseTo(0.351, 3);
    expect(plan.lossEachSide).toBeCloseTo(0.176, 3);
    expect(plan.ampacity).toBeCloseTo(50.3, 1);
    expect(plan).toMatchObject({ average: 28, averageAssumed: true, fuse: 40, decidedBy: 'drop' });
  });

  it('a ground that may lose 0.2 V is what decides: half of the loop is its own', () => {
    const plan = planWiring(asked);
    expect(plan.neededArea).toBeCloseTo(7.02 * (0.5 / 0.4), 1);
    if (plan.kind === 'plan') expect(plan.lossEachSide).toBeLessThanOrEqual(0.2);
  });

  it('never a fuse above what the wire carries nor below the load, never a loss above what was allowed', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 90, noNaN: true }),
        fc.double({ min: 0.2, max: 15, noNaN: true }),
        fc.double({ min: 0.05, max: 2, noNaN: true }),
        fc.double({ min: -40, max: 104, noNaN: true }),
        fc.option(fc.double({ min: 0.05, max: 1, noNaN: true }), { nil: null }),
        (current, length, drop, temperatureC, share) => {
          const average = share === null ? null : share * current;
          const plan = planWiring({
            current,
            average,
            length,
            drop,
            feedDropMax: 0.5,
            groundDropMax: 0.2,
            temperatureC,
          });
          if (plan.kind === 'none') {
            const thickest = defaultAmpacities[defaultAmpacities.length - 1];
            const load = 1.25 * (average ?? 0.7 * current);
            const fuse = standardFuses.find((each) => each >= load) ?? Infinity;
            expect(plan.neededArea > thickest[0] || fuse > ampacityAt(thickest[1], temperatureC)).toBe(true);
            return;
          }
          expect(plan.fuse).toBeGreaterThanOrEqual(1.25 * (average ?? 0.7 * current) - 1e-9);
          expect(plan.fuse).toBeLessThanOrEqual(plan.ampacity);
          expect(standardFuses).toContain(plan.fuse);
          expect(plan.loss).toBeLessThanOrEqual(Math.min(drop, 0.4) * (1 + 1e-9));
          expect(plan.area).toBeGreaterThanOrEqual(plan.neededArea);
          // No thinner one that is sold would have done.
          for (const [area, at30] of defaultAmpacities)
            if (area < plan.area)
              expect(area < plan.neededArea || ampacityAt(at30, temperatureC) < plan.fuse).toBe(true);
        },
      ),
      { numRuns: 3000 },
    );
  });

  it('says when nothing that is sold will do', () => {
    expect(planWiring({ ...asked, length: 40 })).toMatchObject({ kind: 'none', because: 'drop' });
    expect(planWiring({ ...asked, average: 75 })).toMatchObject({ kind: 'none', because: 'fuse' });
    expect(planWiring({ ...asked, temperatureC: 105 })).toMatchObject({ kind: 'none', because: 'too-hot' });
  });
});
