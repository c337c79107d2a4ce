import { byWatch, onGauge } from '../../dials/asked';
import { entryFromReadings, type TakenReadings } from '../../dials/from-readings';
import { random, systematic } from '../../instruments/uncertainty';
import { ambientStandard } from '../../quantities/standard-atmosphere';
import { settledVacuum, type VacuumSupplyUnit } from './geometry';
import { pumpDownBand } from './pump-down-band';
import { heatLeftOfDraw, settlingShare } from './pump-down-analysis';
import { momentStandard } from '../../dials/stopwatch';
import { gaugeAt, volumeOf, volumeShare, type Context } from './supply-context';

/** Two figures and one row that tells whether they fit. */
const fewest = 3;
/** A draw must be seen for so many of its time constants to tell where it settles. */
const leastCovered = 1.5;
/** Where the time constant is sought, as shares of the last time. */
const soughtFrom = 0.01;
const soughtTo = 10;
const drawnTo = 0.95;

interface Draw {
  readonly tau: number;
  readonly settled: number;
  /** Root mean square of what the rows lie off the curve, Pa. */
  readonly off: number;
}

/**
 * v(t) = v_s·(1 − e^(−t/τ)) through rows by weighted least squares: v_s for each τ follows, τ is sought by a golden section in its
 * logarithm.
 */
function drawOf(rows: TakenReadings['rows'], weights: readonly number[]): Draw {
  const all = weights.reduce((sum, each) => sum + each, 0);
  const at = (logTau: number): Draw => {
    const tau = Math.exp(logTau);
    const shape = rows.map(({ after }) => 1 - Math.exp(-after / tau));
    const squares = shape.reduce((sum, each, place) => sum + weights[place] * each * each, 0);
    const settled = rows.reduce((sum, { vacuum }, place) => sum + weights[place] * vacuum * shape[place], 0) / squares;
    const off = rows.reduce(
      (sum, { vacuum }, place) => sum + weights[place] * (vacuum - settled * shape[place]) ** 2,
      0,
    );
    return { tau, settled, off: Math.sqrt(off / all) };
  };
  const last = Math.max(...rows.map(({ after }) => after));
  let [from, to] = [Math.log(soughtFrom * last), Math.log(soughtTo * last)];
  const golden = (Math.sqrt(5) - 1) / 2;
  for (let round = 0; round < 60; round++) {
    const [low, high] = [to - golden * (to - from), from + golden * (to - from)];
    if (at(low).off < at(high).off) to = high;
    else from = low;
  }
  return at((from + to) / 2);
}

/** While it still rises quickly a moment's doubt is much vacuum: such rows count for less. */
function weightsOf(rows: TakenReadings['rows'], context: Context): readonly number[] {
  const { tau, settled } = drawOf(
    rows,
    rows.map(() => 1),
  );
  return rows.map(({ after, vacuum }) => {
    const rises = (settled / tau) * Math.exp(-after / tau);
    const gauge = Math.hypot(...gaugeAt(vacuum, context).map((part) => part.standard));
    return 1 / (gauge ** 2 + (rises * momentStandard) ** 2 + 1);
  });
}

/** Entry of a draw: the vacuum at times from the pump's start. */
export const pumpDownEntry = entryFromReadings<VacuumSupplyUnit>({
  characteristics: () => ['pump-speed', 'ultimate-pressure', 'draw-time'],
  rows: ({ unit, ambient, workshopLimits }) => ({
    least: fewest,
    columns: [
      byWatch('after', 'After', { hint: 'From the pump’s start', plausible: [0.5, 3_600] }),
      onGauge('vacuum', 'supply_vacuum', 'Vacuum', {
        expected: ({ after }) => {
          if (after === undefined) return null;
          const [low, high] = pumpDownBand(unit, after, settledVacuum(unit, ambient), workshopLimits);
          return { low, high };
        },
      }),
    ],
  }),
  reckon: ({ rows }, context) => {
    if (rows.length < fewest) return { code: 'rows-still-to-read', read: rows.length, needed: fewest };
    const highest = Math.max(...rows.map(({ vacuum }) => vacuum));
    if (highest < 2_000) return { code: 'nothing-builds', vacuum: highest };
    const weights = weightsOf(rows, context);
    const { tau, settled, off } = drawOf(rows, weights);
    const last = Math.max(...rows.map(({ after }) => after));
    if (last < leastCovered * tau) return { code: 'not-settled', rate: (settled - highest) / tau };
    const speed = volumeOf(context) / tau;
    // What the rows lie off the curve, of as many as are left over.
    const scatter = off / Math.sqrt(Math.max(1, rows.length - 2));
    return {
      figures: (moved) => {
        const draw = drawOf(moved.rows, weights);
        return {
          'pump-speed': volumeOf(context) / draw.tau,
          'ultimate-pressure': context.ambient.pressure - draw.settled,
          'draw-time': -draw.tau * Math.log(1 - drawnTo),
        };
      },
      besides: {
        'pump-speed': [
          systematic('volume', speed * volumeShare),
          systematic('gas-heat', speed * heatLeftOfDraw(tau)),
          random('fit', (speed * 3 * scatter) / settled),
        ],
        'ultimate-pressure': [
          systematic('gas-heat', settled * settlingShare(tau)),
          systematic('gauge-zero', ambientStandard(context.ambient)),
          random('fit', scatter * Math.exp(Math.min(2, (2 * tau) / last))),
        ],
        'draw-time': [
          systematic('gas-heat', 3 * tau * heatLeftOfDraw(tau)),
          random('fit', (9 * tau * scatter) / settled),
        ],
      },
      also: { vacuum: settled },
    };
  },
});
