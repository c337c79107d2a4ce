import { z } from 'zod';
import { places } from '@/data/jobs';
import { answer, bodyOf } from '@/server/http/answer';
import { moveUnit } from '@/server/jobs/move-job';

const schema = z.object({ place: z.enum(places), person: z.string().min(1).max(80) });
type Params = { params: Promise<{ id: string }> };

export function PUT(request: Request, { params }: Params) {
  return answer(async () => {
    const { place, person } = await bodyOf(request, schema);
    return moveUnit((await params).id, place, person);
  });
}
