import { z } from 'zod';
import { moveJob, places } from '@/data/jobs';
import { answer, bodyOf } from '@/server/http/answer';
import { jobNamed } from '@/server/jobs/job-context';

const schema = z.object({ place: z.enum(places) });
type Params = { params: Promise<{ id: string }> };

export function PUT(request: Request, { params }: Params) {
  return answer(async () => {
    const job = await jobNamed((await params).id);
    await moveJob(job.id, (await bodyOf(request, schema)).place);
  });
}
