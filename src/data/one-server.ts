import { mkdirSync } from 'node:fs';
import path from 'node:path';
import knex, { type Knex } from 'knex';
import { dataFolder } from './database';

/** A second server on one data folder: both would write to one set of runs. */
export class FolderTaken extends Error {}

/** Kept from being collected: the lock goes with its handle. */
const shared = globalThis as { hardPedalLocks?: Knex[] };
const held = (shared.hardPedalLocks ??= []);

/**
 * Takes a data folder for this process, for as long as it lives: a lock of the operating system's on a file in it, which a crash lets go
 * like an orderly end. Returns what gives it back; throws `FolderTaken` where another process has it.
 */
export async function takeFolder(folder = dataFolder()): Promise<() => Promise<void>> {
  mkdirSync(folder, { recursive: true });
  const lock = knex({
    client: 'better-sqlite3',
    connection: { filename: path.join(folder, 'server.lock') },
    useNullAsDefault: true,
    pool: { min: 1, max: 1 },
  });
  try {
    await lock.raw('pragma busy_timeout = 0');
    await lock.raw('pragma locking_mode = exclusive');
    await lock.raw('begin exclusive');
    held.push(lock);
    return () => lock.destroy();
  } catch (error) {
    await lock.destroy();
    if ((error as { code?: unknown }).code !== 'SQLITE_BUSY') throw error;
    throw new FolderTaken(
      `The data folder ${folder} is in use by another Hard Pedal server. End that one, or give this one a folder of its own (HARD_PEDAL_DATA).`,
    );
  }
}
