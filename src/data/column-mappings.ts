import type { Knex } from 'knex';
import * as z from 'zod';
import type { MappedColumn } from '@/core/formats/column-mapping';
import { database } from './database';

export const mappingSchema = z.array(
  z.discriminatedUnion('use', [
    z.object({ use: z.literal('skip') }),
    z.object({ use: z.literal('own') }),
    z.object({ use: z.literal('time'), unit: z.string() }),
    z.object({
      use: z.literal('channel'),
      channel: z.string(),
      unit: z.string(),
      sign: z.union([z.literal(1), z.literal(-1)]),
      absolute: z.boolean(),
    }),
  ]),
);

/** How a log with these headers was understood last; undefined when none like it has been seen. */
export async function findMapping(fingerprint: string): Promise<readonly MappedColumn[] | undefined> {
  const row = (await (await database())('column_mappings').where({ fingerprint }).first()) as
    { mapping: string } | undefined;
  return row === undefined ? undefined : mappingSchema.parse(JSON.parse(row.mapping));
}

/** Remembers how a log with these headers is understood. */
export async function rememberMapping(
  fingerprint: string,
  mapping: readonly MappedColumn[],
  at: string,
): Promise<void> {
  await rememberMappingRow(await database(), fingerprint, mapping, at);
}

export async function rememberMappingRow(
  trx: Knex,
  fingerprint: string,
  mapping: readonly MappedColumn[],
  at: string,
): Promise<void> {
  await trx('column_mappings')
    .insert({ fingerprint, mapping: JSON.stringify(mapping), used_at: at })
    .onConflict('fingerprint')
    .merge();
}
