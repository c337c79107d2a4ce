import { randomUUID } from 'node:crypto';
import { reportSchema, type Report } from '@/core/formats/report';
import { displayUnits } from '@/core/wording/display';
import { standing } from '@/data/job-record';
import { findRelease } from '@/data/releases';
import { RequestRefused } from '../http/refused';
import { behindOf } from '../judging/behind';
import { blockingOf } from '../judging/blocking';
import { evaluateJob } from '../judging/evaluate-job';
import { refuseUnknownSite } from '../shop/shop-now';
import { buildReport } from '../views/build-report';
import { changeJob } from './change-job';

/**
 * Issues a release or a findings-only paper. A release needs every required step passed or recorded, none failed, and is issued once:
 * sent again, it is the one that stands. It is judged anew from the traces: what was kept of an evaluation is not believed.
 */
export async function issueRelease(
  jobId: string,
  how: { readonly kind: Report['kind']; readonly person: string; readonly units: string },
): Promise<{ id: string; version: number }> {
  const { kind, person } = how;
  return changeJob<{ id: string }>(jobId, {
    person,
    already: (record) => {
      const stands = kind === 'released' && record.job.takenOutAt === null ? standing(record) : undefined;
      return stands && { id: stands.id };
    },
    async decide({ record, shop, at }) {
      const { job } = record;
      if (job.takenOutAt !== null)
        throw new RequestRefused(409, 'This job was taken out of the book. Bring it back first.');
      refuseUnknownSite(shop);
      const judging = kind === 'released' ? 'traces' : 'kept';
      const evaluated = await evaluateJob(record, shop, judging);
      const behind = await behindOf(record, shop, { judging });
      const blocking = blockingOf(record, { evaluation: evaluated.evaluation, behind });
      if (kind === 'released' && blocking.length > 0)
        throw new RequestRefused(
          409,
          `Not releasable: ${blocking.map(({ title, verdict }) => (verdict ? `${title} (${verdict})` : title)).join(', ')}. It can be issued as findings only.`,
        );
      const details = { kind, issuedAt: at, issuedBy: person, units: displayUnits(how.units) };
      const report = await buildReport(record, shop, details, evaluated);
      const id = randomUUID();
      return {
        edits: [
          { kind: 'issued', release: { id, jobId, kind, issuedAt: at, person, report } },
          { kind: 'act', act: { jobId, subject: id, act: 'issued', person, detail: kind } },
          ...(kind === 'released' ? [{ kind: 'placed', place: 'ready' } as const] : []),
        ],
        result: { id },
      };
    },
  });
}

/** A report as it was issued. */
export async function issuedReport(id: string): Promise<Report> {
  const release = await findRelease(id);
  if (!release) throw new RequestRefused(404, 'This release is not on record.');
  const report = reportSchema.safeParse(release.report);
  if (!report.success) {
    console.error(`release ${id}`, report.error);
    throw new RequestRefused(
      422,
      'This paper cannot be read: its record is damaged. The job itself is not touched by it.',
    );
  }
  return { ...report.data, ...(release.withdrawn ? { withdrawn: release.withdrawn } : {}) };
}
