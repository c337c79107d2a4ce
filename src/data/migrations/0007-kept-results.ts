import type { Knex } from 'knex';

export const keptResults = {
  name: '0007-kept-results',
  async up(knex: Knex): Promise<void> {
    // What was judged is kept with what it was judged from; both tables may be emptied at any time and are made again.
    await knex.schema.createTable('analyses', (table) => {
      table.string('run_id').notNullable().references('runs.id');
      table.string('inputs').notNullable();
      table.integer('method_version').notNullable();
      table.text('analysis').notNullable();
      table.primary(['run_id', 'inputs', 'method_version']);
    });
    await knex.schema.createTable('evaluations', (table) => {
      table.string('job_id').primary().references('jobs.id');
      table.string('inputs').notNullable();
      table.integer('method_version').notNullable();
      table.text('evaluation').notNullable();
      table.text('face');
    });
  },
  async down(knex: Knex): Promise<void> {
    await knex.schema.dropTable('evaluations');
    await knex.schema.dropTable('analyses');
  },
};
