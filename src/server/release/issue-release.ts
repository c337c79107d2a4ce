import { reportSchema, type Report } from '@/core/formats/report';
import { displayUnits } from '@/core/wording/display';
import { moveJob } from '@/data/jobs';
import { recordAct } from '@/data/acts';
import { findRelease, insertRelease, standingRelease } from '@/data/releases';
import { jobNamed } from '../jobs/job-context';
import { jobView } from '../jobs/job-view';
import { RequestRefused } from '../http/refused';
import { refuseStranger } from '../people';
import { buildReport } from './build-report';

/**
 * Issues a release or a findings-only paper. A release needs every required step passed or recorded, none failed, and is issued once:
 * sent again, it is the one that stands.
 */
export async function issueRelease(
  jobId: string,
  how: { readonly kind: Report['kind']; readonly person: string; readonly units: string },
): Promise<{ id: string }> {
  const job = await jobNamed(jobId);
  await refuseStranger(how.person);
  if (job.takenOutAt !== null)
    throw new RequestRefused(409, 'This job was taken out of the book. Bring it back first.');
  const standing = how.kind === 'released' ? await standingRelease(jobId) : undefined;
  if (standing) return { id: standing.id };
  const { blocking } = await jobView(jobId);
  if (how.kind === 'released' && blocking.length > 0)
    throw new RequestRefused(
      409,
      `Not releasable: ${blocking.map(({ title, verdict }) => (verdict ? `${title} (${verdict})` : title)).join(', ')}. It can be issued as findings only.`,
    );
  const issuedAt = new Date().toISOString();
  const report = await buildReport(job, {
    kind: how.kind,
    issuedAt,
    issuedBy: how.person,
    units: displayUnits(how.units),
  });
  let id: string;
  try {
    id = await insertRelease({ jobId, kind: how.kind, issuedAt, person: how.person, report });
  } catch (error) {
    // Two screens at once: the other one was first.
    const first = how.kind === 'released' ? await standingRelease(jobId) : undefined;
    if (first) return { id: first.id };
    throw error;
  }
  await recordAct({ jobId, subject: id, act: 'issued', person: how.person, detail: how.kind }, issuedAt);
  if (how.kind === 'released') await moveJob(jobId, 'ready');
  return { id };
}

/** A report as it was issued. */
export async function issuedReport(id: string): Promise<Report> {
  const release = await findRelease(id);
  if (!release) throw new RequestRefused(404, 'This release is not on record.');
  return { ...reportSchema.parse(release.report), ...(release.withdrawn ? { withdrawn: release.withdrawn } : {}) };
}
