import type { Knex } from 'knex';
import { firstShape } from './0001-first-shape';
import { spheres } from './0003-spheres';
import { acts } from './0004-acts';
import { standIns } from './0006-stand-ins';
import { undo } from './0005-undo';
import { keptResults } from './0007-kept-results';
import { symptoms } from './0008-symptoms';
import { rounds } from './0009-rounds';
import { behind } from './0010-behind';
import { oneRecord } from './0011-one-record';
import { waysToFeedAStep } from './0002-ways-to-feed-a-step';

interface Migration {
  readonly name: string;
  up(knex: Knex): Promise<void>;
  down(knex: Knex): Promise<void>;
}

const all: readonly Migration[] = [
  firstShape,
  waysToFeedAStep,
  spheres,
  acts,
  undo,
  standIns,
  keptResults,
  symptoms,
  rounds,
  behind,
  oneRecord,
];

/** Names of all changes of shape that this edition knows. */
export const knownMigrations: readonly string[] = all.map(({ name }) => name);

/** Migrations in order, kept in code so that they are bundled with the server. */
export const migrations: Knex.MigrationSource<Migration> = {
  getMigrations: () => Promise.resolve([...all]),
  getMigrationName: (migration) => migration.name,
  getMigration: (migration) => Promise.resolve(migration),
};
