import type { Knex } from 'knex';

export const rounds = {
  name: '0009-rounds',
  async up(knex: Knex): Promise<void> {
    // A repair ends one round of a job and begins the next: it keeps which runs there were, for no clock can be trusted with that.
    await knex.schema.createTable('repairs', (table) => {
      table.string('id').primary();
      table.string('job_id').notNullable().references('jobs.id').index();
      table.string('at').notNullable();
      table.string('person').notNullable();
      table.text('work').notNullable();
      table.text('runs_before').notNullable();
      table.text('note').notNullable();
      table.string('undone_at');
    });
    await knex.schema.alterTable('jobs', (table) => {
      table.string('ordered_by').notNullable().defaultTo('plan');
    });
    await knex.schema.alterTable('evaluations', (table) => {
      table.text('rounds');
      table.text('ledger');
      table.string('ledger_inputs');
    });
  },
  async down(knex: Knex): Promise<void> {
    await knex.schema.alterTable('evaluations', (table) => {
      table.dropColumn('rounds');
      table.dropColumn('ledger');
      table.dropColumn('ledger_inputs');
    });
    await knex.schema.alterTable('jobs', (table) => {
      table.dropColumn('ordered_by');
    });
    await knex.schema.dropTable('repairs');
  },
};
