import type { Knex } from 'knex';

export const spheres = {
  name: '0003-spheres',
  async up(knex: Knex): Promise<void> {
    await knex.schema.createTable('spheres', (table) => {
      table.string('serial').primary();
      table.string('purpose').notNullable();
      table.string('fluid').notNullable();
      table.float('precharge').notNullable();
      table.string('fitted_to');
    });
    await knex.schema.createTable('sphere_checks', (table) => {
      table.string('id').primary();
      table.string('serial').notNullable().references('spheres.serial').index();
      table.string('at').notNullable();
      table.float('reading').notNullable();
      table.float('temperature').notNullable();
      table.float('precharge').notNullable();
      table.float('standard').notNullable();
      table.string('person').notNullable();
    });
  },
  async down(knex: Knex): Promise<void> {
    await knex.schema.dropTable('sphere_checks');
    await knex.schema.dropTable('spheres');
  },
};
