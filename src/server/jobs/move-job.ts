import { recordAct } from '@/data/acts';
import { moveJob, type Place } from '@/data/jobs';
import { refuseStranger } from '../people';
import { jobNamed } from './job-context';

/** Moves a unit to another place of the shop, on record with who did it. */
export async function moveUnit(jobId: string, place: Place, person: string): Promise<void> {
  const job = await jobNamed(jobId);
  await refuseStranger(person);
  if (job.place === place) return;
  await moveJob(job.id, place);
  await recordAct({ jobId: job.id, subject: null, act: 'moved', person, detail: place, before: job.place });
}
