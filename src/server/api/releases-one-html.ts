import { answer } from '../http/answer';
import { issuedReport } from '../desk/issue-release';
import { heavy } from '../threads/pool';

type Params = { params: Promise<{ id: string }> };

export async function GET(_request: Request, { params }: Params) {
  const { id } = await params;
  try {
    return new Response(await heavy('html', await issuedReport(id)), {
      headers: { 'Content-Type': 'text/html; charset=utf-8' },
    });
  } catch (error) {
    return answer(() => Promise.reject(error));
  }
}
