import type { Knex } from 'knex';

export const waysToFeedAStep = {
  name: '0002-ways-to-feed-a-step',
  async up(knex: Knex): Promise<void> {
    await knex.schema.alterTable('jobs', (table) => table.string('plan').notNullable().defaultTo('bench'));
    // Dial readings typed by hand, SI by field.
    await knex.schema.alterTable('runs', (table) => table.text('readings'));
    // How the columns of a log file were understood, by the fingerprint of its header.
    await knex.schema.createTable('column_mappings', (table) => {
      table.string('fingerprint').primary();
      table.text('mapping').notNullable();
      table.string('used_at').notNullable();
    });
  },
  async down(knex: Knex): Promise<void> {
    await knex.schema.dropTable('column_mappings');
    await knex.schema.alterTable('runs', (table) => table.dropColumn('readings'));
    await knex.schema.alterTable('jobs', (table) => table.dropColumn('plan'));
  },
};
