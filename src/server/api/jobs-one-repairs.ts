import { answer, bodyOf } from '../http/answer';
import { recordRepair, repairSchema } from '../desk/repair';

type Params = { params: Promise<{ id: string }> };

export function POST(request: Request, { params }: Params) {
  return answer(async () => recordRepair((await params).id, await bodyOf(request, repairSchema)));
}
