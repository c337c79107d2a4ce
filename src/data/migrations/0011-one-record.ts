import type { Knex } from 'knex';

/** What a card of the floor is made of: a change of any of these throws the job's card away, and that of the job in front of it. */
const shownOnCards: readonly [table: string, jobOf: string, columns: string][] = [
  ['runs', 'job_id', 'job_id, step, state, started_at, context, findings, readings, struck_out, sequence'],
  ['repairs', 'job_id', 'job_id, work, after_run, undone_at'],
  ['cautions', 'job_id', 'job_id, caution'],
  ['releases', 'job_id', 'job_id, kind, report, withdrawn_at'],
  [
    'jobs',
    'id',
    'serial, vehicle, complaint, symptoms, place, promised_at, sheet, plan, ordered_by, behind_of, taken_out_at',
  ],
];

const triggersOf = ([table, jobOf, columns]: (typeof shownOnCards)[number]): string[] =>
  (
    [
      ['insert', 'new'],
      [`update of ${columns}`, 'new'],
      ['delete', 'old'],
    ] as const
  ).map(
    ([event, row]) =>
      `create trigger card_of_${table}_${event.split(' ')[0]} after ${event} on ${table} begin
         delete from floor_cards where job_id = ${row}.${jobOf}
           or job_id = (select behind_of from jobs where id = ${row}.${jobOf});
       end`,
  );

/**
 * A job is loaded whole and changed whole: it counts its changes, its runs have an order of their own, and what would be wrong twice cannot
 * be there twice. Tables that get new rules are made anew, so foreign keys must be off meanwhile (`openDatabase` sees to that).
 */
export const oneRecord = {
  name: '0011-one-record',
  async up(knex: Knex): Promise<void> {
    await knex.raw('alter table jobs add column version integer not null default 0 check (version >= 0)');
    await knex.raw('alter table jobs add column behind_job text references jobs (id)');
    await knex.raw('update jobs set behind_job = behind_of where behind_of in (select id from jobs)');
    await knex.raw('alter table jobs drop column behind_of');
    await knex.raw('alter table jobs rename column behind_job to behind_of');
    await knex.raw(`create index jobs_on_floor on jobs (number) where place <> 'gone' and taken_out_at is null`);
    await knex.raw('create index jobs_behind on jobs (behind_of) where behind_of is not null');

    // In the order in which they were written: a clock may have been set back between them.
    await knex.raw('alter table runs add column sequence integer not null default 0 check (sequence >= 0)');
    await knex.raw(
      `update runs set sequence = written.place from
         (select id, row_number() over (partition by job_id order by rowid) as place from runs) as written
       where written.id = runs.id`,
    );
    await knex.raw('create unique index runs_in_order on runs (job_id, sequence)');
    // Of several runs of a job that are open the last one is; the others wait beside it.
    await knex.raw(
      `update runs set state = 'aside' where state in ('recording', 'complete') and exists (
         select 1 from runs as later where later.job_id = runs.job_id and later.state in ('recording', 'complete')
         and later.sequence > runs.sequence)`,
    );
    await knex.raw(`create unique index one_open_run on runs (job_id) where state in ('recording', 'complete')`);
    await knex.raw(`create index runs_aside on runs (job_id) where state = 'aside'`);

    await knex.raw('alter table repairs add column after_run integer not null default 0');
    await knex.raw(
      `update repairs set after_run = coalesce((select max(sequence) from runs where runs.job_id = repairs.job_id
         and runs.id in (select value from json_each(case when json_valid(repairs.runs_before) then repairs.runs_before else '[]' end))), 0)`,
    );
    await knex.raw('alter table repairs drop column runs_before');

    // Which change of its job an act belongs to; nothing of those before this edition.
    await knex.raw('alter table acts add column version integer');
    await knex.raw('create index acts_at on acts (at)');
    await knex.raw('alter table releases add column reviewed_at_version integer');
    await knex.raw(
      `create index releases_standing on releases (job_id, reviewed_at_version) where kind = 'released' and withdrawn_at is null`,
    );

    await knex.raw('create table versions (key varchar(255) primary key not null, version integer not null)');
    await knex.raw('create table clock (id integer primary key check (id = 1), latest varchar(255) not null)');
    await knex.raw(
      `create table floor_cards (job_id varchar(255) primary key not null references jobs (id) on delete cascade,
         epoch varchar(255) not null, card text not null)`,
    );
    for (const shown of shownOnCards) for (const trigger of triggersOf(shown)) await knex.raw(trigger);
  },
  async down(knex: Knex): Promise<void> {
    for (const [table] of shownOnCards)
      for (const event of ['insert', 'update', 'delete']) await knex.raw(`drop trigger card_of_${table}_${event}`);
    for (const table of ['floor_cards', 'clock', 'versions']) await knex.schema.dropTable(table);
    for (const index of [
      'releases_standing',
      'acts_at',
      'runs_aside',
      'one_open_run',
      'runs_in_order',
      'jobs_behind',
      'jobs_on_floor',
    ])
      await knex.raw(`drop index ${index}`);
    await knex.raw('alter table releases drop column reviewed_at_version');
    await knex.raw('alter table acts drop column version');
    await knex.raw(`alter table repairs add column runs_before text not null default '[]'`);
    await knex.raw(
      `update repairs set runs_before = (select coalesce(json_group_array(id), '[]') from runs
         where runs.job_id = repairs.job_id and runs.sequence <= repairs.after_run)`,
    );
    await knex.raw('alter table repairs drop column after_run');
    await knex.raw('alter table runs drop column sequence');
    await knex.raw('alter table jobs add column behind_job text');
    await knex.raw('update jobs set behind_job = behind_of');
    await knex.raw('alter table jobs drop column behind_of');
    await knex.raw('alter table jobs rename column behind_job to behind_of');
    await knex.raw('alter table jobs drop column version');
  },
};
