import { foreignPulls } from '../../../tests/support/second-writer/pulls-suite';

foreignPulls(1, 5);
