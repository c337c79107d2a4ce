import type { Knex } from 'knex';

export const firstShape = {
  name: '0001-first-shape',
  async up(knex: Knex): Promise<void> {
    await knex.schema.createTable('settings', (table) => {
      table.string('key').primary();
      table.text('value').notNullable();
    });
    await knex.schema.createTable('people', (table) => {
      table.string('id').primary();
      table.string('name').notNullable();
      table.string('role').notNullable();
    });
    await knex.schema.createTable('instruments', (table) => {
      table.string('id').primary();
      table.string('set_name').notNullable();
      table.text('instrument').notNullable();
    });
    await knex.schema.createTable('unit_sheets', (table) => {
      table.string('id').primary();
      table.string('family').notNullable();
      table.string('name').notNullable();
      table.text('spec').notNullable();
      table.string('created_at').notNullable();
    });
    await knex.schema.createTable('jobs', (table) => {
      table.string('id').primary();
      table.integer('number').notNullable().unique();
      table.string('serial').notNullable().index();
      table.string('vehicle').notNullable();
      table.text('complaint').notNullable();
      table.string('place').notNullable();
      table.string('booked_at').notNullable();
      table.string('booked_by').notNullable();
      table.string('promised_at');
      // The sheet as it was when the unit was booked in: a later edit must not change an old verdict.
      table.text('sheet').notNullable();
      table.text('stand_in').notNullable();
    });
    await knex.schema.createTable('runs', (table) => {
      table.string('id').primary();
      table.string('job_id').notNullable().references('jobs.id').index();
      table.string('step').notNullable();
      table.string('state').notNullable();
      table.string('started_at').notNullable();
      table.string('ended_at');
      table.string('person').notNullable();
      table.text('context').notNullable();
      table.text('findings');
      table.text('progress');
      table.string('struck_out');
    });
    await knex.schema.createTable('trace_chunks', (table) => {
      table.string('run_id').notNullable().references('runs.id').onDelete('CASCADE');
      table.integer('sequence').notNullable();
      table.integer('samples').notNullable();
      table.binary('columns').notNullable();
      table.primary(['run_id', 'sequence']);
    });
    await knex.schema.createTable('cautions', (table) => {
      table.increments('id');
      table.string('job_id').notNullable().references('jobs.id').index();
      table.string('caution').notNullable();
      table.string('person').notNullable();
      table.string('at').notNullable();
      table.unique(['job_id', 'caution']);
    });
    await knex.schema.createTable('releases', (table) => {
      table.string('id').primary();
      table.string('job_id').notNullable().references('jobs.id').index();
      table.string('kind').notNullable();
      table.string('issued_at').notNullable();
      table.string('person').notNullable();
      table.text('report').notNullable();
    });
  },
  async down(knex: Knex): Promise<void> {
    for (const table of [
      'releases',
      'cautions',
      'trace_chunks',
      'runs',
      'jobs',
      'unit_sheets',
      'instruments',
      'people',
      'settings',
    ])
      await knex.schema.dropTable(table);
  },
};
