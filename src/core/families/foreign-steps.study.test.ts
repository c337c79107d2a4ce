import { foreignSteps } from '../../../tests/support/second-writer/steps-suite';

foreignSteps(Number(process.env.FOREIGN_LOGS ?? 14), 17);
