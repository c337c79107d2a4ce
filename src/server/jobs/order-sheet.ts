import { z } from 'zod';
import { orders, setOrder } from '@/data/jobs';
import { jobNamed } from './job-context';

export const orderSchema = z.object({ orderedBy: z.enum(orders) });

/** Has a job's run sheet in the order of its plan, or with the step first that tells most. */
export async function orderSheet(jobId: string, { orderedBy }: z.infer<typeof orderSchema>): Promise<void> {
  const job = await jobNamed(jobId);
  await setOrder(job.id, orderedBy);
}
