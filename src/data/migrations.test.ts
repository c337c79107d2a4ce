import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import knex, { type Knex } from 'knex';
import { openDatabase } from './database';
import { migrations } from './migrations';

const opened: Knex[] = [];
afterAll(() => Promise.all(opened.map((each) => each.destroy())));

const folder = () => mkdtempSync(path.join(tmpdir(), 'shop-'));

async function open(at: string): Promise<Knex> {
  const database = await openDatabase(at);
  opened.push(database);
  return database;
}

/** A shop as its first edition left it, with a job, a run and a chunk of its trace in it. */
async function firstEdition(at: string): Promise<void> {
  const old = knex({
    client: 'better-sqlite3',
    connection: { filename: path.join(at, 'hard-pedal.sqlite') },
    useNullAsDefault: true,
  });
  await old.migrate.up({ migrationSource: migrations, name: '0001-first-shape' });
  await old('unit_sheets').insert({
    id: 's1',
    family: 'vacuum-remote',
    name: 'Tarnock R7',
    spec: '{}',
    created_at: '',
  });
  await old('jobs').insert({
    id: 'j1',
    number: 2601,
    serial: 'TK-2207-118',
    vehicle: 'Grader 1',
    complaint: '',
    place: 'on-bench',
    booked_at: '2026-11-23T08:00:00Z',
    booked_by: 'Ilse Varga',
    sheet: '{}',
    stand_in: '{}',
  });
  await old('runs').insert({
    id: 'r1',
    job_id: 'j1',
    step: 'boost-curve',
    state: 'kept',
    started_at: '2026-11-23T09:00:00Z',
    person: 'Ilse Varga',
    context: '{}',
  });
  await old('trace_chunks').insert({ run_id: 'r1', sequence: 0, samples: 200, columns: Buffer.from([1, 2, 3]) });
  await old.destroy();
}

const tablesOf = async (database: Knex): Promise<string[]> =>
  ((await database('sqlite_master').where({ type: 'table' }).pluck('name')) as string[]).sort();

describe('the shop’s book', () => {
  it('comes to the newest shape from its first edition, and keeps every row', async () => {
    const at = folder();
    await firstEdition(at);
    const database = await open(at);
    expect(await database('jobs').select('serial', 'plan')).toEqual([{ serial: 'TK-2207-118', plan: 'bench' }]);
    expect(await database('runs').select('id', 'readings')).toEqual([{ id: 'r1', readings: null }]);
    const [chunk] = (await database('trace_chunks').select('columns')) as { columns: Buffer }[];
    expect([...chunk.columns]).toEqual([1, 2, 3]);
    expect(await tablesOf(database)).toEqual(expect.arrayContaining(['column_mappings', 'spheres', 'sphere_checks']));
  });

  it('a new one has the same shape as one that grew', async () => {
    const grown = folder();
    await firstEdition(grown);
    const columns = async (database: Knex) =>
      Promise.all(
        (await tablesOf(database))
          .filter((table) => !table.startsWith('sqlite_'))
          .map(async (table) => [table, Object.keys(await database(table).columnInfo()).sort()] as const),
      );
    expect(await columns(await open(folder()))).toEqual(await columns(await open(grown)));
  });

  it('of several open runs of a job one stays open, and runs keep the order in which they were written', async () => {
    const at = folder();
    await firstEdition(at);
    const old = knex({
      client: 'better-sqlite3',
      connection: { filename: path.join(at, 'hard-pedal.sqlite') },
      useNullAsDefault: true,
    });
    const run = { job_id: 'j1', step: 'boost-curve', person: 'Ilse Varga', context: '{}' };
    // A clock was set back between the two.
    await old('runs').insert({ ...run, id: 'r3', state: 'recording', started_at: '2026-11-23T11:00:00Z' });
    await old('runs').insert({ ...run, id: 'r2', state: 'complete', started_at: '2026-11-23T10:00:00Z' });
    await old.destroy();
    const rows = await (await open(at))('runs').orderBy('sequence').select('id', 'state', 'sequence');
    expect(rows).toEqual([
      { id: 'r1', state: 'kept', sequence: 1 },
      { id: 'r3', state: 'aside', sequence: 2 },
      { id: 'r2', state: 'complete', sequence: 3 },
    ]);
  });

  it('is opened again as it is', async () => {
    const at = folder();
    await (await open(at))('people').insert({ id: 'ilse', name: 'Ilse Varga', role: 'bench lead' });
    expect(await (await open(at))('people').pluck('name')).toEqual(['Ilse Varga']);
  });

  it('goes back step by step to nothing', async () => {
    const database = await open(folder());
    await database.migrate.rollback({ migrationSource: migrations }, true);
    expect((await tablesOf(database)).filter((table) => !/^(sqlite_|knex_)/.test(table))).toEqual([]);
  });

  it('a check belongs to a sphere that is in the book, and a chunk goes with its run', async () => {
    const database = await open(folder());
    const check = {
      id: 'c1',
      serial: 'nobody',
      at: '',
      reading: 1,
      temperature: 1,
      precharge: 1,
      standard: 1,
      person: '',
    };
    // By its code: a driver loaded for an earlier test in the same process throws errors of that test's realm.
    await expect(database('sphere_checks').insert(check)).rejects.toMatchObject({
      code: 'SQLITE_CONSTRAINT_FOREIGNKEY',
    });
    const at = folder();
    await firstEdition(at);
    const grown = await open(at);
    await grown('runs').where({ id: 'r1' }).delete();
    expect(await grown('trace_chunks').pluck('run_id')).toEqual([]);
  });
});
