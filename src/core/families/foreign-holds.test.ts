import { foreignHolds } from '../../../tests/support/second-writer/holds-suite';

foreignHolds(8, 1);
