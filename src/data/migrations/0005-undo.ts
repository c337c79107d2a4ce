import type { Knex } from 'knex';

export const undo = {
  name: '0005-undo',
  async up(knex: Knex): Promise<void> {
    await knex.schema.alterTable('acts', (table) => {
      // What stood before, where the act can be taken back; when it was.
      table.string('before');
      table.string('undone_at');
    });
    // A job taken out of the book stays on record.
    await knex.schema.alterTable('jobs', (table) => table.string('taken_out_at'));
    await knex.schema.createTable('instruments_taken_off', (table) => {
      table.increments('id');
      table.string('channel').notNullable();
      table.text('instrument').notNullable();
      table.string('at').notNullable();
    });
  },
  async down(knex: Knex): Promise<void> {
    await knex.schema.dropTable('instruments_taken_off');
    await knex.schema.alterTable('jobs', (table) => table.dropColumn('taken_out_at'));
    await knex.schema.alterTable('acts', (table) => {
      table.dropColumn('before');
      table.dropColumn('undone_at');
    });
  },
};
