import { answer } from '../http/answer';
import { judgedRun } from '../judging/judged-job';

type Params = { params: Promise<{ id: string }> };

export function GET(request: Request, { params }: Params) {
  return answer(async () => judgedRun((await params).id, request.signal));
}
