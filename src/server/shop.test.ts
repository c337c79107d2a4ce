import { emptyShopFolder, readEveryCaution, until } from '../../tests/support/shop';

emptyShopFolder();

import { concatTraces, makeTrace, sliceTrace } from '@/core/traces/trace';
import { simulateStep } from '@/core/rig/run-step';
import { displayUnits } from '@/core/wording/display';
import { database, openDatabase } from '@/data/database';
import { acknowledgeCaution, findJob, listCautions, listJobs, moveJob, type Job } from '@/data/jobs';
import { appendChunk, findRun, insertRun, listRuns, readTrace, setRunState } from '@/data/runs';
import { listInstruments, listPeople, readShopSettings, writeShopSettings } from '@/data/settings';
import { findSheet, listSheets } from '@/data/unit-sheets';
import { findFamily } from '@/core/families';
import * as releasesRoute from '@/app/api/jobs/[id]/releases/route';
import * as runRoute from '@/app/api/runs/[id]/route';
import { listActs } from '@/data/acts';
import { RequestRefused } from './http/refused';
import { addSheet, bookIn } from './jobs/book-in';
import { correctionsBefore, evaluateJob, evaluateRun } from './jobs/evaluate-job';
import { contextOf, measuredStepOf, sheetOf, siteNow } from './jobs/job-context';
import { floorView, jobView } from './jobs/job-view';
import { buildReport } from './release/build-report';
import { issuedReport, issueRelease } from './release/issue-release';
import { reportHtml } from './release/report-html';
import { reportPdf } from './release/report-pdf';
import {
  commandRun,
  discardRun,
  keepRun,
  recorderOf,
  recordLook,
  resumeRun,
  startRun,
  stopRun,
  strikeOut,
} from './runs/bench-runs';
import { runStream } from './runs/run-stream';

const family = findFamily('vacuum-remote')!;
const person = 'Noor Halabi';
let sheetId = '';

async function book(serial: string, standInFault = ''): Promise<Job> {
  const job = await bookIn({
    sheetId,
    serial,
    vehicle: 'Grader 2',
    complaint: '',
    promisedAt: '',
    plan: 'bench',
    person,
    standInFault,
  });
  await readEveryCaution(job, person);
  return job;
}

/** Stores a step as kept, run by the rig at once instead of in real time. */
async function keepSimulated(job: Job, stepId: string, runSeed = 1): Promise<string> {
  const startedAt = new Date(2026, 10, 23, 9, 0, runSeed).toISOString();
  const site = await siteNow();
  const trace = simulateStep(family, measuredStepOf(family, stepId), contextOf(job, site, startedAt), {
    faults: job.standIn.faults,
    benchSeed: job.standIn.seed,
    runSeed,
  });
  const id = await insertRun({
    jobId: job.id,
    step: stepId,
    state: 'kept',
    startedAt,
    person,
    context: { site, source: 'stand-in rig' },
  });
  await appendChunk(id, 0, sliceTrace(trace, 0, 500), null);
  await appendChunk(id, 1, sliceTrace(trace, 500, trace.time.length), null);
  return id;
}

async function lookAt(job: Job, stepId: string, option?: string): Promise<void> {
  const step = family.steps.find((each) => each.id === stepId);
  if (step?.kind !== 'look') throw new Error('not a look step');
  const findings = Object.fromEntries(step.points.map((point) => [point.id, option ?? step.options[0].id]));
  await recordLook(job.id, stepId, findings, person);
}

async function runWhole(job: Job): Promise<void> {
  for (const step of family.steps) {
    if (step.kind === 'look') await lookAt(job, step.id);
    else await keepSimulated(job, step.id);
  }
}

/** What a route answers to a body. */
async function ask(
  handler: (request: Request, context: { params: Promise<{ id: string }> }) => Promise<Response>,
  id: string,
  body: object,
) {
  const request = new Request('http://127.0.0.1/api', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  const response = await handler(request, { params: Promise.resolve({ id }) });
  return { status: response.status, body: (await response.json()) as { id: string; message: string } };
}

/** A job of another family on a plan of its own, every caution read. */
async function bookOf(familyId: string, plan: 'bench' | 'vehicle', serial: string): Promise<Job> {
  const other = findFamily(familyId)!;
  const sheet = await addSheet({ family: familyId, name: serial, spec: other.example.spec as Record<string, unknown> });
  const job = await bookIn({
    sheetId: sheet.id,
    serial,
    vehicle: 'Grader 2',
    complaint: '',
    promisedAt: '',
    plan,
    person,
    standInFault: '',
  });
  await readEveryCaution(job, person);
  return job;
}

/** An inquiry that ended at a wheel that is seized. */
async function bookedInquiry(): Promise<Job> {
  const job = await bookOf('vacuum-inline', 'vehicle', 'OW-V-32');
  const inline = findFamily('vacuum-inline')!;
  const behind = inline.steps.find((step) => step.id === 'behind-the-booster')!;
  if (behind.kind !== 'look') throw new Error('not a look');
  const [good] = behind.options;
  const findings = Object.fromEntries(
    behind.points.map((point) => [point.id, point.id === 'seized-wheel' ? 'found' : good.id]),
  );
  await recordLook(job.id, behind.id, findings, person);
  return job;
}

beforeAll(async () => {
  await writeShopSettings({
    shopName: 'Vennholm bench',
    site: { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 620 },
    policy: 'guarded',
  });
  sheetId = (
    await addSheet({ family: family.id, name: 'Tarnock R7', spec: family.example.spec as Record<string, unknown> })
  ).id;
});

describe('database', () => {
  it('is brought to the newest shape as often as one likes', async () => {
    const again = await openDatabase();
    expect(await again('settings').count({ n: '*' })).toEqual([{ n: 1 }]);
    await again.destroy();
  });

  it('has sensible settings before anybody has set any', async () => {
    expect((await readShopSettings()).site.altitudeM).toBe(1420);
    expect(await listPeople()).toEqual([]);
    expect(await listInstruments()).toEqual([]);
  });
});

describe('booking in', () => {
  it('copies the sheet, numbers the job and draws the rig’s seed from the serial', async () => {
    const first = await book('TK-2207-140');
    const second = await book('TK-2207-141');
    expect(second.number).toBe(first.number + 1);
    expect(first.sheet.spec).toEqual((await findSheet(sheetId))?.spec);
    expect(first.standIn.seed).not.toBe(second.standIn.seed);
    expect(first.place).toBe('waiting');
    expect((await listJobs()).jobs.map((job) => job.serial)).toContain('TK-2207-140');
  });

  it('refuses a sheet and a fault that nobody knows, by field', async () => {
    const wrong = {
      sheetId: 'nowhere',
      serial: 'X1',
      vehicle: 'v',
      complaint: '',
      promisedAt: '',
      plan: 'bench' as const,
      person,
      standInFault: '',
    };
    await expect(bookIn(wrong)).rejects.toMatchObject({ status: 422, fields: { sheetId: expect.any(String) } });
    await expect(bookIn({ ...wrong, sheetId, standInFault: 'gremlins' })).rejects.toMatchObject({
      fields: { standInFault: expect.any(String) },
    });
  });

  it('refuses a sheet by the field that is wrong, and stores nothing', async () => {
    const before = (await listSheets()).length;
    const spec = { ...(family.example.spec as Record<string, unknown>), slaveBoreMm: 400 };
    await expect(addSheet({ family: family.id, name: 'x', spec })).rejects.toMatchObject({
      fields: { slaveBoreMm: expect.any(String) },
    });
    await expect(addSheet({ family: 'teapot', name: 'x', spec })).rejects.toBeInstanceOf(RequestRefused);
    expect(await listSheets()).toHaveLength(before);
  });

  it('records the first who acknowledged a caution', async () => {
    const job = await book('TK-2207-142');
    await acknowledgeCaution(job.id, 'gas-sphere', 'Piet Oduya', '2026-11-23T10:00:00Z');
    await acknowledgeCaution(job.id, 'gas-sphere', 'Tomas Rehn', '2026-11-23T11:00:00Z');
    const read = (await listCautions(job.id)).filter((each) => each.caution === 'gas-sphere');
    expect(read).toEqual([{ caution: 'gas-sphere', person: 'Piet Oduya', at: '2026-11-23T10:00:00Z' }]);
  });
});

describe('traces in the database', () => {
  it('come back whole, in the order of their chunks', async () => {
    const job = await book('TK-2207-143');
    const id = await insertRun({
      jobId: job.id,
      step: 'vacuum-draw',
      state: 'recording',
      startedAt: '2026-11-23T10:00:00Z',
      person,
      context: { site: {}, source: 'stand-in rig' },
    });
    const time = Float64Array.from({ length: 30 }, (_, i) => i);
    const whole = makeTrace(time, { supply_vacuum: time.map((t) => t * 100) });
    for (const [sequence, from] of [0, 10, 20].entries())
      await appendChunk(id, sequence, sliceTrace(whole, from, from + 10), { at: from });
    expect(await readTrace(id)).toEqual({ trace: whole, nextSequence: 3 });
    expect((await findRun(id))?.progress).toEqual({ at: 20 });
    // The driver's errors belong to whichever test file loaded it first, so they are known by their code.
    await expect(appendChunk(id, 2, whole, { at: 99 })).rejects.toMatchObject({
      code: expect.stringContaining('SQLITE_CONSTRAINT') as string,
    });
    expect((await findRun(id))?.progress).toEqual({ at: 20 });
    expect(await readTrace('nothing')).toEqual({ trace: concatTraces([]), nextSequence: 0 });
  });
});

describe('a live run', () => {
  it('is started, pulled, kept, struck out; and only one at a time', async () => {
    const job = await book('TK-2207-144');
    const { id } = await startRun(job.id, 'stop-lamp-switch', person);
    expect((await findJob(job.id))?.place).toBe('on-bench');
    expect((await startRun(job.id, 'stop-lamp-switch', person)).id).toBe(id);
    await expect(startRun(job.id, 'boost-curve', person)).rejects.toMatchObject({ status: 409 });
    await expect(keepRun(id, person)).rejects.toMatchObject({ status: 409 });
    await expect(startRun(job.id, 'look-over', person)).rejects.toMatchObject({ status: 404 });

    await commandRun(id, { kind: 'speed', speed: 50 });
    await commandRun(id, { kind: 'by-itself', on: true });
    await until(async () => (await findRun(id))?.state === 'complete');
    expect(recorderOf(id)).toBeUndefined();
    await expect(commandRun(id, { kind: 'lever', level: 1e6 })).rejects.toMatchObject({ status: 409 });

    const run = (await findRun(id))!;
    const result = await evaluateRun(job, run, (await readTrace(id)).trace);
    expect(result.verdict).toBe('pass');
    await keepRun(id, person);
    await expect(discardRun(id, person)).rejects.toMatchObject({ status: 409 });
    expect((await jobView(job.id)).steps.find((step) => step.id === 'stop-lamp-switch')?.evaluation.verdict).toBe(
      'pass',
    );
    await strikeOut(id, 'lever slipped', person);
    const view = await jobView(job.id);
    expect(view.steps.find((step) => step.id === 'stop-lamp-switch')?.evaluation.verdict).toBe('not-run');
    expect(view.steps.find((step) => step.id === 'stop-lamp-switch')?.runs[0].struckOut).toBe('lever slipped');
  });

  it('stopped at once carries nothing, and says so instead of a number', async () => {
    const job = await book('TK-2207-145');
    const { id } = await startRun(job.id, 'vacuum-draw', person);
    await stopRun(id);
    const result = await evaluateRun(job, (await findRun(id))!, (await readTrace(id)).trace);
    expect(result.verdict).toBe('undecided');
    expect(result.characteristics.every((each) => each.kind === 'absent')).toBe(true);
    await discardRun(id, person);
    expect(await listRuns(job.id)).toEqual([]);
  });

  it('streams what is there, then what comes, and ends with the run', async () => {
    const job = await book('TK-2207-146');
    const { id } = await startRun(job.id, 'vacuum-hold-rest', person);
    const response = await runStream(id, new AbortController().signal);
    expect(response.headers.get('content-type')).toBe('text/event-stream');
    await commandRun(id, { kind: 'speed', speed: 50 });
    const text = await response.text();
    const frames = text
      .trim()
      .split('\n\n')
      .map((line) => JSON.parse(line.replace('data: ', '')) as { kind: string; state: string; time: number[] });
    expect(frames[0].kind).toBe('whole');
    expect(frames.at(-1)?.state).toBe('complete');
    const times = frames.flatMap((frame) => frame.time);
    expect(times).toHaveLength((await readTrace(id)).trace.time.length);
    expect((await runStream('nothing', new AbortController().signal)).status).toBe(404);
  });

  it('interrupted by a crash is offered, and resumed where it stood', async () => {
    const job = await book('TK-2207-147');
    const { id } = await startRun(job.id, 'vacuum-hold-rest', person);
    await until(async () => (await readTrace(id)).trace.time.length > 100);
    const recorder = recorderOf(id)!;
    // As after a crash: the recorder is gone, the database still says "recording".
    await recorder.stop();
    const shared = globalThis as { hardPedalRecorders?: Map<string, unknown> };
    shared.hardPedalRecorders?.delete(id);
    const before = (await readTrace(id)).trace.time;
    expect((await jobView(job.id)).openRun).toEqual({ kind: 'interrupted', id, step: 'vacuum-hold-rest' });
    await resumeRun(id);
    await commandRun(id, { kind: 'speed', speed: 50 });
    await until(async () => (await findRun(id))?.state === 'complete');
    const { time } = (await readTrace(id)).trace;
    expect(time.slice(0, before.length)).toEqual(before);
    for (let i = 1; i < time.length; i++) expect(time[i] - time[i - 1]).toBeCloseTo(0.005, 9);
    await expect(resumeRun(id)).rejects.toMatchObject({ status: 409 });
  });
});

describe('evaluating a job', () => {
  it('corrects later steps by the gauge agreement, averages repeats, and makes the same evaluation only once', async () => {
    const job = await book('TK-2207-148');
    await keepSimulated(job, 'gauge-agreement');
    await keepSimulated(job, 'boost-curve', 2);
    const single = (await evaluateJob(job)).evaluation;
    expect((await evaluateJob(job)).evaluation).toBe(single);
    expect((await correctionsBefore(job, 'gauge-agreement')).pair).toBeNull();
    expect((await correctionsBefore(job, 'boost-curve')).pair?.applied).toBe(true);
    await keepSimulated(job, 'boost-curve', 3);
    const double = (await evaluateJob(job)).evaluation;
    const slope = (of: typeof single) => {
      const found = of.steps
        .find((step) => step.step === 'boost-curve')
        ?.characteristics.find((each) => each.id === 'boost-slope');
      return found?.kind === 'measured' ? found.estimate : null;
    };
    const fit = (of: typeof single) => slope(of)!.components.find((part) => part.source === 'fit')!.standard;
    expect(fit(double)).toBeLessThan(fit(single));
    expect(Math.abs(slope(double)!.value / slope(single)!.value - 1)).toBeLessThan(0.01);
  });
});

describe('one bad record', () => {
  it('is a card on the floor that says so, and the others stand', async () => {
    const [damaged, unread, whole] = [await book('TK-2207-180'), await book('TK-2207-181'), await book('TK-2207-182')];
    const db = await database();
    await db('jobs').where({ id: damaged.id }).update({ sheet: 'no JSON {' });
    await db('jobs')
      .where({ id: unread.id })
      .update({ sheet: JSON.stringify({ family: 'vacuum-remote', name: 'R7', spec: {} }) });
    const log = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    const { jobs, broken } = await floorView();
    log.mockRestore();
    expect(jobs.map((view) => view.job.id)).toContain(whole.id);
    expect(broken.map((each) => each.serial).sort()).toEqual(['TK-2207-180', 'TK-2207-181']);
    expect(broken.find((each) => each.id === damaged.id)?.why).toContain('sheet');
    for (const { id, sheet } of [damaged, unread])
      await db('jobs')
        .where({ id })
        .update({ sheet: JSON.stringify(sheet) });
  });
});

describe('look steps', () => {
  it('want a word for every point', async () => {
    const job = await book('TK-2207-149');
    await expect(recordLook(job.id, 'leak-look', { 'end-cap': 'dry' }, person)).rejects.toMatchObject({ status: 422 });
    await expect(recordLook(job.id, 'boost-curve', {}, person)).rejects.toMatchObject({ status: 404 });
    await lookAt(job, 'leak-look', 'dripping');
    expect((await jobView(job.id)).verdict).toBe('fail');
    await lookAt(job, 'leak-look');
    expect((await jobView(job.id)).verdict).toBe('incomplete');
  });
});

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
    expect((await floorView()).jobs.find((each) => each.job.id === job.id)?.job.place).toBe('ready');

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
    expect(view.blocking).toContainEqual({ step: optional.id, title: optional.title, verdict: 'fail' });
    expect(view.blocking.map((each) => each.title)).toContain(view.conclusion?.title);
    const refused = await ask(releasesRoute.POST, stuck.id, { kind: 'released', person, units: 'kpa' });
    expect(refused.status).toBe(409);
    expect(refused.body.message).toContain('seized');
  });

  it('escapes what people type', async () => {
    const job = await bookIn({
      sheetId,
      serial: '<b>1</b>',
      vehicle: 'a & b',
      complaint: '"x"',
      promisedAt: '',
      plan: 'bench' as const,
      person,
      standInFault: '',
    });
    const report = await buildReport(job, {
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
    expect((await floorView()).jobs.some((view) => view.job.id === job.id)).toBe(false);
    expect(sheetOf(job).name).toBe('Tarnock R7');
    await setRunState('nothing', 'kept');
  });
});
