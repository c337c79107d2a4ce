import { foreignPulls } from '../../../tests/support/second-writer/pulls-suite';

foreignPulls(40, 11);
