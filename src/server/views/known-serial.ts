import { jobsOfSerial } from '@/data/jobs';
import { findEvaluation } from '@/data/kept-results';
import { listSheets } from '@/data/unit-sheets';
import type { UnitVerdict } from '@/core/vocabulary/verdict';
import { isNoSerial } from '../judging/came-back';

/** A job that a serial was here for. */
export interface EarlierJob {
  readonly id: string;
  readonly number: number;
  readonly at: string;
  readonly complaint: string;
  /** What it came to as it was judged last; null where that is not kept. */
  readonly verdict: UnitVerdict | null;
}

/** What the house knows of a serial that is being booked in. */
export interface KnownSerial {
  /** Latest first; empty for one that was never here. */
  readonly jobs: readonly EarlierJob[];
  /** How many there are before those. */
  readonly earlier: number;
  /** What it came off last, and the sheet of the library that it was held against, where that is still there. */
  readonly last: { readonly vehicle: string; readonly sheetId: string | null; readonly sheet: string } | null;
}

const nothing: KnownSerial = { jobs: [], earlier: 0, last: null };
const mostShown = 4;

/** What is known of a serial; nothing for a unit without a plate. Nothing is judged for it: what was kept is read. */
export async function knownSerial(serial: string): Promise<KnownSerial> {
  const wanted = serial.trim();
  if (wanted.length < 2 || isNoSerial(wanted)) return nothing;
  const jobs = (await jobsOfSerial(wanted, Number.MAX_SAFE_INTEGER)).reverse();
  const [last] = jobs;
  if (!last) return nothing;
  const sheets = await listSheets();
  const sheet = sheets.find(({ family, name }) => family === last.sheet.family && name === last.sheet.name);
  return {
    jobs: await Promise.all(
      jobs.slice(0, mostShown).map(async ({ id, number, bookedAt, complaint }): Promise<EarlierJob> => {
        const kept = await findEvaluation(id);
        return { id, number, at: bookedAt, complaint, verdict: kept?.evaluation.verdict ?? null };
      }),
    ),
    earlier: Math.max(0, jobs.length - mostShown),
    last: { vehicle: last.vehicle, sheetId: sheet?.id ?? null, sheet: last.sheet.name },
  };
}
