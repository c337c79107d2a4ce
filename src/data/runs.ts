import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import * as z from 'zod';
import { storedSiteSchema } from '@/core/formats/site-instrument';
import { packFrame } from '@/core/traces/frame';
import { concatTraces, type Trace } from '@/core/traces/trace';
import { database } from './database';
import { decodeChunk, encodeFrame } from './trace-codec';

/**
 * `recording` in the database without a recorder in the process is a run that a crash interrupted; `aside` is a finished run whose
 * step is being run again: it is thrown away when the new one is kept, and comes back when that is not.
 */
export const runStates = ['recording', 'complete', 'aside', 'kept', 'discarded'] as const;
export type RunState = (typeof runStates)[number];

/** What a run was recorded with. */
const contextSchema = z.object({
  site: storedSiteSchema,
  source: z.enum(['stand-in rig', 'looked at', 'dial readings', 'log file']),
  /** Name of the log file, and the rows of it that were left out. */
  file: z
    .object({
      name: z.string(),
      leftOut: z.array(z.string()),
      /** Channels whose unlikely figures somebody has looked at. */
      confirmed: z.array(z.string()).optional(),
    })
    .optional(),
  /** Set where dial readings or a log came from the stand-in after all: a paper must say so. */
  standIn: z.boolean().optional(),
});
export type RunContext = z.infer<typeof contextSchema>;

/** Whether what a run holds was measured by the stand-in. */
export function isStandIn({ source, standIn }: RunContext): boolean {
  return source === 'stand-in rig' || standIn === true;
}

const rowSchema = z.object({
  id: z.string(),
  job_id: z.string(),
  step: z.string(),
  state: z.enum(runStates),
  started_at: z.string(),
  ended_at: z.string().nullable(),
  person: z.string(),
  context: z.string().transform((text) => contextSchema.parse(JSON.parse(text))),
  findings: z
    .string()
    .nullable()
    .transform((text) => (text === null ? null : z.record(z.string(), z.string()).parse(JSON.parse(text)))),
  readings: z
    .string()
    .nullable()
    .transform((text) => (text === null ? null : z.record(z.string(), z.number()).parse(JSON.parse(text)))),
  progress: z
    .string()
    .nullable()
    .transform((text) => (text === null ? null : (JSON.parse(text) as unknown))),
  struck_out: z.string().nullable(),
  sequence: z.number(),
});

export interface Run {
  readonly id: string;
  readonly jobId: string;
  readonly step: string;
  readonly state: RunState;
  readonly startedAt: string;
  readonly endedAt: string | null;
  readonly person: string;
  readonly context: RunContext;
  readonly findings: Readonly<Record<string, string>> | null;
  /** Dial readings typed by hand, SI by field. */
  readonly readings: Readonly<Record<string, number>> | null;
  /** State of guide and rig at the last chunk, for resuming. */
  readonly progress: unknown;
  /** Reason why a kept run is not counted. */
  readonly struckOut: string | null;
  /** Its place among the runs of its job, from 1: what came first, whatever any clock said. */
  readonly sequence: number;
}

/** A row as a run; throws where it is damaged. */
export function runFromRow(row: unknown): Run {
  const parsed = rowSchema.parse(row);
  return {
    id: parsed.id,
    jobId: parsed.job_id,
    step: parsed.step,
    state: parsed.state,
    startedAt: parsed.started_at,
    endedAt: parsed.ended_at,
    person: parsed.person,
    context: parsed.context,
    findings: parsed.findings,
    readings: parsed.readings,
    progress: parsed.progress,
    struckOut: parsed.struck_out,
    sequence: parsed.sequence,
  };
}

export interface NewRun {
  readonly jobId: string;
  readonly step: string;
  readonly state: RunState;
  readonly startedAt: string;
  readonly person: string;
  readonly context: RunContext;
  readonly findings?: Readonly<Record<string, string>>;
  readonly readings?: Readonly<Record<string, number>>;
}

export async function insertRun(run: NewRun): Promise<string> {
  const id = randomUUID();
  await insertRunRow(await database(), id, run);
  return id;
}

/** Writes a new run's row as the last of its job. */
export async function insertRunRow(trx: Knex, id: string, run: NewRun): Promise<void> {
  await trx('runs').insert({
    id,
    job_id: run.jobId,
    step: run.step,
    state: run.state,
    started_at: run.startedAt,
    ended_at: run.state === 'recording' ? null : run.startedAt,
    person: run.person,
    context: JSON.stringify(run.context),
    findings: run.findings ? JSON.stringify(run.findings) : null,
    readings: run.readings ? JSON.stringify(run.readings) : null,
    sequence: trx.raw('(select coalesce(max(sequence), 0) + 1 from runs where job_id = ?)', [run.jobId]),
  });
}

export async function findRun(id: string): Promise<Run | undefined> {
  const row: unknown = await (await database())('runs').where({ id }).first();
  return row === undefined ? undefined : runFromRow(row);
}

/** Runs of a job, oldest first, without those thrown away. */
export async function listRuns(jobId: string): Promise<Run[]> {
  return (await listEveryRun(jobId)).filter((run) => run.state !== 'discarded');
}

/** Runs of a job, oldest first, those thrown away too: what they did to the unit they have done. */
export async function listEveryRun(jobId: string): Promise<Run[]> {
  const rows: unknown[] = await (await database())('runs').where({ job_id: jobId }).orderBy('sequence');
  return rows.map(runFromRow);
}

export async function setRunState(id: string, state: RunState, endedAt?: string): Promise<void> {
  await (
    await database()
  )('runs')
    .where({ id })
    .update(endedAt === undefined ? { state } : { state, ended_at: endedAt });
}

/** A recorder has come to the end of a run: it waits to be kept, unless it was thrown away meanwhile. */
export async function endRun(id: string, endedAt: string): Promise<void> {
  await (await database())('runs').where({ id, state: 'recording' }).update({ state: 'complete', ended_at: endedAt });
}

/** Brings back finished runs that were set aside for one that never came to be. */
export async function bringBackAside(): Promise<void> {
  const db = await database();
  const open = db('runs as open')
    .whereIn('open.state', ['recording', 'complete'])
    .whereRaw('open.job_id = runs.job_id');
  const later = db('runs as later')
    .where('later.state', 'aside')
    .whereRaw('later.job_id = runs.job_id and later.sequence > runs.sequence');
  // One a job: the last one that was set aside.
  await db('runs').where({ state: 'aside' }).whereNotExists(open).whereNotExists(later).update({ state: 'complete' });
}

/** Strikes a run out with a reason, or counts it again (null). */
export async function strikeOutRun(id: string, reason: string | null): Promise<void> {
  await (await database())('runs').where({ id }).update({ struck_out: reason });
}

/** Appends a chunk and the progress it belongs to, both or neither. */
export async function appendChunk(id: string, sequence: number, chunk: Trace, progress: unknown): Promise<void> {
  await appendFrame(id, { sequence, samples: chunk.time.length, frame: packFrame(chunk) }, progress);
}

/** A chunk as its frame was packed already, and its number. */
export interface PackedChunk {
  readonly sequence: number;
  readonly samples: number;
  readonly frame: Uint8Array;
}

export async function appendFrame(
  id: string,
  { sequence, samples, frame }: PackedChunk,
  progress: unknown,
): Promise<void> {
  const [db, columns] = await Promise.all([database(), encodeFrame(frame)]);
  await db.transaction(async (trx) => {
    await trx('trace_chunks').insert({
      run_id: id,
      sequence,
      samples,
      columns,
    });
    await trx('runs')
      .where({ id })
      .update({ progress: JSON.stringify(progress) });
  });
}

const chunkSchema = z.object({ sequence: z.number(), columns: z.instanceof(Buffer) });

/** The whole trace of a run, and the number of its next chunk. */
export async function readTrace(id: string): Promise<{ trace: Trace; nextSequence: number }> {
  const rows: unknown[] = await (await database())('trace_chunks').where({ run_id: id }).orderBy('sequence');
  const chunks = rows.map((row) => chunkSchema.parse(row));
  return {
    trace: concatTraces(await Promise.all(chunks.map((chunk) => decodeChunk(chunk.columns)))),
    nextSequence: (chunks.at(-1)?.sequence ?? -1) + 1,
  };
}

/** How many chunks a run has, and the number that the next one would have: the same where none is missing. */
export async function countChunks(id: string): Promise<{ readonly count: number; readonly next: number }> {
  const row: unknown = await (
    await database()
  )('trace_chunks')
    .where({ run_id: id })
    .count('sequence as count')
    .max('sequence as last')
    .first();
  const { count, last } = z.object({ count: z.number(), last: z.number().nullable() }).parse(row);
  return { count, next: (last ?? -1) + 1 };
}
