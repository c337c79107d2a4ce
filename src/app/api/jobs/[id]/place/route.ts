import { z } from 'zod';
import { moveJob, places } from '@/data/jobs';
import { answer, bodyOf } from '@/server/http/answer';
import { recordAct } from '@/data/acts';
import { refuseStranger } from '@/server/people';
import { jobNamed } from '@/server/jobs/job-context';

const schema = z.object({ place: z.enum(places), person: z.string().min(1).max(80) });
type Params = { params: Promise<{ id: string }> };

export function PUT(request: Request, { params }: Params) {
  return answer(async () => {
    const job = await jobNamed((await params).id);
    const { place, person } = await bodyOf(request, schema);
    await refuseStranger(person);
    await moveJob(job.id, place);
    await recordAct({ jobId: job.id, subject: null, act: 'moved', person, detail: place });
  });
}
