import * as z from 'zod';
import { answer, bodyOf } from '../http/answer';
import { startRun } from '../desk/runs';

const schema = z.object({
  step: z.string().max(80),
  person: z.string().min(1).max(80),
  /** A finished run that nobody has kept is set aside until this one is kept. */
  again: z.boolean().default(false),
});
type Params = { params: Promise<{ id: string }> };

export function POST(request: Request, { params }: Params) {
  return answer(async () => {
    const { step, person, again } = await bodyOf(request, schema);
    return startRun((await params).id, step, person, again);
  });
}
