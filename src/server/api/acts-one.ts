import * as z from 'zod';
import { answer, bodyOf } from '../http/answer';
import { undoAct } from '../desk/undo';

const schema = z.object({ person: z.string().min(1).max(80) });
type Params = { params: Promise<{ id: string }> };

/** Takes back what was done. */
export function DELETE(request: Request, { params }: Params) {
  return answer(async () => {
    const { person } = await bodyOf(request, schema);
    return undoAct(Number((await params).id), person);
  });
}
