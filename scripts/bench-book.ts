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

const median = (values: readonly number[]) => [...values].sort((p, q) => p - q)[Math.floor(values.length / 2)];

/** How fast pages are with twenty thousand jobs and two hundred thousand runs: `npm run bench -- book`. */
export async function bookSpeed(line: (what: string, value: string, aim: string) => void): Promise<void> {
  const data = demoFolder();
  await fill(data, 20_000);
  const server = await startServer(data, 4395);
  line('start to first Floor, 20,000 jobs', `${server.toFirstFloor.toFixed(0)} ms`, '');
  for (const [title, address] of [
    ['Floor', '/'],
    ['Job', '/jobs/job-tk-2207-118'],
    ['Findings', '/jobs/job-tk-2207-118/findings'],
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
      'aim 150 ms',
    );
  }
  await server.end();
}
