import { answer } from '../http/answer';
import { standInLog } from '../desk/stand-in-log';

type Params = { params: Promise<{ id: string }> };

export function GET(request: Request, { params }: Params) {
  return answer(async () => {
    const step = new URL(request.url).searchParams.get('step') ?? '';
    return { log: await standInLog((await params).id, step) };
  });
}
