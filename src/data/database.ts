import { existsSync, mkdirSync } from 'node:fs';
import { isMainThread } from 'node:worker_threads';
import path from 'node:path';
import knex, { type Knex } from 'knex';
import { migrations } from './migrations';
import { refuseLostEntries, refuseUnusableFile, refuseUnusableShape } from './unusable';

/** Where the shop's data lies: `HARD_PEDAL_DATA`, else ./data. */
export function dataFolder(): string {
  return process.env.HARD_PEDAL_DATA ?? path.join(process.cwd(), 'data');
}

/** Looks at what is there before anything is written: what cannot be used stays as it is. */
async function refuseUnusable(folder: string, file: string): Promise<void> {
  refuseUnusableFile(file);
  if (!existsSync(file)) return;
  const looked = knex({
    client: 'better-sqlite3',
    connection: { filename: file, options: { readonly: true } },
    useNullAsDefault: true,
  });
  try {
    await refuseUnusableShape(looked, file);
    await refuseLostEntries(looked, folder);
  } finally {
    await looked.destroy();
  }
}

/** Opens the database and, where this is not one of the process's other threads, brings it to the newest shape. */
export async function openDatabase(folder = dataFolder()): Promise<Knex> {
  mkdirSync(folder, { recursive: true });
  const file = path.join(folder, 'hard-pedal.sqlite');
  if (isMainThread) await refuseUnusable(folder, file);
  const database = knex({
    client: 'better-sqlite3',
    connection: { filename: file },
    useNullAsDefault: true,
    pool: {
      min: 1,
      max: 1,
      afterCreate(connection: { pragma(text: string): void }, done: (error: null, connection: unknown) => void) {
        // A committed chunk must outlive a power cut; readers must not wait for a running trace.
        connection.pragma('journal_mode = WAL');
        connection.pragma('synchronous = FULL');
        connection.pragma('foreign_keys = ON');
        done(null, connection);
      },
    },
  });
  if (!isMainThread) return database;
  try {
    await database.migrate.latest({ migrationSource: migrations });
  } catch (error) {
    await database.destroy();
    throw error;
  }
  return database;
}

// One connection for the whole process, also across the bundler's copies of this module.
const shared = globalThis as { hardPedalDatabase?: Promise<Knex> };

/** The process's database. One that could not be opened is tried again the next time. */
export function database(): Promise<Knex> {
  if (!shared.hardPedalDatabase) {
    const opening = openDatabase();
    shared.hardPedalDatabase = opening;
    opening.catch(() => {
      if (shared.hardPedalDatabase === opening) delete shared.hardPedalDatabase;
    });
  }
  return shared.hardPedalDatabase;
}
