import { foreignSteps } from '../../../tests/support/second-writer/steps-suite';
import { sized } from '../../../tests/support/study-size';

foreignSteps(Number(process.env.FOREIGN_LOGS ?? sized(3, 14)), 17);
