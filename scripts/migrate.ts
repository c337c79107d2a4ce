import path from 'node:path';
import knex from 'knex';
import { dataFolder, openDatabase } from '@/data/database';
import { FolderTaken, takeFolder } from '@/data/one-server';
import { Unusable } from '@/data/unusable';

/** Brings the shop's database to this edition's shape; `--unlock` first takes back what a broken change has left. */
try {
  await takeFolder();
  if (process.argv.includes('--unlock')) {
    const filename = path.join(dataFolder(), 'hard-pedal.sqlite');
    const locked = knex({ client: 'better-sqlite3', connection: { filename }, useNullAsDefault: true });
    await locked('knex_migrations_lock').update({ is_locked: 0 });
    await locked.destroy();
  }
  await (await openDatabase()).destroy();
  process.exit(0);
} catch (error) {
  if (!(error instanceof FolderTaken || error instanceof Unusable)) throw error;
  console.error(error.message);
  process.exit(1);
}
