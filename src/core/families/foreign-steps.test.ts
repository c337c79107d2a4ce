import { foreignSteps } from '../../../tests/support/second-writer/steps-suite';

foreignSteps(2, 3);
