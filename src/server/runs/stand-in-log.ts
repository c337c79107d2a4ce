import { writeBenchLog, standInSource } from '@/core/formats/bench-log';
import { simulateStep } from '@/core/rig/run-step';
import { listRuns } from '@/data/runs';
import { RequestRefused } from '../http/refused';
import { contextOf, jobNamed, measuredStepOf, sheetOf, siteNow } from '../jobs/job-context';
import { standInNow } from '../jobs/stand-in-now';

/** A log as the stand-in's tool in the vehicle writes it, of the unit as it is now: another drive each time. */
export async function standInLog(jobId: string, stepId: string): Promise<string> {
  const job = await jobNamed(jobId);
  const { kind, name } = sheetOf(job);
  const step = measuredStepOf(kind, stepId);
  if (!kind.model.log) throw new RequestRefused(409, `The stand-in writes no log of "${step.title}": its rig runs it.`);
  const startedAt = new Date().toISOString();
  const context = contextOf(job, await siteNow(), startedAt);
  const { faults, seed } = await standInNow(job);
  const before = (await listRuns(jobId)).length;
  const trace = simulateStep(kind, step, context, { faults, benchSeed: seed, runSeed: seed + 7919 * before });
  return writeBenchLog(trace, { source: standInSource, unit: name, recorded: startedAt });
}
