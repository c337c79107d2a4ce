import * as z from 'zod';
import { orders } from '@/data/jobs';
import { changeJob } from './change-job';

export const orderSchema = z.object({ orderedBy: z.enum(orders) });

/** Has a job's run sheet in the order of its plan, or with the step first that tells most. */
export async function orderSheet(
  jobId: string,
  { orderedBy }: z.infer<typeof orderSchema>,
): Promise<{ version: number }> {
  return changeJob(jobId, {
    person: null,
    // How a sheet is looked at changes nothing on it.
    anyVersion: true,
    decide: ({ record }) => ({
      edits: record.job.orderedBy === orderedBy ? [] : [{ kind: 'ordered', by: orderedBy }],
      result: {},
    }),
  });
}
