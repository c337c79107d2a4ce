import * as z from 'zod';
import { answer, bodyOf } from '../http/answer';
import { recordLook } from '../desk/runs';

const schema = z.object({
  step: z.string().max(80),
  person: z.string().min(1).max(80),
  findings: z.record(z.string().max(80), z.string().max(400)),
});
type Params = { params: Promise<{ id: string }> };

export function POST(request: Request, { params }: Params) {
  return answer(async () => {
    const { step, findings, person } = await bodyOf(request, schema);
    return recordLook((await params).id, step, findings, person);
  });
}
