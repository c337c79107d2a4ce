import { recordAct } from '@/data/acts';
import { moveJob } from '@/data/jobs';
import { standingRelease, withdrawRelease } from '@/data/releases';
import { verdictWords } from '@/core/wording/check-text';
import { inFrontOf } from '../jobs/behind';
import { jobNamed } from '../jobs/job-context';
import { jobView } from '../jobs/job-view';

interface Change {
  readonly person: string;
  readonly struckOut?: { readonly title: string; readonly reason: string };
}

/**
 * Looks at the release that stands after something was kept or struck out: one that would not be issued any more, or that stands on a run
 * which no longer counts, is withdrawn, and the unit goes back to wait for the bench.
 */
export async function reviewRelease(jobId: string, change: Change): Promise<void> {
  await reviewOwn(jobId, change);
  // What is found behind a unit speaks of that unit's release as well.
  const front = await inFrontOf(await jobNamed(jobId));
  if (front) await reviewRelease(front.id, { person: change.person });
}

async function reviewOwn(jobId: string, change: Change): Promise<void> {
  const release = await standingRelease(jobId);
  if (!release) return;
  const { blocking } = await jobView(jobId);
  const why = change.struckOut
    ? `A run of “${change.struckOut.title}” was struck out: ${change.struckOut.reason}`
    : blocking
        .map(({ title, verdict }) => (verdict ? `${title}: ${verdictWords[verdict].toLowerCase()}` : title))
        .join('; ');
  if (why === '') return;
  const at = new Date().toISOString();
  await withdrawRelease(release.id, at, why);
  await recordAct({ jobId, subject: release.id, act: 'withdrawn', person: change.person, detail: why }, at);
  await moveJob(jobId, 'waiting');
}
