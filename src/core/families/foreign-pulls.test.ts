import { foreignPulls } from '../../../tests/support/second-writer/pulls-suite';

foreignPulls(3, 5);
