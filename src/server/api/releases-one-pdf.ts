import { answer } from '../http/answer';
import { issuedReport } from '../desk/issue-release';
import { heavy } from '../threads/pool';

type Params = { params: Promise<{ id: string }> };

export async function GET(_request: Request, { params }: Params) {
  const { id } = await params;
  try {
    const report = await issuedReport(id);
    const name = `${report.kind}-${report.job.serial}.pdf`.replace(/[^\w.-]+/g, '_');
    return new Response(new Uint8Array(await heavy('pdf', report)), {
      headers: { 'Content-Type': 'application/pdf', 'Content-Disposition': `inline; filename="${name}"` },
    });
  } catch (error) {
    return answer(() => Promise.reject(error));
  }
}
