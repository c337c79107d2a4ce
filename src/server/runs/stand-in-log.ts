import { listRuns } from '@/data/runs';
import { RequestRefused } from '../http/refused';
import { contextOf, jobNamed, measuredStepOf, sheetOf, siteNow } from '../jobs/job-context';
import { standInNow } from '../jobs/stand-in-now';
import { heavy } from '../threads/pool';

/** A log as the stand-in's tool in the vehicle writes it, of the unit as it is now: another drive each time. */
export async function standInLog(jobId: string, stepId: string): Promise<string> {
  const job = await jobNamed(jobId);
  const { kind } = sheetOf(job);
  const step = measuredStepOf(kind, stepId);
  if (!kind.model.log) throw new RequestRefused(409, `The stand-in writes no log of "${step.title}": its rig runs it.`);
  const startedAt = new Date().toISOString();
  const context = contextOf(job, await siteNow(), startedAt);
  const { faults, seed } = await standInNow(job);
  const before = (await listRuns(jobId)).length;
  const mounted = { faults, benchSeed: seed, runSeed: seed + 7919 * before };
  return heavy('standInLog', { jobId, step: stepId, context, recorded: startedAt, ...mounted });
}
