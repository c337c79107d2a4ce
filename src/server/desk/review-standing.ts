import { releasesToReview } from '@/data/releases';
import { loadJobRecord, standing } from '@/data/job-record';
import { changeJob } from './change-job';
import { reviewRelease } from './review-release';

/**
 * Looks at every release that stands and whose job was changed since it was last looked at: an end without warning in an earlier edition
 * may have left one that must not. One after the other, in the background.
 */
export async function reviewStanding(): Promise<void> {
  for (const jobId of await releasesToReview())
    try {
      if (!standing((await loadJobRecord(jobId)) ?? { releases: [] })) continue;
      await changeJob(jobId, {
        person: null,
        anyVersion: true,
        async decide({ record, shop, at }) {
          return { edits: await reviewRelease(record, shop, { person: 'Hard Pedal', at }), result: {} };
        },
      });
    } catch (error) {
      console.error(`the release of job ${jobId} could not be looked at`, error);
    }
}
