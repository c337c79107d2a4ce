import { emptyShopFolder } from '../../../tests/support/shop';

emptyShopFolder();

import { displayUnits } from '@/core/wording/display';
import { moveJob } from '@/data/jobs';
import { listRuns, setRunState } from '@/data/runs';
import { readShopSettings, writeShopSettings } from '@/data/settings';
import * as releasesRoute from '../api/jobs-one-releases';
import * as runRoute from '../api/runs-one';
import { listActs } from '@/data/acts';
import { bookIn } from './book-in';
import { sheetOf } from '../context/job-context';
import { wholeFloor } from '../../../tests/support/whole-floor';
import { jobView } from '../views/job-view';
import { reportOfJob } from '../views/build-report';
import { issuedReport, issueRelease } from './issue-release';
import { reportHtml } from '../paper/report-html';
import { reportPdf } from '../paper/report-pdf';
import {
  book,
  bookedInquiry,
  ask,
  keepSimulated,
  lookAt,
  openWorkshop,
  person,
  runWhole,
  workshop,
} from '../../../tests/support/workshop';

beforeAll(openWorkshop);

describe('release', () => {
  it('of a whole sound unit is issued, keeps its words for ever, and stands on the floor as ready', async () => {
    const job = await book('TK-2207-150');
    await expect(issueRelease(job.id, { kind: 'released', person, units: 'kpa' })).rejects.toMatchObject({
      status: 409,
    });
    await runWhole(job);
    const view = await jobView(job.id);
    expect({ verdict: view.verdict, blocking: view.blocking }).toEqual({ verdict: 'pass', blocking: [] });
    const { id } = await issueRelease(job.id, { kind: 'released', person, units: 'psi' });
    const report = await issuedReport(id);
    expect(report.steps.map((step) => step.verdict)).not.toContain('not-run');
    expect(report.curve?.input).toBe('Input, psi gauge');
    expect((await wholeFloor()).jobs.find((each) => each.job.id === job.id)?.job.place).toBe('ready');

    await writeShopSettings({ ...(await readShopSettings()), shopName: 'Another name' });
    expect((await issuedReport(id)).shop).toBe('Vennholm bench');
    const html = reportHtml(report);
    expect(html).toContain('Measured by a stand-in rig');
    expect(html).toContain('psi');
    expect(html).not.toContain('MPa gauge');
    expect((await reportPdf(report)).subarray(0, 5).toString()).toBe('%PDF-');
    await expect(issuedReport('nothing')).rejects.toMatchObject({ status: 404 });
  });

  it('is issued once however often it is sent, by somebody of the shop, and is on record with who did it', async () => {
    const job = await book('TK-2207-171');
    await runWhole(job);
    const asked = { kind: 'released', person, units: 'kpa' };
    const answers = await Promise.all([1, 2, 3].map(() => ask(releasesRoute.POST, job.id, asked)));
    expect(answers.map((answer) => answer.status)).toEqual([200, 200, 200]);
    expect(new Set(answers.map((answer) => answer.body.id)).size).toBe(1);
    expect((await ask(releasesRoute.POST, job.id, asked)).body.id).toBe(answers[0].body.id);
    const view = await jobView(job.id);
    expect(view.releases).toHaveLength(1);
    const issued = (await listActs(job.id)).filter((each) => each.act === 'issued');
    expect(issued.map((each) => each.person)).toEqual([person]);
  });

  it('no longer stands once a run that it stands on is struck out, or a step fails after it; the unit goes back', async () => {
    const job = await book('TK-2207-172');
    await runWhole(job);
    const issue = async () =>
      (await ask(releasesRoute.POST, job.id, { kind: 'released', person, units: 'kpa' })).body.id;
    const first = await issue();
    const curve = (await listRuns(job.id)).find((run) => run.step === 'boost-curve')!;
    const struck = await ask(runRoute.POST, curve.id, { action: 'strike-out', reason: 'lever slipped', person });
    expect(struck.status).toBe(200);
    const after = await jobView(job.id);
    expect(after.job.place).toBe('waiting');
    expect(after.releases[0].withdrawn?.why).toContain('lever slipped');
    expect(reportHtml(await issuedReport(first))).toContain('Withdrawn');
    await keepSimulated(job, 'boost-curve', 4);
    const second = await issue();
    expect(second).not.toBe(first);
    expect((await jobView(job.id)).job.place).toBe('ready');
    await lookAt(job, 'leak-look', 'dripping');
    const failed = await jobView(job.id);
    expect(failed.releases.map((each) => each.withdrawn !== null)).toEqual([true, true]);
    expect(failed.job.place).toBe('waiting');
    expect((await listActs(job.id)).filter((each) => each.act === 'withdrawn')).toHaveLength(2);
  });

  it('is refused where an optional step failed, and where an inquiry ended at something to mend', async () => {
    const stuck = await bookedInquiry();
    const view = await jobView(stuck.id);
    expect(view.conclusion?.id).toBe('seized-wheel');
    const optional = view.steps.find((step) => step.id === 'behind-the-booster')!;
    expect(optional.evaluation.optional).toBe(true);
    expect(view.blocking).toContainEqual({ job: stuck.id, step: optional.id, title: optional.title, verdict: 'fail' });
    expect(view.blocking.map((each) => each.title)).toContain(view.conclusion?.title);
    const refused = await ask(releasesRoute.POST, stuck.id, { kind: 'released', person, units: 'kpa' });
    expect(refused.status).toBe(409);
    expect(refused.body.message).toContain('seized');
  });

  it('escapes what people type', async () => {
    const job = await bookIn({
      sheetId: workshop.sheetId,
      serial: '<b>1</b>',
      vehicle: 'a & b',
      complaint: '"x"',
      promisedAt: '',
      plan: 'bench' as const,
      person,
      standInFault: '',
    });
    const report = await reportOfJob(job.id, {
      kind: 'findings-only',
      issuedAt: '',
      issuedBy: person,
      units: displayUnits('kpa'),
    });
    const html = reportHtml(report);
    expect(html).toContain('&lt;b&gt;1&lt;/b&gt;');
    expect(html).not.toContain('<b>1</b>');
    expect(html).toContain('preview, not issued yet');
  });

  it('of a failing unit is refused, and its findings name the failing step', async () => {
    const job = await book('TK-2207-151', 'control-piston-sticking');
    await runWhole(job);
    await expect(issueRelease(job.id, { kind: 'released', person, units: 'kpa' })).rejects.toThrow(
      /Boost curve \(fail\)/,
    );
    const { id } = await issueRelease(job.id, { kind: 'findings-only', person, units: 'kpa' });
    const report = await issuedReport(id);
    expect(report.verdict).toBe('fail');
    expect(report.steps.find((step) => step.title === 'Boost curve')?.rows.some((row) => row.verdict === 'fail')).toBe(
      true,
    );
    await moveJob(job.id, 'gone');
    expect((await wholeFloor()).jobs.some((view) => view.job.id === job.id)).toBe(false);
    expect(sheetOf(job).name).toBe('Tarnock R7');
    await setRunState('nothing', 'kept');
  });
});
