import { foreignPulls } from '../../../tests/support/second-writer/pulls-suite';
import { sized } from '../../../tests/support/study-size';

foreignPulls(Number(process.env.FOREIGN_LOGS ?? sized(5, 14)), 11);
