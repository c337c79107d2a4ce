import type { JobEdit } from '@/data/job-edits';
import { standing, type JobRecord } from '@/data/job-record';
import { behindOf } from '../judging/behind';
import { blockingOf, blockingText } from '../judging/blocking';
import { evaluateJob } from '../judging/evaluate-job';
import type { Shop } from '../shop/shop-now';

/** Why a release is looked at. */
export interface ReviewedFor {
  readonly person: string;
  readonly at: string;
  /** What takes away what it stands on, in words; where nothing is said it is judged anew. */
  readonly withdraws?: string;
  /** A job behind its unit, as it will be. */
  readonly behind?: JobRecord;
}

/**
 * What becomes of the release that stands on a record as it will be: one that would not be issued any more, or that stands on a run which
 * no longer counts, is withdrawn, and the unit goes back to wait for the bench. Nothing where none stands.
 */
export async function reviewRelease(record: JobRecord, shop: Shop, reviewed: ReviewedFor): Promise<readonly JobEdit[]> {
  const release = standing(record);
  if (!release) return [];
  const { person, at, withdraws } = reviewed;
  const why = withdraws ?? blockingText(await blockingNow(record, shop, reviewed.behind ?? null));
  if (why === '') return [{ kind: 'reviewed', id: release.id }];
  const jobId = record.job.id;
  return [
    { kind: 'withdrawn', id: release.id, at, why },
    { kind: 'act', act: { jobId, subject: release.id, act: 'withdrawn', person, detail: why } },
    { kind: 'placed', place: 'waiting' },
  ];
}

async function blockingNow(record: JobRecord, shop: Shop, behind: JobRecord | null) {
  const { evaluation } = await evaluateJob(record, shop, 'aside');
  return blockingOf(record, { evaluation, behind: await behindOf(record, shop, { instead: behind }) });
}
