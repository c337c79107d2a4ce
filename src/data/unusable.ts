import { closeSync, existsSync, openSync, readFileSync, readSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Knex } from 'knex';
import { knownMigrations } from './migrations';

/** Why the data cannot be used as they are; the message says what that means and what brings them back. */
export class Unusable extends Error {}

/** Stands beside the database and says how far it had come: a database that knows less has lost something. */
const markFile = 'hard-pedal.mark';

const magic = 'SQLite format 3\0';

/** Refuses a file that is no database, or only the beginning of one. A file that is not there yet is made. */
export function refuseUnusableFile(file: string): void {
  if (!existsSync(file)) {
    if (existsSync(path.join(path.dirname(file), markFile)))
      throw new Unusable(
        `The shop’s database ${file} is gone, and there was one here before: put it back from a copy, or remove ${markFile} beside it to begin an empty shop.`,
      );
    return;
  }
  const { size } = statSync(file);
  if (size === 0)
    throw new Unusable(
      `The shop’s database ${file} is empty: it was cut off, or never written. Put it back from a copy; if there never was one, remove the file and start again.`,
    );
  const head = Buffer.alloc(100);
  const handle = openSync(file, 'r');
  readSync(handle, head, 0, 100, 0);
  closeSync(handle);
  if (head.toString('latin1', 0, 16) !== magic)
    throw new Unusable(
      `${file} is no database of a shop: something else was put in its place. Move it away, and put the shop’s own file back from a copy.`,
    );
  const written = head.readUInt16BE(16);
  const pageSize = written === 1 ? 65_536 : written;
  if (size < pageSize || head.readUInt32BE(28) * pageSize > size)
    throw new Unusable(
      `The shop’s database ${file} is cut off: part of it is missing. Put it back from a copy; nothing was changed in it.`,
    );
}

/** Refuses a database of something else, of a newer edition, or whose change of shape was broken off. */
export async function refuseUnusableShape(database: Knex, file: string): Promise<void> {
  const names = (await database('sqlite_master')
    .where({ type: 'table' })
    .pluck('name')
    .catch((error: { code?: string }) => {
      throw error.code === 'SQLITE_CORRUPT' || error.code === 'SQLITE_NOTADB'
        ? new Unusable(
            `The shop’s database ${file} is damaged and cannot be read. Put it back from a copy; nothing was changed in it.`,
          )
        : error;
    })) as string[];
  const tables = names.filter((name) => !name.startsWith('sqlite_'));
  if (tables.length === 0) return;
  if (!tables.includes('knex_migrations'))
    throw new Unusable(
      `${file} is a database, but not of a shop: something else was put in its place. Move it away, and put the shop’s own file back from a copy.`,
    );
  const made = (await database('knex_migrations').pluck('name')) as string[];
  if (made.some((name) => !knownMigrations.includes(name)))
    throw new Unusable(
      `The shop’s database ${file} was written by a newer edition of Hard Pedal: this one cannot read it. Start the newer edition, or put back a copy from before it; nothing was changed in it.`,
    );
  const locked = tables.includes('knex_migrations_lock')
    ? ((await database('knex_migrations_lock').pluck('is_locked')) as number[])
    : [];
  if (locked.includes(1))
    throw new Unusable(
      `A change of the shop’s database ${file} to this edition’s shape was broken off. What was begun was taken back with it; “npm run migrate -- --unlock” tries it again.`,
    );
}

interface Mark {
  readonly jobs: number;
  readonly acts: number;
}

async function markOf(database: Knex): Promise<Mark> {
  const [jobs, acts] = (await Promise.all([
    database('jobs').max('number as last').first(),
    database('acts').max('id as last').first(),
  ])) as { last: number | null }[];
  return { jobs: jobs.last ?? 0, acts: acts.last ?? 0 };
}

/** Refuses a database that knows less than it had been told: what was written last was lost, with the file in which it stood. */
export async function refuseLostEntries(database: Knex, folder: string): Promise<void> {
  const file = path.join(folder, markFile);
  if (!existsSync(file)) return;
  let mark: Mark;
  try {
    mark = JSON.parse(readFileSync(file, 'utf8')) as Mark;
  } catch {
    return;
  }
  const now = await markOf(database);
  if (now.jobs < mark.jobs || now.acts < mark.acts)
    throw new Unusable(
      `The newest entries of the shop’s book are missing (up to job ${mark.jobs} was written, up to ${now.jobs} is here): the file hard-pedal.sqlite-wal, which held them, is not beside the database any more. Put it back beside it, or a whole copy; to go on without them, remove ${file}.`,
    );
}

/** Takes away what was said of how far the database had come: an older one was put back on purpose. */
export function forgetMark(folder: string): void {
  rmSync(path.join(folder, markFile), { force: true });
}

/** Says beside the database how far it has come. */
export async function markEntries(database: Knex, folder: string): Promise<void> {
  try {
    writeFileSync(path.join(folder, markFile), JSON.stringify(await markOf(database)));
  } catch (error) {
    console.error('how far the book has come could not be noted beside it', error);
  }
}
