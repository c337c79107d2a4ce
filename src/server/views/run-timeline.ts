import * as z from 'zod';
import type { TimelinePart } from '@/core/pictures/timeline-window';
import { RequestRefused } from '../http/refused';
import { isOfStep } from '../context/answered-steps';
import { contextOf, jobNamed, measuredStepOf, runNamed, sheetOf } from '../context/job-context';
import { heavy } from '../threads/pool';

export const timelineSchema = z
  .object({
    step: z.string().max(80),
    from: z.coerce.number().optional(),
    to: z.coerce.number().optional(),
  })
  .refine(({ from, to }) => (from === undefined) === (to === undefined) && !(from! >= to!), {
    message: 'A window has two ends, the later one after the other',
  });

/** Part of the time-line of a kept log, for a step that it answers; the whole of it where no window is asked for. */
export async function runTimeline(
  id: string,
  { step, from, to }: z.infer<typeof timelineSchema>,
  signal: AbortSignal,
): Promise<TimelinePart> {
  const run = await runNamed(id);
  const job = await jobNamed(run.jobId);
  measuredStepOf(sheetOf(job).kind, step);
  if (!isOfStep(job, run, step)) throw new RequestRefused(404, 'This run is of another step.');
  const context = contextOf(job, run.context.site, run.startedAt);
  const window = from === undefined || to === undefined ? null : { from, to };
  const part = await heavy('timeline', { runId: id, step, context, window }, signal);
  if (!part) throw new RequestRefused(404, 'This run has no time-line.');
  return part;
}
