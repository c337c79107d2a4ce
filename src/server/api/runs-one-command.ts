import * as z from 'zod';
import { answer, bodyOf } from '../http/answer';
import { recorderSpeeds } from '../recording/recorder-speeds';
import { commandRun } from '../desk/runs';

const schema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('lever'), level: z.number().min(0).max(1e8) }),
  z.object({ kind: z.literal('by-itself'), on: z.boolean() }),
  z.object({ kind: z.literal('speed'), speed: z.literal(recorderSpeeds) }),
]);
type Params = { params: Promise<{ id: string }> };

export function POST(request: Request, { params }: Params) {
  return answer(async () => commandRun((await params).id, await bodyOf(request, schema)));
}
