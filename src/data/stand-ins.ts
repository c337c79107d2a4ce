import type { Knex } from 'knex';
import * as z from 'zod';
import { database } from './database';

const mountedSchema = z.object({
  seed: z.number().int(),
  pairError: z.number(),
  faults: z.array(z.object({ id: z.string(), severity: z.number() })),
});

/** What the stand-in rig mounts for a job: its gauges' seed and error, and the faults of the unit. Never sent to a screen. */
export type StandIn = z.infer<typeof mountedSchema>;

export async function insertStandIn(trx: Knex, jobId: string, mounted: StandIn): Promise<void> {
  await trx('stand_ins').insert({ job_id: jobId, mounted: JSON.stringify(mountedSchema.parse(mounted)) });
}

export async function findStandIn(jobId: string): Promise<StandIn> {
  const row = (await (await database())('stand_ins').where({ job_id: jobId }).first()) as
    { mounted: string } | undefined;
  if (!row) throw new Error(`nothing is mounted on the stand-in for job ${jobId}`);
  return mountedSchema.parse(JSON.parse(row.mounted));
}
