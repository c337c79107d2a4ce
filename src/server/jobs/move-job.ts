import { z } from 'zod';
import { recordAct } from '@/data/acts';
import { moveJob, places } from '@/data/jobs';
import { refuseStranger } from '../people';
import { jobNamed } from './job-context';

export const moveSchema = z.object({ place: z.enum(places), person: z.string().min(1).max(80) });

/** Moves a unit to another place of the shop, on record with who did it. */
export async function moveUnit(jobId: string, { place, person }: z.infer<typeof moveSchema>): Promise<void> {
  const job = await jobNamed(jobId);
  await refuseStranger(person);
  if (job.place === place) return;
  await moveJob(job.id, place);
  await recordAct({ jobId: job.id, subject: null, act: 'moved', person, detail: place, before: job.place });
}
