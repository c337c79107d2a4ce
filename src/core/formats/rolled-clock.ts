/** A day, and the hour by which clocks are changed, s. */
const day = 86_400;
const hour = 3_600;
/** A clock that falls back by more than this has passed midnight, s. */
const pastMidnight = 43_200;
/** What is left of a changed hour beside the step between two rows, s. */
const slack = 5;

/**
 * A column of a clock without a date, made to run on over midnight and over a change of the hour, in place: seconds. Returns how often it
 * was. Whatever else runs backwards is left as it is.
 */
export function rollClock(column: Float64Array): number {
  let [ahead, rolled, before, step] = [0, 0, Number.NaN, 0];
  for (let i = 0; i < column.length; i++) {
    if (Number.isNaN(column[i])) continue;
    const written = column[i];
    const back = before - written;
    const expected = back + step;
    const by = back > pastMidnight ? day : back > 0 && Math.abs(expected - hour) <= slack + step ? hour : 0;
    if (by > 0) {
      ahead += by;
      rolled++;
    } else if (back < 0) step = -back;
    before = written;
    column[i] = written + ahead;
  }
  return rolled;
}
