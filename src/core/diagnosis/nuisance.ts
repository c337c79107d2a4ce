const { abs, exp, log, max, sqrt, PI } = Math;

/** Figures as they were seen beside what one hypothesis lets expect of them; all in the figures' coordinates. */
export interface Compared {
  /** Seen minus expected. */
  readonly off: Float64Array;
  readonly variance: Float64Array;
  /** Density of a slip at each figure as seen, times its chance. */
  readonly slipped: Float64Array;
  /** Density of each figure as seen in ways that tell nothing of the nuisances, times their chance: without effect, or where nothing was told. */
  readonly otherwise: Float64Array;
  /** Chance that the figure is measured at all under the hypothesis, times that of no slip. */
  readonly chance: Float64Array;
  /** Columns: what one standard deviation of each nuisance moves every figure by. */
  readonly columns: readonly Float64Array[];
}

export interface Integrated {
  /** Log likelihood of each figure at the likeliest nuisances. */
  readonly each: Float64Array;
  /** What the nuisances cost: their own improbability, and the volume that is left of them. */
  readonly cost: number;
}

/** Rounds in which figures that nothing explains lose their say about the nuisances; fewer where none changes its say any more. */
const rounds = 3;
const noChange = 1e-4;

/**
 * Likelihood of figures with everything in which sound units differ integrated out. The nuisances are standard normal and move
 * the figures together, in proportion; each figure is normal about what is expected, or a slip. Laplace's approximation at the
 * likeliest nuisances, found by weighted least squares in which each figure weighs as much as it is unlikely to be a slip
 * (Gelman et al., Bayesian Data Analysis, 3rd ed., ch. 13 and 17).
 */
export function integrateNuisances({ off, variance, slipped, otherwise, chance, columns }: Compared): Integrated {
  const count = off.length;
  const size = columns.length;
  const weights = new Float64Array(count).fill(1);
  const z = new Float64Array(size);
  const normal = new Float64Array(size * size);
  const each = new Float64Array(count);
  const precision = new Float64Array(count);
  const rests = new Float64Array(count);
  const rows = rowsOf(columns, count);
  let logDeterminant = 0;
  for (let round = 0; round < rounds; round++) {
    if (size > 0) {
      for (let i = 0; i < count; i++) precision[i] = weights[i] / variance[i];
      fillNormal(normal, z, off, precision, rows);
      logDeterminant = choleskySolve(normal, z);
    }
    for (let i = 0; i < count; i++) {
      let rest = off[i];
      for (let at = rows.begin[i]; at < rows.begin[i + 1]; at++) rest -= rows.value[at] * z[rows.column[at]];
      rests[i] = rest;
    }
    let change = 0;
    for (let i = 0; i < count; i++) {
      const rest = rests[i];
      const fits = (chance[i] * exp((-rest * rest) / (2 * variance[i]))) / sqrt(2 * PI * variance[i]);
      const both = fits + slipped[i] + otherwise[i];
      const weight = both > 0 ? fits / both : 0;
      change = max(change, abs(weight - weights[i]));
      weights[i] = weight;
      each[i] = log(both);
    }
    if (change < noChange) break;
  }
  let square = 0;
  for (let j = 0; j < size; j++) square += z[j] * z[j];
  return { each, cost: -square / 2 - logDeterminant / 2 };
}

/** What moves each figure, figure by figure: few of all nuisances do. */
interface Rows {
  /** Where each figure begins, and after the last where it ends. */
  readonly begin: Int32Array;
  readonly column: Int32Array;
  readonly value: Float64Array;
}

function rowsOf(columns: readonly Float64Array[], count: number): Rows {
  const begin = new Int32Array(count + 1);
  for (const each of columns) for (let i = 0; i < count; i++) if (each[i] !== 0) begin[i + 1]++;
  for (let i = 0; i < count; i++) begin[i + 1] += begin[i];
  const [column, value] = [new Int32Array(begin[count]), new Float64Array(begin[count])];
  const next = begin.slice();
  columns.forEach((each, j) => {
    for (let i = 0; i < count; i++) {
      if (each[i] === 0) continue;
      column[next[i]] = j;
      value[next[i]++] = each[i];
    }
  });
  return { begin, column, value };
}

/** Normal equations I + Jᵀ P J and Jᵀ P r, in place (lower triangle); P is the precision of each figure. */
function fillNormal(
  normal: Float64Array,
  right: Float64Array,
  off: Float64Array,
  precision: Float64Array,
  { begin, column, value }: Rows,
): void {
  const size = right.length;
  normal.fill(0);
  right.fill(0);
  for (let a = 0; a < size; a++) normal[a * size + a] = 1;
  for (let i = 0; i < off.length; i++)
    for (let at = begin[i]; at < begin[i + 1]; at++) {
      const scaled = value[at] * precision[i];
      const row = column[at] * size;
      right[column[at]] += scaled * off[i];
      for (let other = begin[i]; other <= at; other++) normal[row + column[other]] += scaled * value[other];
    }
}

/** Solves a positive definite system in place (Cholesky); returns the logarithm of its determinant. */
function choleskySolve(matrix: Float64Array, right: Float64Array): number {
  const size = right.length;
  let logDeterminant = 0;
  for (let a = 0; a < size; a++) {
    const row = a * size;
    for (let b = 0; b < a; b++) {
      const other = b * size;
      let sum = matrix[row + b];
      for (let k = 0; k < b; k++) sum -= matrix[row + k] * matrix[other + k];
      matrix[row + b] = sum / matrix[other + b];
    }
    let pivot = matrix[row + a];
    for (let k = 0; k < a; k++) pivot -= matrix[row + k] * matrix[row + k];
    matrix[row + a] = sqrt(pivot);
    logDeterminant += log(pivot);
  }
  for (let a = 0; a < size; a++) {
    for (let k = 0; k < a; k++) right[a] -= matrix[a * size + k] * right[k];
    right[a] /= matrix[a * size + a];
  }
  for (let a = size - 1; a >= 0; a--) {
    for (let k = a + 1; k < size; k++) right[a] -= matrix[k * size + a] * right[k];
    right[a] /= matrix[a * size + a];
  }
  return logDeterminant;
}
