import { foreignHolds } from '../../../tests/support/second-writer/holds-suite';
import { sized } from '../../../tests/support/study-size';

foreignHolds(sized(60, 150), 0);
