import * as z from 'zod';
import { answer, bodyOf } from '../http/answer';
import { recordReadings, standInReadings } from '../desk/record-readings';

const schema = z.object({
  step: z.string().max(80),
  person: z.string().min(1).max(80),
  readings: z.record(z.string().max(80), z.number()),
  /** Read off the stand-in’s gauge, all or in part. */
  standIn: z.boolean().default(false),
  /** Fields whose unlikely figures somebody has looked at again. */
  confirmed: z.array(z.string()).max(200).default([]),
});
type Params = { params: Promise<{ id: string }> };

export function POST(request: Request, { params }: Params) {
  return answer(async () => {
    const { step, readings, person, standIn, confirmed } = await bodyOf(request, schema);
    return recordReadings((await params).id, step, readings, { person, standIn, confirmed });
  });
}

/** What the stand-in's instruments show for a typed step. */
export function GET(request: Request, { params }: Params) {
  return answer(async () => {
    const step = new URL(request.url).searchParams.get('step') ?? '';
    return standInReadings((await params).id, step);
  });
}
