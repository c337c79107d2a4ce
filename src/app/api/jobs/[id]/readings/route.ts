import { z } from 'zod';
import { answer, bodyOf } from '@/server/http/answer';
import { recordReadings, standInReadings } from '@/server/runs/record-readings';

const schema = z.object({
  step: z.string(),
  person: z.string().min(1),
  readings: z.record(z.string(), z.number()),
  /** Read off the stand-in’s gauge, all or in part. */
  standIn: z.boolean().default(false),
});
type Params = { params: Promise<{ id: string }> };

export function POST(request: Request, { params }: Params) {
  return answer(async () => {
    const { step, readings, person, standIn } = await bodyOf(request, schema);
    return recordReadings((await params).id, step, readings, { person, standIn });
  });
}

/** What the stand-in's instruments show for a typed step. */
export function GET(request: Request, { params }: Params) {
  return answer(async () => {
    const step = new URL(request.url).searchParams.get('step') ?? '';
    return standInReadings((await params).id, step);
  });
}
