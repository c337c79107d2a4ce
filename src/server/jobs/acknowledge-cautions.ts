import { z } from 'zod';
import { cautions } from '@/core/wording/cautions';
import { acknowledgeCaution } from '@/data/jobs';
import { refuseStranger } from '../people';
import { jobNamed } from './job-context';

const known = Object.keys(cautions) as [string, ...string[]];
export const acknowledgeSchema = z.object({ cautions: z.array(z.enum(known)), person: z.string().min(1).max(80) });

/** Puts on record who has read cautions of a job; the first acknowledgement of each stands. */
export async function acknowledgeCautions(jobId: string, form: z.infer<typeof acknowledgeSchema>): Promise<void> {
  const job = await jobNamed(jobId);
  await refuseStranger(form.person);
  const at = new Date().toISOString();
  for (const caution of form.cautions) await acknowledgeCaution(job.id, caution, form.person, at);
}
