import { z } from 'zod';
import { findMapping } from '@/data/column-mappings';
import { answer, bodyOf } from '@/server/http/answer';

/** How a log with these headers was understood last. A header line may be long, so it comes in the body. */
export function POST(request: Request) {
  return answer(async () => {
    const { fingerprint } = await bodyOf(request, z.object({ fingerprint: z.string().max(20_000) }));
    return { mapping: (await findMapping(fingerprint)) ?? null };
  });
}
