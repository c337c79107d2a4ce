import { answer, bodyOf } from '@/server/http/answer';
import { acknowledgeCautions, acknowledgeSchema } from '@/server/jobs/acknowledge-cautions';

type Params = { params: Promise<{ id: string }> };

export function POST(request: Request, { params }: Params) {
  return answer(async () => acknowledgeCautions((await params).id, await bodyOf(request, acknowledgeSchema)));
}
