import { z } from 'zod';
import type { AnyFamily } from '../../contract/family';
import { servoCylinder } from './servo-cylinder';
import { servoCylinderSchema } from './servo-cylinder/sheet';
import { inLineSchema } from './unit/sheet';
import { inLineSlave } from './in-line-slave';

/** Remote vacuum unit, worked by hydraulic line pressure. */
export const vacuumRemote: AnyFamily = {
  ...inLineSlave,
  schema: z.discriminatedUnion('layout', [inLineSchema, servoCylinderSchema]),
  layouts: {
    field: 'layout',
    families: [
      { value: 'in-line-slave', family: inLineSlave },
      { value: 'servo-cylinder', family: servoCylinder },
    ],
  },
};
