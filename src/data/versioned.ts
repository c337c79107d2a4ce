import type { Knex } from 'knex';
import { database } from './database';

/** How often a record of the workshop's (its settings, the instrument of a channel, a sphere) has been changed; 0 where it never was. */
export async function versionOfKey(key: string): Promise<number> {
  const row = (await (await database())('versions').where({ key }).first('version')) as { version: number } | undefined;
  return row?.version ?? 0;
}

/** Counts a record's version up and writes what belongs to it, both or neither; the first statement takes the database for this one. */
export async function changeVersioned(key: string, write: (trx: Knex) => Promise<void>): Promise<number> {
  return (await database()).transaction(async (trx) => {
    await trx('versions')
      .insert({ key, version: 1 })
      .onConflict('key')
      .merge({ version: trx.raw('versions.version + 1') });
    await write(trx);
    const row = (await trx('versions').where({ key }).first('version')) as { version: number };
    return row.version;
  });
}
