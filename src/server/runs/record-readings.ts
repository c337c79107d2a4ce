import { readStandIn } from '@/core/rig/run-step';
import { refuseShut } from './interlocks';
import { questionedFields } from '@/core/dials/question-figure';
import { entryOf } from '@/core/dials/characteristic-entry';
import { insertRun, listRuns } from '@/data/runs';
import { standInNow } from '../jobs/stand-in-now';
import { moveJob } from '@/data/jobs';
import { recordAct } from '@/data/acts';
import { RequestRefused } from '../http/refused';
import { refuseStranger } from '../people';
import { reviewRelease } from '../release/review-release';
import { contextOf, jobNamed, judgedStepOf, sheetOf, siteNow, stillOpen } from '../jobs/job-context';

/** Records dial readings of a step, SI by field, as a kept run: what they mean was shown while they were typed. */
export async function recordReadings(
  jobId: string,
  stepId: string,
  readings: Readonly<Record<string, number>>,
  how: { readonly person: string; readonly standIn: boolean; readonly confirmed?: readonly string[] },
): Promise<{ id: string }> {
  const job = await jobNamed(jobId);
  const step = judgedStepOf(sheetOf(job).kind, stepId);
  if (step.kind === 'typed' && step.workedOut)
    throw new RequestRefused(409, `"${step.title}" is worked out of the sheet: nothing is typed.`);
  await refuseStranger(how.person);
  await refuseShut(job, stepId);
  const site = await siteNow();
  const startedAt = new Date().toISOString();
  const fields = entryOf(step).fields(contextOf(job, site, startedAt), readings);
  const missing = fields.filter((field) => !field.optional && readings[field.id] === undefined);
  if (missing.length > 0)
    throw new RequestRefused(
      422,
      `Still to read: ${missing.map((field) => field.title.toLowerCase()).join(', ')}.`,
      Object.fromEntries(missing.map((field) => [field.id, 'not read yet'])),
    );
  const unknown = Object.keys(readings).find((id) => !fields.some((field) => field.id === id));
  if (unknown !== undefined) throw new RequestRefused(422, `This step has no reading "${unknown}".`);
  const questioned = questionedFields(fields, readings, how.confirmed ?? []);
  if (questioned.length > 0)
    throw new RequestRefused(
      422,
      `Hardly: ${questioned.map((field) => field.title.toLowerCase()).join(', ')}. Mend it, or confirm that it is so.`,
      Object.fromEntries(questioned.map((field) => [field.id, 'Hardly: mend it, or confirm that it is so'])),
    );
  const open = (await listRuns(jobId)).find((run) => run.state === 'recording' || run.state === 'complete');
  if (open) throw stillOpen(job, open.step);
  if (job.place === 'waiting' || job.place === 'waiting-parts') await moveJob(jobId, 'on-bench');
  const { person, standIn } = how;
  const context = { site, source: 'dial readings', standIn } as const;
  const id = await insertRun({ jobId, step: stepId, state: 'kept', startedAt, person, context, readings });
  await recordAct({ jobId, subject: id, act: 'kept', person, detail: null });
  await reviewRelease(jobId, { person });
  return { id };
}

/** What the stand-in's instruments show for a typed step, SI by field; empty where it has none to offer. */
export async function standInReadings(jobId: string, stepId: string): Promise<Readonly<Record<string, number>>> {
  const job = await jobNamed(jobId);
  const { kind } = sheetOf(job);
  const step = judgedStepOf(kind, stepId);
  if (step.kind !== 'typed') return {};
  const context = contextOf(job, await siteNow(), new Date().toISOString());
  const repeat = (await listRuns(jobId)).filter((run) => run.step === stepId).length;
  const { faults, seed } = await standInNow(job);
  return readStandIn(kind, step, context, { faults, seed: seed + repeat });
}
