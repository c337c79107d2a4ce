import { randomUUID } from 'node:crypto';
import * as z from 'zod';
import { readFrame } from '@/core/traces/frame';
import { channelTitle } from '@/core/quantities/channels';
import { mappingSchema } from '@/data/column-mappings';
import { appendChunk, countChunks, type Run } from '@/data/runs';
import { contextOf, jobNamed, measuredStepOf, runNamed, sheetOf, stillOpen } from '../context/job-context';
import { RequestRefused } from '../http/refused';
import { refuseUnknownSite } from '../shop/shop-now';
import { heavy } from '../threads/pool';
import { changeJob } from './change-job';
import { refuseShut } from './open-step';
import { actOn, discardRun, thrownAway, toTheBench } from './runs';

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

const isImport = (run: Run) => run.state === 'recording' && run.context.source === 'log file';

/** Opens a run that is fed from a log file: its parts follow, then it is closed. */
export async function beginImport(
  jobId: string,
  form: z.input<typeof importSchema>,
): Promise<{ id: string; version: number }> {
  return changeJob(jobId, {
    person: form.person,
    async decide({ record, shop, at }) {
      measuredStepOf(sheetOf(record.job).kind, form.step);
      refuseUnknownSite(shop);
      await refuseShut(record, shop, form.step);
      const open = record.runs.find((run) => run.state === 'complete' || (run.state === 'recording' && !isImport(run)));
      if (open) throw stillOpen(record.job, open.step);
      // What is left of a log that broke off makes room for the next attempt.
      const broken = await Promise.all(record.runs.filter(isImport).map((run) => thrownAway(run, form.person)));
      const id = randomUUID();
      const file = { ...form.file, confirmed: form.confirmed ?? [] };
      const context = { site: shop.site, source: 'log file', file, standIn: form.standIn ?? false } as const;
      const run = { jobId, step: form.step, state: 'recording', startedAt: at, person: form.person, context } as const;
      return {
        edits: [
          ...broken.flat(),
          { kind: 'mapping-remembered', fingerprint: form.fingerprint, mapping: form.mapping },
          ...toTheBench(record),
          { kind: 'run-begun', id, run },
          actOn(jobId, id, 'begun', { person: form.person }),
        ],
        result: { id },
      };
    },
  });
}

/** Takes one part: a frame of samples. */
export async function takeImportPart(
  id: string,
  part: { readonly sequence: number; readonly bytes: Uint8Array },
): Promise<void> {
  const run = await runNamed(id);
  if (!isImport(run)) throw new RequestRefused(409, 'This run takes no parts of a log.');
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
export async function closeImport(id: string): Promise<{ version: number }> {
  const run = await runNamed(id);
  const notImport = () => new RequestRefused(409, 'This run is not being read from a log.');
  if (!isImport(run)) throw notImport();
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
  const { jobId, person } = run;
  return changeJob(jobId, {
    person,
    // What the log means was decided on when it was begun; what was done beside it does not change that.
    anyVersion: true,
    decide({ record, at }) {
      const now = record.runs.find((each) => each.id === id);
      if (!now || !isImport(now)) throw notImport();
      return {
        edits: [
          { kind: 'run-state', id, from: 'recording', to: 'kept', endedAt: at },
          actOn(jobId, id, 'kept', { person }),
        ],
        result: {},
      };
    },
  });
}
