import { heavy } from '../threads/pool';
import { refuseShut } from './interlocks';
import { z } from 'zod';
import { readFrame } from '@/core/traces/frame';
import { channelTitle } from '@/core/quantities/channels';
import { mappingSchema, rememberMapping } from '@/data/column-mappings';
import { moveJob } from '@/data/jobs';
import { appendChunk, countChunks, insertRun, listRuns, setRunState, type Run } from '@/data/runs';
import { recordAct } from '@/data/acts';
import { RequestRefused } from '../http/refused';
import { refuseStranger } from '../people';
import { reviewRelease } from '../release/review-release';
import { contextOf, jobNamed, measuredStepOf, sheetOf, siteNow, stillOpen } from '../jobs/job-context';
import { discardRun, runNamed } from './bench-runs';

export const importSchema = z.object({
  step: z.string().max(80),
  person: z.string().min(1).max(80),
  file: z.object({ name: z.string().min(1).max(300), leftOut: z.array(z.string()).max(5000) }),
  fingerprint: z.string().max(20_000),
  standIn: z.boolean().default(false),
  mapping: mappingSchema,
  /** Channels whose unlikely figures, or open reference, somebody has looked at. */
  confirmed: z.array(z.string().max(80)).max(100).default([]),
});

/** Opens a run that is fed from a log file: its parts follow, then it is closed. */
export async function beginImport(jobId: string, form: z.input<typeof importSchema>): Promise<{ id: string }> {
  const job = await jobNamed(jobId);
  measuredStepOf(sheetOf(job).kind, form.step);
  await refuseStranger(form.person);
  await refuseShut(job, form.step);
  const runs = await listRuns(jobId);
  // What is left of a log that broke off makes room for the next attempt.
  for (const run of runs)
    if (run.state === 'recording' && run.context.source === 'log file') await discardRun(run.id, form.person);
  const open = runs.find(
    (run) => run.state === 'complete' || (run.state === 'recording' && run.context.source !== 'log file'),
  );
  if (open) throw stillOpen(job, open.step);
  const startedAt = new Date().toISOString();
  await rememberMapping(form.fingerprint, form.mapping, startedAt);
  if (job.place === 'waiting' || job.place === 'waiting-parts') await moveJob(jobId, 'on-bench');
  const file = { ...form.file, confirmed: form.confirmed ?? [] };
  const context = { site: await siteNow(), source: 'log file', file, standIn: form.standIn ?? false } as const;
  return {
    id: await insertRun({ jobId, step: form.step, state: 'recording', startedAt, person: form.person, context }),
  };
}

/** Takes one part: a frame of samples. */
export async function takeImportPart(
  id: string,
  part: { readonly sequence: number; readonly bytes: Uint8Array },
): Promise<void> {
  const run = await runNamed(id);
  if (run.state !== 'recording' || run.context.source !== 'log file')
    throw new RequestRefused(409, 'This run takes no parts of a log.');
  const read = readFrame(part.bytes);
  if (read.kind !== 'frame' || read.length !== part.bytes.length || read.frame.samples.time.length === 0)
    throw new RequestRefused(422, 'This part of the log is damaged: send it again.');
  await appendChunk(id, part.sequence, read.frame.samples, null);
}

/** Channels of a log whose figures are in doubt and which nobody has said to have looked at. */
async function questionedOf(run: Run): Promise<readonly string[]> {
  const { ambient } = contextOf(await jobNamed(run.jobId), run.context.site, run.startedAt);
  const confirmed = new Set(run.context.file?.confirmed);
  const questioned = await heavy('questioned', { runId: run.id, ambient: ambient.pressure });
  return questioned.flatMap(({ channel }) => (confirmed.has(channel) ? [] : [channel]));
}

/** All parts are there: the run is kept; what it means was shown before it was sent. A log with a hole is refused. */
export async function closeImport(id: string): Promise<void> {
  const run = await runNamed(id);
  if (run.state !== 'recording' || run.context.source !== 'log file')
    throw new RequestRefused(409, 'This run is not being read from a log.');
  const parts = await countChunks(id);
  if (parts.count === 0 || parts.count !== parts.next)
    throw new RequestRefused(409, 'Parts of this log did not arrive. Bring the log again.');
  const questioned = await questionedOf(run);
  if (questioned.length > 0) {
    await discardRun(id, run.person);
    const named = questioned.map((channel) => channelTitle(channel).toLowerCase()).join(', ');
    throw new RequestRefused(
      422,
      `Not kept: look again at ${named}. The unit or the reference of its figures is in doubt.`,
    );
  }
  await setRunState(id, 'kept', new Date().toISOString());
  const { jobId, person } = run;
  await recordAct({ jobId, subject: id, act: 'kept', person, detail: null });
  await reviewRelease(jobId, { person });
}
