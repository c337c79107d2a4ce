import type { Knex } from 'knex';

export const acts = {
  name: '0004-acts',
  async up(knex: Knex): Promise<void> {
    // Who did what to a job, a run or a release; nothing is ever taken out.
    await knex.schema.createTable('acts', (table) => {
      table.increments('id');
      table.string('job_id').notNullable().references('jobs.id').index();
      table.string('subject');
      table.string('act').notNullable();
      table.string('person').notNullable();
      table.string('at').notNullable();
      table.text('detail');
    });
    await knex.schema.alterTable('releases', (table) => {
      table.string('withdrawn_at');
      table.text('withdrawn_why');
    });
    // Of releases that were issued more than once the last one stands.
    await knex.raw(
      `update releases set withdrawn_at = issued_at, withdrawn_why = 'Issued again'
       where kind = 'released' and exists (
         select 1 from releases as later where later.job_id = releases.job_id and later.kind = 'released'
         and (later.issued_at > releases.issued_at or (later.issued_at = releases.issued_at and later.id > releases.id)))`,
    );
    await knex.raw(
      `create unique index one_standing_release on releases (job_id) where kind = 'released' and withdrawn_at is null`,
    );
  },
  async down(knex: Knex): Promise<void> {
    await knex.raw('drop index one_standing_release');
    await knex.schema.alterTable('releases', (table) => {
      table.dropColumn('withdrawn_at');
      table.dropColumn('withdrawn_why');
    });
    await knex.schema.dropTable('acts');
  },
};
