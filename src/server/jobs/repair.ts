import { z } from 'zod';
import { partActions } from '@/core/judging/verification';
import { recordAct } from '@/data/acts';
import { insertRepair } from '@/data/repairs';
import { listEveryRun, listRuns } from '@/data/runs';
import { RequestRefused } from '../http/refused';
import { refuseStranger } from '../people';
import { reviewRelease } from '../release/review-release';
import { jobNamed, sheetOf, stillOpen } from './job-context';

export const repairSchema = z.object({
  person: z.string().trim().min(1, 'Say who did it').max(80),
  work: z
    .array(z.object({ part: z.string().max(80), action: z.enum(partActions), with: z.string().trim().max(120) }))
    .max(60),
  note: z.string().trim().max(500).default(''),
});

/** Puts on record what was done to a unit, and begins another round of its job. */
export async function recordRepair(jobId: string, repair: z.infer<typeof repairSchema>): Promise<{ id: string }> {
  const job = await jobNamed(jobId);
  if (job.takenOutAt !== null)
    throw new RequestRefused(409, 'This job was taken out of the book. Bring it back first.');
  await refuseStranger(repair.person);
  const { kind } = sheetOf(job);
  const strange = repair.work.find(({ part }) => !kind.parts.some((each) => each.id === part));
  if (strange) throw new RequestRefused(422, `This unit has no part “${strange.part}”.`);
  const parts = repair.work.map(({ part }) => part);
  const twice = parts.find((part, at) => parts.indexOf(part) !== at);
  if (twice !== undefined) throw new RequestRefused(422, `“${twice}” is said twice: say once what was done to it.`);
  if (!repair.work.some(({ action }) => action !== 'left'))
    throw new RequestRefused(422, 'Say of at least one part what was done to it: left alone is no repair.');
  const open = (await listRuns(jobId)).find((run) => run.state === 'recording' || run.state === 'complete');
  if (open) throw stillOpen(job, open.step);
  const at = new Date().toISOString();
  const runsBefore = (await listEveryRun(jobId)).map((run) => run.id);
  const id = await insertRepair({ jobId, at, runsBefore, ...repair });
  const titles = repair.work.flatMap(({ part, action }) =>
    action === 'left' ? [] : [`${kind.parts.find((each) => each.id === part)?.title} ${action}`],
  );
  await recordAct({ jobId, subject: id, act: 'repaired', person: repair.person, detail: titles.join(', ') }, at);
  await reviewRelease(jobId, { person: repair.person });
  return { id };
}
