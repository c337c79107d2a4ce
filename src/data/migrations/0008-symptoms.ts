import type { Knex } from 'knex';

export const symptoms = {
  name: '0008-symptoms',
  async up(knex: Knex): Promise<void> {
    await knex.schema.alterTable('jobs', (table) => {
      table.text('symptoms').notNullable().defaultTo('[]');
    });
  },
  async down(knex: Knex): Promise<void> {
    await knex.schema.alterTable('jobs', (table) => {
      table.dropColumn('symptoms');
    });
  },
};
