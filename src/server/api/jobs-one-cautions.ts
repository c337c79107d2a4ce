import { answer, bodyOf } from '../http/answer';
import { acknowledgeCautions, acknowledgeSchema } from '../desk/acknowledge-cautions';

type Params = { params: Promise<{ id: string }> };

export function POST(request: Request, { params }: Params) {
  return answer(async () => acknowledgeCautions((await params).id, await bodyOf(request, acknowledgeSchema)));
}
