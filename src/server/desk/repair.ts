import { randomUUID } from 'node:crypto';
import * as z from 'zod';
import { partActions } from '@/core/judging/verification';
import { sheetOf } from '../context/job-context';
import { RequestRefused } from '../http/refused';
import { changeJob } from './change-job';
import { refuseWhileOpen } from './open-step';

export const repairSchema = z.object({
  person: z.string().trim().min(1, 'Say who did it').max(80),
  work: z
    .array(z.object({ part: z.string().max(80), action: z.enum(partActions), with: z.string().trim().max(120) }))
    .max(60),
  note: z.string().trim().max(500).default(''),
});

/** Puts on record what was done to a unit, and begins another round of its job. */
export async function recordRepair(
  jobId: string,
  { person, work, note }: z.infer<typeof repairSchema>,
): Promise<{ id: string; version: number }> {
  return changeJob(jobId, {
    person,
    decide({ record, at }) {
      const { job, runs } = record;
      if (job.takenOutAt !== null)
        throw new RequestRefused(409, 'This job was taken out of the book. Bring it back first.');
      const { kind } = sheetOf(job);
      const strange = work.find(({ part }) => !kind.parts.some((each) => each.id === part));
      if (strange) throw new RequestRefused(422, `This unit has no part “${strange.part}”.`);
      const parts = work.map(({ part }) => part);
      const twice = parts.find((part, place) => parts.indexOf(part) !== place);
      if (twice !== undefined) throw new RequestRefused(422, `“${twice}” is said twice: say once what was done to it.`);
      if (!work.some(({ action }) => action !== 'left'))
        throw new RequestRefused(422, 'Say of at least one part what was done to it: left alone is no repair.');
      refuseWhileOpen(record);
      const id = randomUUID();
      const titles = work.flatMap(({ part, action }) =>
        action === 'left' ? [] : [`${kind.parts.find((each) => each.id === part)?.title} ${action}`],
      );
      const repair = { id, jobId, at, person, work, note, afterRun: runs.at(-1)?.sequence ?? 0 };
      const act = { jobId, subject: id, act: 'repaired', person, detail: titles.join(', ') } as const;
      return {
        edits: [
          { kind: 'repaired', repair },
          { kind: 'act', act },
        ],
        result: { id },
      };
    },
  });
}
