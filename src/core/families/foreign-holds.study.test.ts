import { foreignHolds } from '../../../tests/support/second-writer/holds-suite';

foreignHolds(150, 0);
