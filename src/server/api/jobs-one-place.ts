import { answer, bodyOf } from '../http/answer';
import { moveSchema, moveUnit } from '../desk/move-job';

type Params = { params: Promise<{ id: string }> };

export function PUT(request: Request, { params }: Params) {
  return answer(async () => moveUnit((await params).id, await bodyOf(request, moveSchema)));
}
