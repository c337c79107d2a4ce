import * as z from 'zod';
import type { JobEdit } from '@/data/job-edits';
import { cautions } from '@/core/wording/cautions';
import { changeJob } from './change-job';

const known = Object.keys(cautions) as [string, ...string[]];
export const acknowledgeSchema = z.object({ cautions: z.array(z.enum(known)), person: z.string().min(1).max(80) });

/** Puts on record who has read cautions of a job; the first acknowledgement of each stands. */
export async function acknowledgeCautions(
  jobId: string,
  { cautions: read, person }: z.infer<typeof acknowledgeSchema>,
): Promise<{ version: number }> {
  return changeJob(jobId, {
    person,
    // What a caution says does not hang on what was done meanwhile.
    anyVersion: true,
    decide({ record, at }) {
      const fresh = [...new Set(read)].filter((caution) => !record.cautions.some((each) => each.caution === caution));
      if (fresh.length === 0) return { edits: [], result: {} };
      const edits = fresh.map((caution): JobEdit => ({ kind: 'caution-read', caution, person, at }));
      const act = { jobId, subject: null, act: 'cautions-read', person, detail: fresh.join(', ') } as const;
      return { edits: [...edits, { kind: 'act', act }], result: {} };
    },
  });
}
