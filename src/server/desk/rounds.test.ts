import { emptyShopFolder } from '../../../tests/support/shop';

emptyShopFolder();

import * as actRoute from '../api/acts-one';
import * as comparedRoute from '../api/jobs-one-compared';
import * as orderRoute from '../api/jobs-one-order';
import * as repairRoute from '../api/jobs-one-repairs';
import * as prevalenceRoute from '../api/prevalences';
import { displayUnits } from '@/core/wording/display';
import { listRepairs } from '@/data/repairs';
import { findJob, type Job } from '@/data/jobs';
import {
  ask,
  book,
  keepSimulated,
  kind,
  lookAt,
  openWorkshop,
  person,
  runWhole,
} from '../../../tests/support/workshop';
import { reportOfJob } from '../views/build-report';
import { reportHtml } from '../paper/report-html';
import { wholeFloor } from '../../../tests/support/whole-floor';
import { jobView } from '../views/job-view';
import { standInNow } from '../context/stand-in-now';

beforeAll(openWorkshop);

const repair = (job: Job, part: string, action = 'replaced') =>
  ask(repairRoute.POST, job.id, { person, work: [{ part, action, with: 'VK-118' }], note: 'Seat scored' });

/** Does again what a job’s last repair makes due. */
async function proveAgain(job: Job): Promise<void> {
  const { due } = await jobView(job.id);
  for (const [at, { step }] of due.entries()) {
    if (kind.steps.find((each) => each.id === step)?.kind === 'look') await lookAt(job, step);
    else await keepSimulated(job, step, 20 + at, new Date(Date.now() + 1000).toISOString());
  }
}

const first = async (job: Job) => (await jobView(job.id)).ledger?.rows[0].id;

describe('a fault found, mended wrongly, mended rightly, and proved', () => {
  let job: Job;
  beforeAll(async () => {
    job = await book('TK-2207-300', 'vacuum-valve-leak');
    await runWhole(job);
  });

  it('is named by the ledger, on the job and on the floor', async () => {
    const view = await jobView(job.id);
    expect(view.ledger?.rows[0].id).toBe('vacuum-valve-leak');
    expect(view.ledger?.next.kind).toBe('certain');
    expect(view.likeliest?.title).toBe('Vacuum valve leaks');
    const card = (await wholeFloor()).jobs.find((each) => each.job.id === job.id);
    expect(card?.likeliest).toBe('Vacuum valve leaks: leads, not certain');
    expect(view.blocking.map((each) => each.step)).toContain('vacuum-hold-applied');
  });

  it('takes no repair that says nothing, or that is of no part of the unit', async () => {
    const refused = async (body: object) => (await ask(repairRoute.POST, job.id, { person, note: '', ...body })).status;
    expect(await refused({ work: [] })).toBe(422);
    expect(await refused({ work: [{ part: 'breather', action: 'left', with: '' }] })).toBe(422);
    expect(await refused({ work: [{ part: 'flux-valve', action: 'replaced', with: '' }] })).toBe(422);
    expect(await refused({ work: [{ part: 'breather', action: 'admired', with: '' }] })).toBe(422);
    const twice = { part: 'breather', action: 'cleaned', with: '' };
    expect(await refused({ work: [twice, twice] })).toBe(422);
    expect((await jobView(job.id)).round).toBe(1);
  });

  it('begins another round with a repair, which can be taken back while nothing was done since', async () => {
    expect((await repair(job, 'breather', 'cleaned')).status).toBe(200);
    const view = await jobView(job.id);
    expect([view.round, view.verification.kind]).toEqual([2, 'to-do']);
    const undo = view.undoable.find((each) => each.what === 'repaired');
    expect((await ask(actRoute.DELETE, String(undo?.act), { person })).status).toBe(200);
    const back = await jobView(job.id);
    expect([back.round, back.verification.kind, back.verdict]).toEqual([1, 'nothing-repaired', 'fail']);
  });

  it('finds out that the wrong part was replaced, and names what is left', async () => {
    expect((await repair(job, 'control-piston')).status).toBe(200);
    const begun = await jobView(job.id);
    const verdict = (view: typeof begun, step: string) =>
      view.steps.find((each) => each.id === step)?.evaluation.verdict;
    // What failed is to be done again; what the piston cannot change stands.
    expect(verdict(begun, 'vacuum-hold-applied')).toBe('not-run');
    expect(verdict(begun, 'gauge-agreement')).toBe('pass');
    expect(begun.blocking.length).toBeGreaterThan(0);
    await proveAgain(job);
    const view = await jobView(job.id);
    expect(view.verification).toMatchObject({ kind: 'not-verified' });
    expect(view.ledger?.rows[0].id).toBe('vacuum-valve-leak');
    expect(view.undoable.some((each) => each.what === 'repaired')).toBe(false);
    expect(view.verdict).toBe('fail');
  });

  it('takes the fault off the stand-in with the right part, and proves it by what it changed', async () => {
    expect((await repair(job, 'control-valve')).status).toBe(200);
    expect((await standInNow(job, await listRepairs(job.id))).faults).toEqual([]);
    expect((await jobView(job.id)).round).toBe(3);
    await proveAgain(job);
    const view = await jobView(job.id);
    expect(view.verification).toEqual({ kind: 'verified' });
    expect(view.blocking).toEqual([]);
    expect(await first(job)).toBe('no-fault');
    const report = await reportOfJob(job.id, {
      kind: 'released',
      issuedAt: '2026-11-27T12:00:00Z',
      issuedBy: person,
      units: displayUnits('kpa'),
    });
    expect(report.repairs.map((each) => each.work.length)).toEqual([1, 1]);
    expect(report.repairs[1].work[0]).toMatch(/^Control valve: replaced \(VK-118\)$/);
    expect(report.changes.map((each) => each.name)).toContain('Vacuum loss');
    expect(report.findings).toEqual([]);
    const html = reportHtml(report);
    expect(html).toContain('Verified');
    expect(html).toContain('VK-118');
  });

  it('draws before and after from what was recorded, and what a fault would draw beside it', async () => {
    const asked = async (query: string) => {
      const request = new Request(`http://127.0.0.1/api?${query}`);
      return (await comparedRoute.GET(request, { params: Promise.resolve({ id: job.id }) })).json();
    };
    const drawn = await asked('step=boost-curve&expected=vacuum-valve-leak:0.6');
    for (const line of ['now', 'before', 'expected']) expect(drawn[line].path.length).toBeGreaterThan(20);
    const highest = (line: { path: [number, number][] }) => Math.max(...line.path.map(([, y]) => y));
    // The leak costs output: before, and as the fault would draw it, less than after.
    expect(highest(drawn.before)).toBeLessThan(0.97 * highest(drawn.now));
    expect(highest(drawn.expected)).toBeLessThan(0.97 * highest(drawn.now));
    expect((await asked('step=boost-curve')).expected).toBeNull();
    // Fitted to a unit that was mended, next to nothing of it is left.
    const { fitted } = await asked('step=boost-curve&expected=vacuum-valve-leak:0.6&fit=yes');
    expect(fitted).toMatchObject({ lies: 'at-the-least' });
    expect(fitted.severity).toBeLessThan(0.15);
  });

  it('keeps in which order a job’s run sheet begins', async () => {
    const other = await book('TK-2207-301', 'vacuum-valve-leak');
    const ordered = async () => (await jobView(other.id)).nextStep;
    expect(await ordered()).toBe('look-over');
    await ask(orderRoute.PUT, other.id, { orderedBy: 'worth' });
    expect((await findJob(other.id))?.orderedBy).toBe('worth');
    const planned = (await jobView(other.id)).steps.map(({ id }) => id);
    const { ledger, nextStep, steps } = await jobView(other.id);
    expect(steps[0].id).toBe(nextStep);
    expect([...planned].sort()).toEqual(steps.map(({ id }) => id).sort());
    expect(ledger?.next).toMatchObject({ kind: 'test', worth: { step: nextStep } });
    expect(nextStep).not.toBe('look-over');
  });

  it('begins with how common a fault is in this workshop', async () => {
    const put = (body: object) => ask(prevalenceRoute.PUT as never, '', body);
    const other = await book('TK-2207-302');
    const share = async () =>
      (await jobView(other.id)).ledger?.rows.find((row) => row.id === 'vacuum-valve-leak')?.probability ?? 0;
    const before = await share();
    expect((await put({ family: 'vacuum-remote', fault: 'vacuum-valve-leak', prevalence: 'hardly-ever' })).status).toBe(
      200,
    );
    expect(await share()).toBeLessThan(before / 10);
    expect((await put({ family: 'vacuum-remote', fault: 'flux-leak', prevalence: 'common' })).status).toBe(422);
    expect((await put({ family: 'flux', fault: 'vacuum-valve-leak', prevalence: 'common' })).status).toBe(422);
    await put({ family: 'vacuum-remote', fault: 'vacuum-valve-leak', prevalence: 'common' });
    expect(await share()).toBeCloseTo(before, 9);
  });

  it('lets a second repair make nothing good that the first one made due', async () => {
    const other = await book('TK-2207-303', 'vacuum-valve-leak');
    await runWhole(other);
    await repair(other, 'stop-lamp-switch');
    const due = async () => new Map((await jobView(other.id)).due.map((each) => [each.step, each.because]));
    expect((await due()).get('stop-lamp-switch')).toBe('affected');
    await repair(other, 'return-spring');
    expect((await due()).get('stop-lamp-switch')).toBe('still-due');
    const view = await jobView(other.id);
    expect(view.steps.find((step) => step.id === 'stop-lamp-switch')?.evaluation.verdict).toBe('not-run');
    // What was drawn before the repair is not how the unit is now, on the card or on paper.
    expect(view.face.measured).toBeNull();
    const asked = { kind: 'findings-only', issuedAt: '', issuedBy: person, units: displayUnits('kpa') } as const;
    const { steps } = await reportOfJob(other.id, asked);
    expect(steps.find((step) => step.title === 'Boost curve')).toMatchObject({ verdict: 'not-run', who: '' });
  });

  it('takes two units without a plate for two units', async () => {
    const [one, two] = [await book('none'), await book('none')];
    await runWhole(one);
    expect((await jobView(two.id)).cameBack).toBeNull();
  });

  it('refuses a severity that is none', async () => {
    const request = new Request('http://127.0.0.1/api?step=boost-curve&expected=vacuum-valve-leak:much');
    expect((await comparedRoute.GET(request, { params: Promise.resolve({ id: job.id }) })).status).toBe(422);
  });

  it('shows a serial that comes back what it drew before', async () => {
    const again = await book('TK-2207-300');
    const { cameBack } = await jobView(again.id);
    expect(cameBack).toMatchObject({ id: job.id, verdict: 'pass' });
    expect(cameBack?.face?.apply.length).toBeGreaterThan(5);
    expect((await jobView(job.id)).cameBack).toBeNull();
  });
});
