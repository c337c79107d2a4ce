import { mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import knex from 'knex';
import { openDatabase } from './database';
import { markEntries, Unusable } from './unusable';

const folder = () => mkdtempSync(path.join(tmpdir(), 'shop-'));
const fileIn = (at: string) => path.join(at, 'hard-pedal.sqlite');

async function shopIn(at: string): Promise<void> {
  const database = await openDatabase(at);
  await database('jobs').insert({
    id: 'j1',
    number: 2601,
    serial: 'TK-1',
    vehicle: '',
    complaint: '',
    place: 'waiting',
    booked_at: '',
    booked_by: '',
    sheet: '{}',
  });
  await markEntries(database, at);
  await database.raw('pragma wal_checkpoint(truncate)');
  await database.destroy();
}

/** Does something to a shop's file by another hand. */
async function meddle(at: string, sql: string): Promise<void> {
  const other = knex({ client: 'better-sqlite3', connection: { filename: fileIn(at) }, useNullAsDefault: true });
  await other.raw(sql);
  await other.destroy();
}

const refusal = async (at: string): Promise<string> => {
  const before = readFileSync(fileIn(at));
  const error = await openDatabase(at).then(
    (opened) => opened.destroy().then(() => null),
    (failed: unknown) => failed,
  );
  expect(error).toBeInstanceOf(Unusable);
  // What cannot be used is not touched.
  expect(readFileSync(fileIn(at)).equals(before)).toBe(true);
  return (error as Unusable).message;
};

describe('a shop’s data that cannot be used', () => {
  it.each<[string, (at: string) => Promise<void> | void, RegExp]>([
    ['empty', (at) => writeFileSync(fileIn(at), ''), /is empty/],
    ['cut off', (at) => truncateSync(fileIn(at), 40_000), /cut off/],
    ['no database', (at) => writeFileSync(fileIn(at), 'a letter to the bank, and more of it'), /no database of a shop/],
    [
      'newer',
      (at) => meddle(at, "insert into knex_migrations (name, batch) values ('9999-later', 9)"),
      /newer edition/,
    ],
    ['left locked', (at) => meddle(at, 'update knex_migrations_lock set is_locked = 1'), /migrate -- --unlock/],
    ['without its newest jobs', (at) => meddle(at, 'delete from jobs'), /up to job 2601 was written/],
  ])('%s: is refused in one sentence that says what brings it back', async (_, spoil, words) => {
    const at = folder();
    await shopIn(at);
    await spoil(at);
    expect(await refusal(at)).toMatch(words);
  });

  it('of something else is not taken for a shop, and one that is gone is not begun anew', async () => {
    const at = folder();
    await meddle(at, 'create table recipes (id integer)');
    expect(await refusal(at)).toMatch(/not of a shop/);
    const gone = folder();
    await shopIn(gone);
    rmSync(fileIn(gone));
    await expect(openDatabase(gone)).rejects.toThrow(/is gone, and there was one here before/);
  });

  it('a whole one is opened as it is', async () => {
    const at = folder();
    await shopIn(at);
    const database = await openDatabase(at);
    expect(await database('jobs').pluck('number')).toEqual([2601]);
    await database.destroy();
  });
});
