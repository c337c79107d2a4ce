import { z } from 'zod';
import { cautions } from '@/core/wording/cautions';
import { acknowledgeCaution } from '@/data/jobs';
import { answer, bodyOf } from '@/server/http/answer';
import { refuseStranger } from '@/server/people';
import { jobNamed } from '@/server/jobs/job-context';

const known = Object.keys(cautions) as [string, ...string[]];
const schema = z.object({ cautions: z.array(z.enum(known)), person: z.string().min(1).max(80) });
type Params = { params: Promise<{ id: string }> };

export function POST(request: Request, { params }: Params) {
  return answer(async () => {
    const job = await jobNamed((await params).id);
    const body = await bodyOf(request, schema);
    await refuseStranger(body.person);
    const at = new Date().toISOString();
    for (const caution of body.cautions) await acknowledgeCaution(job.id, caution, body.person, at);
  });
}
