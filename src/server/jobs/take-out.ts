import { recordAct } from '@/data/acts';
import { setTakenOut } from '@/data/jobs';
import { standingRelease } from '@/data/releases';
import { listRuns } from '@/data/runs';
import { RequestRefused } from '../http/refused';
import { refuseStranger } from '../people';
import { jobNamed, stillOpen } from './job-context';

/** Takes a job out of the book that was booked in by mistake: it stays on record, and can be brought back for a day. */
export async function takeOut(jobId: string, person: string): Promise<void> {
  const job = await jobNamed(jobId);
  await refuseStranger(person);
  if (job.takenOutAt !== null) return;
  if (await standingRelease(jobId))
    throw new RequestRefused(409, 'A release of this unit stands: it stays in the book. Move it to “Fetched” instead.');
  const open = (await listRuns(jobId)).find((run) => run.state === 'recording' || run.state === 'complete');
  if (open) throw stillOpen(job, open.step);
  const at = new Date().toISOString();
  await setTakenOut(jobId, at);
  await recordAct({ jobId, subject: null, act: 'taken-out', person, detail: null }, at);
}
