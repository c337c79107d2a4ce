import { vacuumRemoteRows } from './rows';
import type { Family } from '../../contract/family';
import { inLineSlave } from './in-line-slave';
import { servoCylinder } from './servo-cylinder';

/** Remote vacuum unit, worked by hydraulic line pressure. */
export const vacuumRemote: Family = {
  id: 'vacuum-remote',
  title: 'Remote vacuum unit',
  description: inLineSlave.description,
  toldBy: 'layout',
  kinds: [inLineSlave, servoCylinder],
  rows: vacuumRemoteRows,
};
