import { answer } from '../http/answer';
import { RequestRefused } from '../http/refused';
import { runTimeline, timelineSchema } from '../views/run-timeline';

type Params = { params: Promise<{ id: string }> };

export function GET(request: Request, { params }: Params) {
  return answer(async () => {
    const asked = timelineSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!asked.success) throw new RequestRefused(400, 'A step, and a window with two ends, are asked for here.');
    return runTimeline((await params).id, asked.data, request.signal);
  });
}
