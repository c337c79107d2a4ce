import type { Knex } from 'knex';

export const standIns = {
  name: '0006-stand-ins',
  async up(knex: Knex): Promise<void> {
    // What the stand-in mounts is nobody's business but the stand-in's: a job goes to every screen.
    await knex.schema.createTable('stand_ins', (table) => {
      table.string('job_id').primary().references('jobs.id');
      table.text('mounted').notNullable();
    });
    await knex.raw('insert into stand_ins (job_id, mounted) select id, stand_in from jobs');
    await knex.raw('alter table jobs drop column stand_in');
  },
  async down(knex: Knex): Promise<void> {
    await knex.raw(`alter table jobs add column stand_in text not null default '{}'`);
    await knex.raw('update jobs set stand_in = (select mounted from stand_ins where job_id = jobs.id)');
    await knex.schema.dropTable('stand_ins');
  },
};
