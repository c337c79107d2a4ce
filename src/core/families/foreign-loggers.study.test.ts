/* The same holds, pulls and steps as in the suites beside this one, by tools that write other rows than a sensor gave. */

import { foreignHolds } from '../../../tests/support/second-writer/holds-suite';
import { foreignPulls } from '../../../tests/support/second-writer/pulls-suite';
import { foreignSteps } from '../../../tests/support/second-writer/steps-suite';
import { full, sized } from '../../../tests/support/study-size';

const written = ['in-turn', 'straight-between', ...(full ? (['over-and-over'] as const) : [])] as const;
describe.each(written)('written %s', (rows) => {
  foreignHolds(sized(4, 40), 1, rows);
  foreignPulls(sized(1, 6), 5, rows);
  foreignSteps(sized(1, 6), 3, rows);
});

/*
 * Asked once or twice a second, they show little of what a foot or a pump does: nothing is to be read into what they do not show. What was
 * written again is told as what was drawn is, so that one of both does with every change.
 */
const seldom = ['seldom', ...(full ? (['seldom-straight-between', 'seldom-over-and-over'] as const) : [])] as const;
describe.each(seldom)('asked %s', (rows) => {
  foreignHolds(sized(1, 20), 1, rows);
  foreignPulls(sized(1, 6), 5, rows);
  foreignSteps(sized(1, 6), 3, rows);
});
