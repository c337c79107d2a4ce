import type { Report } from '@/core/formats/report';
import { verdictWords } from '@/core/wording/verdict-words';
import { shopTime, zoneOffset } from '@/core/wording/shop-time';

/** Title line of a report. */
export function reportTitle(report: Report): string {
  return report.kind === 'released' ? 'Release' : 'Not released, findings only';
}

/** "issued 24 Nov 2026, 00:04 by …", or that it has not been. */
export function issuedLine(report: Report): string {
  if (report.issuedAt === '') return 'preview, not issued yet';
  return `issued ${when(report, report.issuedAt)} by ${report.issuedBy}`;
}

/** A moment by the clock of the workshop that issued the paper; of papers from before zones were kept, by UTC. */
export function when({ timeZone = 'UTC' }: Pick<Report, 'timeZone'>, iso: string): string {
  return shopTime(iso, 'paper', { zone: timeZone, today: '' });
}

/** By which clock a paper is dated: "By the clock of Europe/Vienna (UTC+1)". */
export function zoneLine({ timeZone = 'UTC', issuedAt, job }: Report): string {
  const at = issuedAt === '' ? job.bookedAt : issuedAt;
  return `By the clock of ${timeZone.replaceAll('_', ' ')}${timeZone === 'UTC' ? '' : ` (${zoneOffset(at, timeZone)})`}.`;
}

export function verdictWord(verdict: Report['verdict']): string {
  return verdictWords[verdict];
}

/** Label and value pairs of the head. */
export function headRows(report: Report): (readonly [string, string])[] {
  return [
    ['Unit', `${report.job.unit}, ${report.job.family.toLowerCase()}`],
    ['Serial', report.job.serial],
    ['From', report.job.vehicle],
    ['Complaint', report.job.complaint || 'none stated'],
    ...(report.job.symptoms.length === 0 ? [] : [['Noticed', report.job.symptoms.join(', ')] as const]),
    ...(report.job.fluid === '' ? [] : [['Fluid', report.job.fluid] as const]),
    ['Booked in', `${when(report, report.job.bookedAt)}, job ${report.job.number}`],
    ['Air', report.air.join(', ')],
    ...(report.conclusion ? [['Inquiry', `${report.conclusion.title}. ${report.conclusion.advice}`] as const] : []),
    ['Decision', report.policy],
    ['Times', zoneLine(report)],
  ];
}

/** What a paper says that no longer stands. */
export function withdrawnLine({ withdrawn, timeZone }: Report): string | null {
  return withdrawn ? `Withdrawn ${when({ timeZone }, withdrawn.at)}. ${withdrawn.why}` : null;
}

export const standInSentence =
  'Measured by a stand-in rig: no real unit was on a bench. Not valid for releasing a real unit.';

/** What the band of a curve was drawn for. */
export function curveSentence(curve: NonNullable<Report['curve']>): string {
  return (
    curve.over ?? `Over the band of a sound unit at the vacuum that was there (${curve.vacuum} at the reference input).`
  );
}

export const findingsTitle = 'What it may be';

export const findingsSentence =
  'Ranked by what was measured, looked at and noticed. A ranking is no verdict: look before a part is replaced; the maker’s data win.';
