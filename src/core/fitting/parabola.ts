import { Matrix, inverse } from 'ml-matrix';
import type { Termination } from './termination';

/** y = c0 + c1·x + c2·x² with the covariance of the coefficients. */
export interface ParabolaFit {
  readonly termination: Termination;
  readonly coefficients: readonly [number, number, number];
  /** Value at x and its variance. */
  readonly at: (x: number) => { readonly value: number; readonly variance: number };
  readonly count: number;
}

const nothing: ParabolaFit['at'] = () => ({ value: Number.NaN, variance: Number.NaN });

function failed(termination: Termination, count: number): ParabolaFit {
  return { termination, coefficients: [Number.NaN, Number.NaN, Number.NaN], at: nothing, count };
}

/**
 * Least-squares parabola through (x, y), centred and scaled for its conditioning. Variances come from the residuals.
 * Fails with `too-few-points` (< 5), `singular` or `non-finite`. Source: Draper & Smith, Applied Regression Analysis,
 * 3rd ed., ch. 5 and 12.
 */
export function fitParabola(x: ArrayLike<number>, y: ArrayLike<number>, from = 0, to = x.length): ParabolaFit {
  const at: number[] = [];
  for (let i = from; i < to; i++) if (!Number.isNaN(x[i]) && !Number.isNaN(y[i])) at.push(i);
  const count = at.length;
  if (count < 5) return failed('too-few-points', count);
  const middle = (x[at[0]] + x[at[count - 1]]) / 2;
  const half = Math.abs(x[at[count - 1]] - x[at[0]]) / 2;
  if (!(half > 0)) return failed('singular', count);
  const row = (value: number) => {
    const u = (value - middle) / half;
    return [1, u, u * u];
  };
  const normal = Matrix.zeros(3, 3);
  const right = [0, 0, 0];
  for (const i of at) {
    const basis = row(x[i]);
    for (let p = 0; p < 3; p++) {
      right[p] += basis[p] * y[i];
      for (let q = 0; q < 3; q++) normal.set(p, q, normal.get(p, q) + basis[p] * basis[q]);
    }
  }
  let inverted: Matrix;
  try {
    inverted = inverse(normal);
  } catch {
    return failed('singular', count);
  }
  const scaled = [0, 1, 2].map((p) => [0, 1, 2].reduce((sum, q) => sum + inverted.get(p, q) * right[q], 0));
  if (!scaled.every(Number.isFinite)) return failed('non-finite', count);
  const value = (basis: readonly number[]) => basis.reduce((sum, each, p) => sum + each * scaled[p], 0);
  let squares = 0;
  for (const i of at) squares += (y[i] - value(row(x[i]))) ** 2;
  const variance = squares / (count - 3);
  const [s0, s1, s2] = scaled;
  return {
    termination: 'converged',
    coefficients: [
      s0 - (s1 * middle) / half + s2 * (middle / half) ** 2,
      s1 / half - (2 * s2 * middle) / half ** 2,
      s2 / half ** 2,
    ],
    at: (where) => {
      const basis = row(where);
      let spread = 0;
      for (let p = 0; p < 3; p++) for (let q = 0; q < 3; q++) spread += basis[p] * inverted.get(p, q) * basis[q];
      return { value: value(basis), variance: variance * spread };
    },
    count,
  };
}
