import { runsOf } from '@/data/job-record';
import { RequestRefused } from '../http/refused';
import { contextOf, measuredStepOf, sheetOf } from '../context/job-context';
import { standInNow } from '../context/stand-in-now';
import { loadedJob } from '../judging/judged-job';
import { heavy } from '../threads/pool';

/** A log as the stand-in's tool in the vehicle writes it, of the unit as it is now: another drive each time. */
export async function standInLog(jobId: string, stepId: string): Promise<string> {
  const { record, shop } = await loadedJob(jobId);
  const { job } = record;
  const { kind } = sheetOf(job);
  const step = measuredStepOf(kind, stepId);
  if (!kind.model.log) throw new RequestRefused(409, `The stand-in writes no log of "${step.title}": its rig runs it.`);
  const startedAt = new Date().toISOString();
  const context = contextOf(job, shop.site, startedAt);
  const { faults, seed } = await standInNow(job, record.repairs);
  const before = runsOf(record).length;
  const mounted = { faults, benchSeed: seed, runSeed: seed + 7919 * before };
  return heavy('standInLog', { jobId, step: stepId, context, recorded: startedAt, ...mounted });
}
