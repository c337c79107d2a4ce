import type { JobRecord } from '@/data/job-record';
import { openRun } from '@/data/job-record';
import { stillOpen } from '../context/job-context';
import { evaluateJob } from '../judging/evaluate-job';
import { hasInterlocks, locksOf, refuseUnread, shutBy } from '../judging/interlocks';
import type { Shop } from '../shop/shop-now';

/**
 * Refuses a step that an interlock keeps shut, or whose cautions nobody has acknowledged: here, whoever asks and by
 * whatever way, and not only on the screen. A run that goes on or is kept (`except`) is not locked out by itself.
 */
export async function refuseShut(
  record: JobRecord,
  shop: Shop,
  stepId: string,
  except: string | null = null,
): Promise<void> {
  refuseUnread(record, stepId);
  if (!hasInterlocks(record)) return;
  const evaluated = await evaluateJob(record, shop);
  const lock = (await locksOf(record, { shop, evaluated }, except)).get(stepId);
  if (lock) throw shutBy(record, lock);
}

/** One run at a time a job: refuses while one is recorded or waits to be kept. */
export function refuseWhileOpen(record: JobRecord): void {
  const open = openRun(record);
  if (open) throw stillOpen(record.job, open.step);
}
