import type { Knex } from 'knex';

/** A job that looks behind the unit of another one. */
export const behind = {
  name: '0010-behind',
  async up(knex: Knex): Promise<void> {
    await knex.schema.alterTable('jobs', (table) => {
      table.text('behind_of').nullable();
    });
  },
  async down(knex: Knex): Promise<void> {
    await knex.schema.alterTable('jobs', (table) => {
      table.dropColumn('behind_of');
    });
  },
};
