import { mendedFaults } from '@/core/judging/verification';
import type { Job } from '@/data/jobs';
import type { Repair } from '@/data/repairs';
import { findStandIn, type StandIn } from '@/data/stand-ins';
import { sheetOf } from './job-context';

/** What the stand-in mounts for a job as it is now: the right part takes its fault away, a wrong one leaves it. */
export async function standInNow(job: Job, repairs: readonly Repair[]): Promise<StandIn> {
  const mounted = await findStandIn(job.id);
  const work = repairs.flatMap((repair) => repair.work);
  const mended = mendedFaults(sheetOf(job).kind, work);
  return { ...mounted, faults: mounted.faults.filter((fault) => !mended.includes(fault.id)) };
}
