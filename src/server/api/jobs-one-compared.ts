import { compareSchema, compareStep } from '../views/compare-step';
import { answer } from '../http/answer';
import { RequestRefused } from '../http/refused';

type Params = { params: Promise<{ id: string }> };

export function GET(request: Request, { params }: Params) {
  return answer(async () => {
    const asked = compareSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!asked.success)
      throw new RequestRefused(422, 'Say which step is to be compared, and faults as “id:severity”, joined by “+”.');
    return compareStep((await params).id, asked.data);
  });
}
