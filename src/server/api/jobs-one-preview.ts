import { displayUnits } from '@/core/wording/display';
import { answer } from '../http/answer';
import { behindOf } from '../judging/behind';
import { blockingOf } from '../judging/blocking';
import { judgedJob } from '../judging/judged-job';
import { heavy } from '../threads/pool';
import { buildReport } from '../views/build-report';

type Params = { params: Promise<{ id: string }> };

export async function GET(request: Request, { params }: Params) {
  try {
    const { record, shop, evaluated } = await judgedJob((await params).id);
    const behind = await behindOf(record, shop);
    const blocking = blockingOf(record, { evaluation: evaluated.evaluation, behind });
    const query = new URL(request.url).searchParams;
    const details = {
      kind: blocking.length === 0 ? 'released' : 'findings-only',
      issuedAt: '',
      issuedBy: query.get('person') ?? '',
      units: displayUnits(query.get('units') ?? ''),
    } as const;
    const html = await heavy('html', await buildReport(record, shop, details, evaluated), request.signal);
    return new Response(html, { headers: { 'Content-Type': 'text/html; charset=utf-8' } });
  } catch (error) {
    return answer(() => Promise.reject(error));
  }
}
