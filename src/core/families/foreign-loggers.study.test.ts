/* The same holds, pulls and steps as in the suites beside this one, by tools that write other rows than a sensor gave. */

import { foreignHolds } from '../../../tests/support/second-writer/holds-suite';
import { foreignPulls } from '../../../tests/support/second-writer/pulls-suite';
import { foreignSteps } from '../../../tests/support/second-writer/steps-suite';

describe.each(['over-and-over', 'in-turn', 'straight-between'] as const)('written %s', (rows) => {
  foreignHolds(4, 1, rows);
  foreignPulls(1, 5, rows);
  foreignSteps(1, 3, rows);
});
