import * as z from 'zod';
import { answer, bodyOf } from '../http/answer';
import { issueRelease } from '../desk/issue-release';

const schema = z.object({
  kind: z.enum(['released', 'findings-only']),
  person: z.string().min(1).max(80),
  units: z.string().max(20),
});
type Params = { params: Promise<{ id: string }> };

export function POST(request: Request, { params }: Params) {
  return answer(async () => issueRelease((await params).id, await bodyOf(request, schema)));
}
