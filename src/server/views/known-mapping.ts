import * as z from 'zod';
import { findMapping } from '@/data/column-mappings';

export const knownMappingSchema = z.object({ fingerprint: z.string().max(20_000) });

/** How a log with these headers was understood last; null when none like it has been seen. */
export async function knownMapping({ fingerprint }: z.infer<typeof knownMappingSchema>) {
  return { mapping: (await findMapping(fingerprint)) ?? null };
}
