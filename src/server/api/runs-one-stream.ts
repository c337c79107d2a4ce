import { runStream } from '../desk/run-stream';

export const dynamic = 'force-dynamic';
type Params = { params: Promise<{ id: string }> };

export async function GET(request: Request, { params }: Params) {
  return runStream((await params).id, request.signal);
}
