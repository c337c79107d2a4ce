import { standing } from '@/data/job-record';
import { RequestRefused } from '../http/refused';
import { changeJob } from './change-job';
import { refuseWhileOpen } from './open-step';

/** Takes a job out of the book that was booked in by mistake: it stays on record, and can be brought back for a day. */
export async function takeOut(jobId: string, person: string): Promise<{ version: number }> {
  return changeJob(jobId, {
    person,
    already: ({ job }) => (job.takenOutAt === null ? undefined : {}),
    decide({ record, at }) {
      if (standing(record))
        throw new RequestRefused(
          409,
          'A release of this unit stands: it stays in the book. Move it to “Fetched” instead.',
        );
      refuseWhileOpen(record);
      const act = { jobId, subject: null, act: 'taken-out', person, detail: null } as const;
      return {
        edits: [
          { kind: 'taken-out', at },
          { kind: 'act', act },
        ],
        result: {},
      };
    },
  });
}
