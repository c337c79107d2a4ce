const { exp, hypot, log, max, min, sqrt } = Math;

/** One check of a sphere: when (days since 1970), its precharge (Pa gauge at 20 °C) and the standard uncertainty. */
export interface SphereCheck {
  readonly day: number;
  readonly precharge: number;
  readonly standard: number;
}

/** Where a sphere's precharge is going. */
export type SphereForecast =
  | { readonly kind: 'too-few'; readonly nextCheck: number }
  | {
      readonly kind: 'line';
      /** Straight, or a loss in proportion to what is left. */
      readonly shape: 'straight' | 'exponential';
      /** Middle and 95 % band of the precharge at a day, Pa gauge at 20 °C. */
      readonly at: (day: number) => { readonly value: number; readonly low: number; readonly high: number };
      /** Days on which the middle and the lower edge of the band cross the limit; null where they do not within the horizon. */
      readonly crosses: number | null;
      readonly mayCross: number | null;
      /** Day by which it is looked at again: before the band can have crossed. */
      readonly nextCheck: number;
    };

/** A sphere is looked at again at least this often, and not sooner than this, days. */
const longestInterval = 730;
const shortestInterval = 30;
const horizon = 20 * 365;

interface Line {
  readonly intercept: number;
  readonly slope: number;
  readonly middle: number;
  readonly variance: (x: number) => number;
  readonly deviance: number;
}

/**
 * Weighted straight line with stated uncertainties; the covariance is widened where the scatter is more than they allow.
 * Source: Press et al., Numerical Recipes, 3rd ed., 15.2.
 */
function weightedLine(x: readonly number[], y: readonly number[], standard: readonly number[]): Line {
  const weights = standard.map((each) => 1 / each ** 2);
  const sum = weights.reduce((total, each) => total + each, 0);
  const middle = weights.reduce((total, each, i) => total + each * x[i], 0) / sum;
  const level = weights.reduce((total, each, i) => total + each * y[i], 0) / sum;
  const sxx = weights.reduce((total, each, i) => total + each * (x[i] - middle) ** 2, 0);
  const slope = weights.reduce((total, each, i) => total + each * (x[i] - middle) * (y[i] - level), 0) / sxx;
  const deviance = weights.reduce((total, each, i) => total + each * (y[i] - level - slope * (x[i] - middle)) ** 2, 0);
  const widened = max(1, x.length > 2 ? deviance / (x.length - 2) : 1);
  return {
    intercept: level,
    slope,
    middle,
    deviance,
    variance: (at) => widened * (1 / sum + (at - middle) ** 2 / sxx),
  };
}

/**
 * Forecast of a sphere's precharge from its checks in the order of time: a straight line, or an exponential where four
 * checks or more speak for it, with the day its limit (Pa gauge at 20 °C) is crossed and a 95 % band.
 */
export function forecastSphere(checks: readonly SphereCheck[], limit: number): SphereForecast {
  const last = checks.at(-1);
  const span = last ? last.day - checks[0].day : 0;
  if (!last || checks.length < 2 || span < shortestInterval)
    return { kind: 'too-few', nextCheck: (last?.day ?? 0) + longestInterval / 2 };
  const days = checks.map((check) => check.day);
  // Half of a check's variance is its gauge's, which all checks share and no number of them takes away.
  const shared = min(...checks.map((check) => check.standard)) * Math.SQRT1_2;
  const own = checks.map((check) => check.standard * Math.SQRT1_2);
  const straight = weightedLine(
    days,
    checks.map((check) => check.precharge),
    own,
  );
  const curved =
    checks.length >= 4 && checks.every((check) => check.precharge > 0)
      ? weightedLine(
          days,
          checks.map((check) => log(check.precharge)),
          checks.map((check, i) => own[i] / check.precharge),
        )
      : null;
  const exponential = curved !== null && curved.deviance < straight.deviance - 2;
  const line = exponential ? curved : straight;
  const back = (value: number) => (exponential ? exp(value) : value);
  const at = (day: number) => {
    const value = line.intercept + line.slope * (day - line.middle);
    const own = 2 * sqrt(line.variance(day));
    const gauge = 2 * (exponential ? shared / last.precharge : shared);
    const reach = hypot(own, gauge);
    return { value: back(value), low: back(value - reach), high: back(value + reach) };
  };
  const firstBelow = (edge: 'value' | 'low') => {
    for (let day = last.day; day <= last.day + horizon; day += 1) if (at(day)[edge] < limit) return day;
    return null;
  };
  const crosses = firstBelow('value');
  const mayCross = firstBelow('low');
  const soon = mayCross ?? last.day + longestInterval;
  const nextCheck = min(max(soon, last.day + shortestInterval), last.day + longestInterval);
  return { kind: 'line', shape: exponential ? 'exponential' : 'straight', at, crosses, mayCross, nextCheck };
}
