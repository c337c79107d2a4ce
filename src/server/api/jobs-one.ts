import * as z from 'zod';
import { answer, bodyOf } from '../http/answer';
import { jobView } from '../views/job-view';
import { takeOut } from '../desk/take-out';

const schema = z.object({ person: z.string().min(1).max(80) });

type Params = { params: Promise<{ id: string }> };

export function GET(_request: Request, { params }: Params) {
  return answer(async () => jobView((await params).id));
}

/** Takes the job out of the book. */
export function DELETE(request: Request, { params }: Params) {
  return answer(async () => takeOut((await params).id, (await bodyOf(request, schema)).person));
}
