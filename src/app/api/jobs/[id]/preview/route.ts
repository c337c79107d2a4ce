import { displayUnits } from '@/core/wording/display';
import { answer } from '@/server/http/answer';
import { jobView } from '@/server/jobs/job-view';
import { buildReport } from '@/server/release/build-report';
import { reportHtml } from '@/server/release/report-html';

type Params = { params: Promise<{ id: string }> };

export async function GET(request: Request, { params }: Params) {
  try {
    const { job, blocking } = await jobView((await params).id);
    const query = new URL(request.url).searchParams;
    const report = await buildReport(job, {
      kind: blocking.length === 0 ? 'released' : 'findings-only',
      issuedAt: '',
      issuedBy: query.get('person') ?? '',
      units: displayUnits(query.get('units') ?? ''),
    });
    return new Response(reportHtml(report), { headers: { 'Content-Type': 'text/html; charset=utf-8' } });
  } catch (error) {
    return answer(() => Promise.reject(error));
  }
}
