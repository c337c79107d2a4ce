import type { Knex } from 'knex';
import { insertActRow } from './acts';
import { database } from './database';

/** A clock that is set by hand or by the network moves by less than this, ms; more is said. */
const ordinaryCorrection = 5_000;

/**
 * Puts on record with a change that the clock has run back since the last one, and goes by it from then on: nothing that is decided hangs
 * on it, because what came first is told by numbers.
 */
export async function clockSeen(trx: Knex, at: string, jobId: string, version: number): Promise<void> {
  const row = (await trx('clock').where({ id: 1 }).first('latest')) as { latest: string } | undefined;
  const back = row ? Date.parse(row.latest) - Date.parse(at) : 0;
  if (row && !Number.isNaN(back) && back > 0 && back <= ordinaryCorrection) return;
  if (row && back > ordinaryCorrection) {
    const detail = String(Math.round(back / 1000));
    const act = {
      jobId,
      subject: null,
      act: 'clock-ran-back',
      person: 'Hard Pedal',
      detail,
      before: row.latest,
    } as const;
    await insertActRow(trx, act, at, version);
  }
  await trx('clock').insert({ id: 1, latest: at }).onConflict('id').merge();
}

/** The time that was last put on record, if any. */
export async function latestOnRecord(): Promise<string | null> {
  const row = (await (await database())('clock').where({ id: 1 }).first('latest')) as { latest: string } | undefined;
  return row?.latest ?? null;
}
