import path from 'node:path';
import knex from 'knex';
import { demoFolder, startServer } from './bench-server';

/** Makes a book of so many jobs with ten runs each out of one demo job: gone, but for those that were there. */
async function fill(data: string, jobs: number): Promise<void> {
  const db = knex({
    client: 'better-sqlite3',
    connection: { filename: path.join(data, 'hard-pedal.sqlite') },
    useNullAsDefault: true,
  });
  const numbers = `with recursive n(i) as (select 1 union all select i + 1 from n where i < ${jobs})`;
  const copied = 'vehicle, complaint, booked_at, booked_by, promised_at, sheet, plan, symptoms, ordered_by';
  await db.raw(
    `${numbers} insert into jobs (id, number, place, serial, ${copied})
     select 'old-' || i, 10000 + i, 'gone', 'OLD-' || (i % 4000), ${copied}
     from n, (select * from jobs where id = 'job-tk-2207-118')`,
  );
  await db.raw(
    `${numbers}, ten(k) as (select 1 union all select k + 1 from ten where k < 10)
     insert into runs (id, job_id, step, state, started_at, ended_at, person, context, sequence)
     select 'old-' || i || '-' || k, 'old-' || i, 'vacuum-draw', 'kept', '2026-01-05T10:00:00Z', '2026-01-05T10:01:00Z', 'Ilse Varga', context, k
     from n, ten, (select context from runs where job_id = 'job-tk-2207-118' limit 1)`,
  );
  await db.destroy();
}

/** ms to read bare what a page is made of, through the same driver: its rows and nothing done with them. */
async function bareReads(data: string): Promise<Readonly<Record<'Floor' | 'Job', number>>> {
  const db = knex({
    client: 'better-sqlite3',
    connection: { filename: path.join(data, 'hard-pedal.sqlite') },
    useNullAsDefault: true,
  });
  const job = 'job-tk-2207-118';
  const own = ['runs', 'repairs', 'acts', 'releases', 'evaluations'];
  const work = {
    Floor: () => db('jobs').leftJoin('floor_cards', 'floor_cards.job_id', 'jobs.id').whereRaw(onFloor),
    Job: () => Promise.all([db('jobs').where({ id: job }), ...own.map((table) => db(table).where({ job_id: job }))]),
  };
  const timed = async (read: () => PromiseLike<unknown>): Promise<number> => {
    const times: number[] = [];
    for (let i = 0; i < 20; i++) {
      const from = performance.now();
      await read();
      times.push(performance.now() - from);
    }
    return median(times);
  };
  const read = { Floor: await timed(work.Floor), Job: await timed(work.Job) };
  await db.destroy();
  return read;
}

const onFloor = `place <> 'gone' and taken_out_at is null`;

const median = (values: readonly number[]) => [...values].sort((p, q) => p - q)[Math.floor(values.length / 2)];

/** How fast pages are with twenty thousand jobs and two hundred thousand runs: `npm run bench -- book`. */
export async function bookSpeed(line: (what: string, value: string, aim: string) => void): Promise<void> {
  const data = demoFolder();
  await fill(data, 20_000);
  const server = await startServer(data, 4395);
  line('start to first Floor, 20,000 jobs', `${server.toFirstFloor.toFixed(0)} ms`, '');
  const bare = await bareReads(data);
  for (const [title, address, rows] of [
    ['Floor', '/', 'Floor'],
    ['Job', '/jobs/job-tk-2207-118', 'Job'],
    ['Findings', '/jobs/job-tk-2207-118/findings', 'Job'],
  ] as const) {
    const times: number[] = [];
    for (let i = 0; i < 8; i++) {
      const from = performance.now();
      await (await fetch(server.base + address)).arrayBuffer();
      times.push(performance.now() - from);
    }
    line(
      `${title}, 20,000 jobs: first, then warm`,
      `${times[0].toFixed(0)}, ${median(times.slice(1)).toFixed(0)} ms`,
      `aim 150 ms; its rows read bare ${bare[rows].toFixed(1)} ms`,
    );
  }
  await server.end();
}
