import * as z from 'zod';
import { actFromRow, type Act } from './acts';
import { database } from './database';
import type { Run } from './runs';

/** A row of the floor: what the book says of a job, and the card that was made of it last. */
const rowSchema = z.object({
  id: z.string(),
  number: z.number(),
  serial: z.string(),
  vehicle: z.string(),
  place: z.string(),
  promised_at: z.string().nullable(),
  sheet_name: z.string().nullable(),
  epoch: z.string().nullable(),
  card: z.string().nullable(),
});

export interface FloorRow {
  readonly id: string;
  /** Null where the row of the book cannot be read as it is. */
  readonly head: Omit<z.infer<typeof rowSchema>, 'epoch' | 'card'> | null;
  /** The card, and what it hangs on besides the job; null where none is kept. */
  readonly kept: { readonly epoch: string; readonly card: string } | null;
  /** The mark of what makes it just now; null where nothing does. */
  readonly making: string | null;
}

/** Jobs in the house with their cards, in the order they were booked: one statement, whatever the size of the book. */
export async function floorRows(): Promise<readonly FloorRow[]> {
  const rows: Record<string, unknown>[] = await (
    await database()
  )('jobs')
    .leftJoin('floor_cards', 'floor_cards.job_id', 'jobs.id')
    .whereRaw(`jobs.place <> 'gone' and jobs.taken_out_at is null`)
    .orderBy('jobs.number')
    .select('jobs.id', 'number', 'serial', 'vehicle', 'place', 'promised_at', 'epoch', 'card')
    .select((await database()).raw(`case when json_valid(sheet) then json_extract(sheet, '$.name') end as sheet_name`));
  return rows.map((row) => {
    const { data } = rowSchema.safeParse(row);
    if (!data) return { id: String(row.id), head: null, kept: null, making: null };
    const { epoch, card, ...head } = data;
    const kept = epoch === null || card === null || card === '' ? null : { epoch, card };
    return { id: head.id, head, kept, making: card === '' ? epoch : null };
  });
}

/** Runs that are recorded or wait to be kept, of all jobs: one a job at most. */
export async function openRuns(): Promise<readonly Pick<Run, 'id' | 'jobId' | 'step' | 'state'>[]> {
  const rows = (await (
    await database()
  )('runs')
    .whereRaw(`state in ('recording', 'complete')`)
    .select('id', 'job_id', 'step', 'state')) as { id: string; job_id: string; step: string; state: Run['state'] }[];
  return rows.map(({ job_id, ...run }) => ({ ...run, jobId: job_id }));
}

/** A job that has left the floor, with what was done to it lately. */
export interface LeftRow {
  readonly id: string;
  readonly number: number;
  readonly serial: string;
  readonly place: string;
  readonly takenOutAt: string | null;
  readonly acts: readonly Act[];
}

const recentSchema = z.object({
  number: z.number(),
  serial: z.string(),
  place: z.string(),
  taken_out_at: z.string().nullable(),
});

/** What was moved or taken out since a moment and is not on the floor, and the acts that say that the clock ran back. */
export async function recentActs(
  since: string,
): Promise<{ readonly left: readonly LeftRow[]; readonly clock: readonly Act[] }> {
  const rows: Record<string, unknown>[] = await (
    await database()
  )('acts')
    .join('jobs', 'jobs.id', 'acts.job_id')
    .where('acts.at', '>=', since)
    .whereRaw(`acts.act in ('moved', 'taken-out', 'clock-ran-back')`)
    // By number, and found by time all the same.
    .orderByRaw('+acts.id')
    .select('acts.*', 'jobs.number', 'jobs.serial', 'jobs.place', 'jobs.taken_out_at');
  const left = new Map<string, LeftRow>();
  const clock: Act[] = [];
  for (const row of rows) {
    const job = recentSchema.safeParse(row).data;
    if (!job) continue;
    let act: Act;
    try {
      act = actFromRow(row);
    } catch {
      continue;
    }
    if (act.act === 'clock-ran-back') clock.push(act);
    else if (job.place === 'gone' || job.taken_out_at !== null) {
      const { taken_out_at, ...rest } = job;
      const known = left.get(act.jobId) ?? { ...rest, id: act.jobId, takenOutAt: taken_out_at, acts: [] };
      left.set(act.jobId, { ...known, acts: [...known.acts, act] });
    }
  }
  return { left: [...left.values()], clock };
}

/**
 * Makes a card and keeps it, unless something that it shows has changed on the way: `mark` stands in its place meanwhile, which goes with
 * that change. A card that is not to be kept is handed on all the same.
 */
export async function makeCard<T>(
  jobId: string,
  { mark, epoch }: { readonly mark: string; readonly epoch: string },
  make: () => Promise<{ card: T; keep: boolean }>,
): Promise<T> {
  const db = await database();
  await db('floor_cards').insert({ job_id: jobId, epoch: mark, card: '' }).onConflict('job_id').merge();
  const { card, keep } = await make();
  if (keep)
    await db('floor_cards')
      .where({ job_id: jobId, epoch: mark })
      .update({ epoch, card: JSON.stringify(card) });
  return card;
}
