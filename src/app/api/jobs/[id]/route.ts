import { answer } from '@/server/http/answer';
import { jobView } from '@/server/jobs/job-view';

type Params = { params: Promise<{ id: string }> };

export function GET(_request: Request, { params }: Params) {
  return answer(async () => jobView((await params).id));
}
