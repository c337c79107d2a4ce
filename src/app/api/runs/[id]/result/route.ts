import { answer } from '@/server/http/answer';
import { evaluateRun } from '@/server/jobs/evaluate-job';
import { jobNamed } from '@/server/jobs/job-context';
import { runNamed } from '@/server/runs/bench-runs';

type Params = { params: Promise<{ id: string }> };

export function GET(request: Request, { params }: Params) {
  return answer(async () => {
    const run = await runNamed((await params).id);
    return evaluateRun(await jobNamed(run.jobId), run, request.signal);
  });
}
