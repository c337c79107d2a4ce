const { max, min } = Math;

/** However alike neighbours are, a run of values is not made of fewer than so many in a hundred. */
const mostAlike = 0.98;

/**
 * How many values of their own a run of values about nothing is worth: neighbours that are alike, as those of a slow ripple, a drift or a
 * filter are, say the same thing again. n (1 − r)/(1 + r) with r the correlation of neighbours (Bartlett, 1935, for a first-order process).
 */
export function independentCount(residuals: ArrayLike<number>): number {
  let [lagged, squares] = [0, 0];
  for (let i = 0; i < residuals.length; i++) {
    squares += residuals[i] * residuals[i];
    if (i > 0) lagged += residuals[i] * residuals[i - 1];
  }
  const alike = squares > 0 ? min(mostAlike, max(0, lagged / squares)) : 0;
  return max(1, (residuals.length * (1 - alike)) / (1 + alike));
}
