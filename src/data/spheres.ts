import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import * as z from 'zod';
import { fluidKinds } from '@/core/vocabulary/fluid';
import { spherePurposes } from '@/core/vocabulary/sphere-purpose';
import { database } from './database';

const sphereSchema = z.object({
  serial: z.string(),
  purpose: z.enum(spherePurposes),
  fluid: z.enum(fluidKinds),
  /** Pa gauge at 20 °C. */
  precharge: z.number(),
  fitted_to: z.string().nullable(),
});

const checkSchema = z.object({
  id: z.string(),
  serial: z.string(),
  at: z.string(),
  /** Pa gauge as read, K, Pa gauge at 20 °C and its standard uncertainty. */
  reading: z.number(),
  temperature: z.number(),
  precharge: z.number(),
  standard: z.number(),
  person: z.string(),
});

export interface Sphere {
  readonly serial: string;
  readonly purpose: z.infer<typeof sphereSchema>['purpose'];
  readonly fluid: z.infer<typeof sphereSchema>['fluid'];
  readonly precharge: number;
  readonly fittedTo: string | null;
}

export type StoredSphereCheck = z.infer<typeof checkSchema>;

function fromRow(row: unknown): Sphere {
  const { fitted_to, ...rest } = sphereSchema.parse(row);
  return { ...rest, fittedTo: fitted_to };
}

export async function listSpheres(): Promise<Sphere[]> {
  const rows: unknown[] = await (await database())('spheres').orderBy('serial');
  return rows.map(fromRow);
}

export async function findSphere(serial: string): Promise<Sphere | undefined> {
  const row: unknown = await (await database())('spheres').where({ serial }).first();
  return row === undefined ? undefined : fromRow(row);
}

export async function insertSphere({ serial, purpose, fluid, precharge }: Omit<Sphere, 'fittedTo'>): Promise<void> {
  // Column by column: what a form carries besides is no column.
  await (await database())('spheres').insert({ serial, purpose, fluid, precharge, fitted_to: null });
}

export async function markFitted(serial: string, fittedTo: string, trx?: Knex): Promise<void> {
  await (trx ?? (await database()))('spheres').where({ serial }).update({ fitted_to: fittedTo });
}

export async function listSphereChecks(serial: string): Promise<StoredSphereCheck[]> {
  const rows: unknown[] = await (await database())('sphere_checks').where({ serial }).orderBy('rowid');
  return rows.map((row) => checkSchema.parse(row));
}

export async function insertSphereCheck(check: Omit<StoredSphereCheck, 'id'>): Promise<void> {
  const { serial, at, reading, temperature, precharge, standard, person } = check;
  const row = { id: randomUUID(), serial, at, reading, temperature, precharge, standard, person };
  await (await database())('sphere_checks').insert(row);
}
