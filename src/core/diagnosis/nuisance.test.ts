import fc from 'fast-check';
import { Matrix, determinant, inverse } from 'ml-matrix';
import { integrateNuisances } from './nuisance';

/** Log density of normal figures with a covariance, worked out whole (what the integration must come to). */
function jointly(off: readonly number[], covariance: Matrix): number {
  const column = Matrix.columnVector([...off]);
  const square = column.transpose().mmul(inverse(covariance)).mmul(column).get(0, 0);
  return -square / 2 - Math.log(determinant(covariance)) / 2 - (off.length / 2) * Math.log(2 * Math.PI);
}

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('likelihood with what sound units differ in integrated out', () => {
  it('is the joint density of normal figures, where nothing slips', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ off: number(-2, 2), variance: number(0.01, 1), a: number(-1, 1), b: number(-1, 1) }), {
          minLength: 1,
          maxLength: 6,
        }),
        (figures) => {
          const of = (each: (figure: (typeof figures)[number]) => number) => Float64Array.from(figures, each);
          const { each, cost } = integrateNuisances({
            off: of((figure) => figure.off),
            variance: of((figure) => figure.variance),
            slipped: of(() => 0),
            otherwise: of(() => 0),
            chance: of(() => 1),
            columns: [of((figure) => figure.a), of((figure) => figure.b)],
          });
          const covariance = Matrix.diag(figures.map((figure) => figure.variance));
          figures.forEach((p, i) =>
            figures.forEach((q, j) => covariance.set(i, j, covariance.get(i, j) + p.a * q.a + p.b * q.b)),
          );
          const whole = each.reduce((sum, one) => sum + one, cost);
          expect(whole).toBeCloseTo(
            jointly(
              figures.map((figure) => figure.off),
              covariance,
            ),
            6,
          );
        },
      ),
    );
  });

  it('takes figures that one cause moves together as one finding, not as many', () => {
    const alike = (count: number) =>
      integrateNuisances({
        off: new Float64Array(count).fill(0.5),
        variance: new Float64Array(count).fill(0.01),
        slipped: new Float64Array(count),
        otherwise: new Float64Array(count),
        chance: new Float64Array(count).fill(1),
        columns: [new Float64Array(count).fill(0.5)],
      });
    const surprise = ({ each, cost }: ReturnType<typeof alike>, count: number) =>
      each.reduce((sum, one) => sum + one, cost) - count * Math.log(1 / Math.sqrt(2 * Math.PI * 0.01));
    // Six figures that are all off for one reason cost little more than one of them: not six times it.
    expect(surprise(alike(6), 6)).toBeGreaterThan(surprise(alike(1), 1) - 2);
  });

  it('lets one figure slip without letting it drag the others along', () => {
    const compared = {
      off: Float64Array.of(0, 0, 5),
      variance: Float64Array.of(0.01, 0.01, 0.01),
      slipped: Float64Array.of(0.001, 0.001, 0.001),
      otherwise: new Float64Array(3),
      chance: Float64Array.of(0.98, 0.98, 0.98),
      columns: [Float64Array.of(0.1, 0.1, 0.1)],
    };
    const { each } = integrateNuisances(compared);
    expect(each[2]).toBeCloseTo(Math.log(0.001), 2);
    expect(each[0]).toBeGreaterThan(0.5);
  });
});
