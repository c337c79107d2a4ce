import { foreignPulls } from '../../../tests/support/second-writer/pulls-suite';

foreignPulls(Number(process.env.FOREIGN_LOGS ?? 14), 11);
