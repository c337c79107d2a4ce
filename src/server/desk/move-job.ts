import * as z from 'zod';
import { places } from '@/data/jobs';
import { changeJob } from './change-job';

export const moveSchema = z.object({ place: z.enum(places), person: z.string().min(1).max(80) });

/** Moves a unit to another place of the shop, on record with who did it. */
export async function moveUnit(
  jobId: string,
  { place, person }: z.infer<typeof moveSchema>,
): Promise<{ version: number }> {
  return changeJob(jobId, {
    person,
    already: ({ job }) => (job.place === place ? {} : undefined),
    decide: ({ record: { job } }) => ({
      edits: [
        { kind: 'placed', place },
        { kind: 'act', act: { jobId, subject: null, act: 'moved', person, detail: place, before: job.place } },
      ],
      result: {},
    }),
  });
}
