import { answer, bodyOf } from '@/server/http/answer';
import { recordRepair, repairSchema } from '@/server/jobs/repair';

type Params = { params: Promise<{ id: string }> };

export function POST(request: Request, { params }: Params) {
  return answer(async () => recordRepair((await params).id, await bodyOf(request, repairSchema)));
}
