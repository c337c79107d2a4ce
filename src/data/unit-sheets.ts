import { randomUUID } from 'node:crypto';
import * as z from 'zod';
import { database } from './database';

const rowSchema = z.object({
  id: z.string(),
  family: z.string(),
  name: z.string(),
  spec: z.string().transform((text) => JSON.parse(text) as unknown),
  created_at: z.string(),
});

export interface StoredSheet {
  readonly id: string;
  readonly family: string;
  readonly name: string;
  readonly spec: unknown;
}

function fromRow(row: unknown): StoredSheet {
  const { id, family, name, spec } = rowSchema.parse(row);
  return { id, family, name, spec };
}

export async function listSheets(): Promise<StoredSheet[]> {
  const rows: unknown[] = await (await database())('unit_sheets').orderBy('name');
  return rows.map(fromRow);
}

export async function findSheet(id: string): Promise<StoredSheet | undefined> {
  const row: unknown = await (await database())('unit_sheets').where({ id }).first();
  return row === undefined ? undefined : fromRow(row);
}

/** Stores a checked sheet; returns its id. */
export async function insertSheet(sheet: Omit<StoredSheet, 'id'>, id: string = randomUUID()): Promise<string> {
  const { family, name, spec } = sheet;
  await (
    await database()
  )('unit_sheets').insert({
    id,
    family,
    name,
    spec: JSON.stringify(spec),
    created_at: new Date().toISOString(),
  });
  return id;
}
