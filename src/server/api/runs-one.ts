import * as z from 'zod';
import { answer, bodyOf } from '../http/answer';
import { discardRun, keepRun, resumeRun, stopRun, strikeOut } from '../desk/runs';

const person = z.string().min(1).max(80);
const schema = z.discriminatedUnion('action', [
  z.object({ action: z.literal('keep'), person }),
  z.object({ action: z.literal('discard'), person }),
  z.object({ action: z.literal('stop') }),
  z.object({ action: z.literal('resume') }),
  z.object({
    action: z.literal('strike-out'),
    person,
    reason: z.string().trim().min(3, 'Say why in a few words').max(500, 'A shorter reason, please'),
  }),
]);
type Params = { params: Promise<{ id: string }> };

export function POST(request: Request, { params }: Params) {
  return answer(async () => {
    const { id } = await params;
    const body = await bodyOf(request, schema);
    switch (body.action) {
      case 'keep':
        return keepRun(id, body.person);
      case 'discard':
        return discardRun(id, body.person);
      case 'stop':
        return stopRun(id);
      case 'resume':
        return resumeRun(id);
      case 'strike-out':
        return strikeOut(id, body.reason, body.person);
    }
  });
}
