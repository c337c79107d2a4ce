import { reportSchema, type Report } from '@/core/formats/report';
import { displayUnits } from '@/core/wording/display';
import { moveJob } from '@/data/jobs';
import { findRelease, insertRelease } from '@/data/releases';
import { jobNamed } from '../jobs/job-context';
import { jobView } from '../jobs/job-view';
import { RequestRefused } from '../http/refused';
import { buildReport } from './build-report';

/** Issues a release or a findings-only paper. A release needs every required step passed or recorded. */
export async function issueRelease(
  jobId: string,
  how: { readonly kind: Report['kind']; readonly person: string; readonly units: string },
): Promise<{ id: string }> {
  const job = await jobNamed(jobId);
  const { blocking } = await jobView(jobId);
  if (how.kind === 'released' && blocking.length > 0)
    throw new RequestRefused(
      409,
      `Not releasable: ${blocking.map((step) => `${step.title} (${step.verdict})`).join(', ')}. It can be issued as findings only.`,
    );
  const issuedAt = new Date().toISOString();
  const report = await buildReport(job, {
    kind: how.kind,
    issuedAt,
    issuedBy: how.person,
    units: displayUnits(how.units),
  });
  const id = await insertRelease({ jobId, kind: how.kind, issuedAt, person: how.person, report });
  if (how.kind === 'released') await moveJob(jobId, 'ready');
  return { id };
}

/** A report as it was issued. */
export async function issuedReport(id: string): Promise<Report> {
  const release = await findRelease(id);
  if (!release) throw new RequestRefused(404, 'This release is not on record.');
  return reportSchema.parse(release.report);
}
