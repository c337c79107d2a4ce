import * as fc from 'fast-check';
import { airThroughGap, airThroughHole, leftBy, proportional, throughHole } from './leak-laws';

const outside = 101_325;

describe('what a leak that does not change leaves', () => {
  it('of an exponential is the exponential', () => {
    const left = leftBy(proportional, { from: 60e3, to: 60e3 * Math.exp(-2), span: 200 }, 50);
    expect(left).toBeCloseTo(60e3 * Math.exp(-0.5), 3);
  });

  it('through a hole falls evenly while the flow is choked', () => {
    // From 80 to 60 kPa of vacuum the pressure inside stays below 0.528 of the air outside.
    const ends = { from: 80e3, to: 60e3, span: 100 };
    expect(leftBy(airThroughHole(outside), ends, 25)).toBeCloseTo(75e3, -1);
    expect(leftBy(airThroughHole(outside), ends, 50)).toBeCloseTo(70e3, -1);
  });

  it('of oil through a hole falls with the square of the time that is left', () => {
    // √P is a straight line in time: from 1 to 0.25 MPa in 100 s it would be gone in 200 s.
    expect(leftBy(throughHole, { from: 1e6, to: 0.25e6, span: 100 }, 150)).toBeCloseTo(1e6 / 16, 3);
  });

  it('is a solution of its own law: the flow through a hole, summed in small steps of time, arrives at the same', () => {
    const law = airThroughHole(outside);
    const ends = { from: 60e3, to: 20e3, span: 300 };
    // dV/dt at two moments stands in the ratio of what the nozzle passes at those.
    const slope = (time: number) => (leftBy(law, ends, time + 0.01) - leftBy(law, ends, time - 0.01)) / 0.02;
    const ratio = slope(250) / slope(20);
    const psi = (vacuum: number) => {
      const r = Math.max((outside - vacuum) / outside, 0.5282818);
      return Math.sqrt(r ** (2 / 1.4) - r ** (2.4 / 1.4));
    };
    expect(ratio).toBeCloseTo(psi(leftBy(law, ends, 250)) / psi(leftBy(law, ends, 20)), 3);
  });

  it('is what was read at both readings, falls between them, and faster early the more the flow falls with what is left', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10e3, max: 90e3, noNaN: true }),
        fc.double({ min: 0.05, max: 0.99, noNaN: true }),
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        (from, share, part) => {
          const ends = { from, to: from * share, span: 100 };
          const by = [proportional, airThroughGap(outside), airThroughHole(outside)].map((law) => {
            expect(leftBy(law, ends, 0)).toBeCloseTo(from, 3);
            expect(leftBy(law, ends, 100)).toBeCloseTo(ends.to, 3);
            return leftBy(law, ends, 100 * part);
          });
          const straight = from + (ends.to - from) * part;
          expect(by[0]).toBeLessThanOrEqual(by[1] + 1e-3);
          expect(by[1]).toBeLessThanOrEqual(straight + 1e-3);
          expect(by[2]).toBeLessThanOrEqual(straight + 1);
          expect(by[2]).toBeGreaterThanOrEqual(by[0] - 1);
        },
      ),
    );
  });
});
