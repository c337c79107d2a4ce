import { emptyShopFolder, until } from '../../tests/support/shop';

emptyShopFolder();

import { FrameReader } from '@/core/traces/frame';
import { concatTraces, makeTrace, sliceTrace } from '@/core/traces/trace';
import { database, openDatabase } from '@/data/database';
import { acknowledgeCaution, findJob, listCautions, listJobs } from '@/data/jobs';
import { appendChunk, findRun, insertRun, listRuns, readTrace } from '@/data/runs';
import { listInstruments, listPeople, readShopSettings, writeShopSettings } from '@/data/settings';
import { findStandIn } from '@/data/stand-ins';
import { findSheet, listSheets } from '@/data/unit-sheets';
import { takenOffToday, unmountInstrument } from './instruments';
import { mountedInstruments } from './shop';
import { RequestRefused } from './http/refused';
import { addSheet, bookIn } from './jobs/book-in';
import { correctionsBefore } from '@/core/judging/evaluate-unit';
import { evaluateJob, evaluateRun } from './jobs/evaluate-job';
import { floorView, type FloorView } from './jobs/floor-view';
import { jobView } from './jobs/job-view';
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
import { book, kind, keepSimulated, lookAt, openWorkshop, person, workshop } from '../../tests/support/workshop';

beforeAll(openWorkshop);

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
    expect(first.sheet.spec).toEqual((await findSheet(workshop.sheetId))?.spec);
    expect((await findStandIn(first.id)).seed).not.toBe((await findStandIn(second.id)).seed);
    // What is mounted is nothing that a screen gets.
    expect(JSON.stringify(await jobView(first.id))).not.toMatch(/standIn|"seed"|pairError/);
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
    await expect(bookIn({ ...wrong, sheetId: workshop.sheetId, standInFault: 'gremlins' })).rejects.toMatchObject({
      fields: { standInFault: expect.any(String) },
    });
  });

  it('is done by somebody of the shop, once it has named its people', async () => {
    const people = (await database())('people');
    await people.clone().insert({ id: 'ilse', name: 'Ilse Varga', role: 'bench lead' });
    try {
      await expect(book('TK-2207-143')).rejects.toMatchObject({ status: 422, fields: { person: expect.any(String) } });
      expect((await listJobs()).jobs.map((job) => job.serial)).not.toContain('TK-2207-143');
    } finally {
      await people.clone().delete();
    }
  });

  it('refuses a sheet by the field that is wrong, and stores nothing', async () => {
    const before = (await listSheets()).length;
    const spec = { ...(kind.sheet.example.spec as Record<string, unknown>), slaveBoreMm: 400 };
    await expect(addSheet({ family: kind.family, name: 'x', spec })).rejects.toMatchObject({
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
    const result = await evaluateRun(job, run);
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
    const result = await evaluateRun(job, (await findRun(id))!);
    expect(result.verdict).toBe('undecided');
    expect(result.characteristics.every((each) => each.kind === 'absent')).toBe(true);
    await discardRun(id, person);
    expect(await listRuns(job.id)).toEqual([]);
  });

  it('streams what is there, then what comes, and ends with the run', async () => {
    const job = await book('TK-2207-146');
    const { id } = await startRun(job.id, 'vacuum-hold-rest', person);
    const response = await runStream(id, new AbortController().signal);
    expect(response.headers.get('content-type')).toBe('application/octet-stream');
    await commandRun(id, { kind: 'speed', speed: 50 });
    const frames = new FrameReader().push(new Uint8Array(await response.arrayBuffer()))!;
    expect(frames[0].said).toMatchObject({ kind: 'whole' });
    expect(frames.at(-1)?.said).toMatchObject({ state: 'complete' });
    expect(concatTraces(frames.map((frame) => frame.samples))).toEqual((await readTrace(id)).trace);
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
  it('corrects later steps by the gauge agreement, and averages repeats', async () => {
    const job = await book('TK-2207-148');
    await keepSimulated(job, 'gauge-agreement');
    await keepSimulated(job, 'boost-curve', 2);
    const single = (await evaluateJob(job)).evaluation;
    expect(correctionsBefore(single.steps, 'gauge-agreement').pair).toBeNull();
    expect(correctionsBefore(single.steps, 'boost-curve').pair?.applied).toBe(true);
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

describe('what was judged is kept', () => {
  it('and read back without a trace; another policy judges the same analyses anew', async () => {
    const job = await book('TK-2207-149');
    await keepSimulated(job, 'gauge-agreement');
    const run = await keepSimulated(job, 'boost-curve', 2);
    const { evaluation } = await evaluateJob(job);
    const { face } = await jobView(job.id);
    expect(face.measured).not.toBeNull();
    const db = await database();
    await db('trace_chunks').delete();
    expect((await evaluateJob(job)).evaluation).toEqual(evaluation);
    expect((await jobView(job.id)).face).toEqual(face);

    const settings = await readShopSettings();
    await writeShopSettings({ ...settings, policy: settings.policy === 'simple' ? 'guarded' : 'simple' });
    const anew = (await evaluateJob(job)).evaluation;
    expect(anew.steps.map((step) => step.analyses)).toEqual(evaluation.steps.map((step) => step.analyses));
    expect((await evaluateRun(job, (await findRun(run))!)).verdict).toBe('pass');
    await writeShopSettings(settings);
    await evaluateJob(job);

    // By another method it is made again, and its trace is wanted for that.
    await db('evaluations').update({ method_version: 1 });
    await db('analyses').update({ method_version: 1 });
    const lost = (await evaluateJob(job)).evaluation.steps.find((step) => step.step === 'boost-curve');
    expect(lost?.verdict).toBe('undecided');
    // And it is said what came out otherwise.
    const [{ by, what }] = (await jobView(job.id)).rejudged;
    expect(by).toMatch(/^Method \d+$/);
    expect(what).toContain('Boost curve was pass, is undecided');
  });

  it('the floor shows what an earlier method found until today’s has judged it, and says so', async () => {
    const job = await book('TK-2207-154');
    await keepSimulated(job, 'vacuum-hold-rest', 8);
    await floorView();
    const db = await database();
    await db('evaluations').where({ job_id: job.id }).update({ method_version: 1 });
    await db('trace_chunks').delete();
    await db('analyses').delete();
    const verdict = ({ jobs }: FloorView) =>
      jobs.find((each) => each.job.id === job.id)?.steps.find((step) => step.id === 'vacuum-hold-rest')?.evaluation
        .verdict;
    const first = await floorView();
    expect([verdict(first), first.judging]).toEqual(['pass', { done: 0, of: 1 }]);
    await until(async () => (await floorView()).judging === null);
    expect(verdict(await floorView())).toBe('undecided');
    expect((await jobView(job.id)).rejudged[0].what).toContain('was pass, is undecided');

    // What another method wrote may be nothing that this one can read, and what was tried once is not tried for ever.
    await db('evaluations').where({ job_id: job.id }).update({ method_version: 1, evaluation: '{}' });
    const again = await floorView();
    expect([verdict(again), again.judging]).toEqual(['undecided', null]);
  });

  it('a kept result that cannot be written, or makes no sense, costs no page', async () => {
    const job = await book('TK-2207-153');
    await keepSimulated(job, 'vacuum-hold-rest', 8);
    const db = await database();
    const quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    // As a full disk does: nothing can be written any more.
    await db.raw(
      `create trigger full_disk before insert on evaluations begin select raise(abort, 'disk is full'); end`,
    );
    expect((await jobView(job.id)).steps.find((step) => step.id === 'vacuum-hold-rest')?.evaluation.verdict).toBe(
      'pass',
    );
    await db.raw('drop trigger full_disk');
    await jobView(job.id);
    await db('evaluations').where({ job_id: job.id }).update({ evaluation: '{' });
    await db('analyses').update({ analysis: '{' });
    expect((await jobView(job.id)).steps.find((step) => step.id === 'vacuum-hold-rest')?.evaluation.verdict).toBe(
      'pass',
    );
    expect(quiet).toHaveBeenCalled();
    quiet.mockRestore();
  });

  it('what the workshop asks for is among what it was made from', async () => {
    const job = await book('TK-2207-152');
    await keepSimulated(job, 'vacuum-hold-rest', 6);
    await evaluateJob(job);
    const db = await database();
    const kept = async () => (await db('analyses').count('* as n').first()) as { n: number };
    const { n } = await kept();
    await evaluateJob(job);
    expect((await kept()).n).toBe(n);
    // A later run under another school is judged with the earlier ones by that: they are read anew.
    const later = await keepSimulated(job, 'vacuum-draw', 7);
    const { context } = (await findRun(later))!;
    const site = { ...context.site, schools: { exhaust: 'count', leastVacuum: 'both' } };
    await db('runs')
      .where({ id: later })
      .update({ context: JSON.stringify({ ...context, site }) });
    await evaluateJob(job);
    expect((await kept()).n).toBe(n + 2);
  });

  it('a repeat is read by what held when it was made, whatever the later one was made with', async () => {
    const job = await book('TK-2207-151');
    const first = await keepSimulated(job, 'vacuum-hold-rest', 4);
    const leakOf = async () => {
      const step = (await evaluateJob(job)).evaluation.steps.find((each) => each.step === 'vacuum-hold-rest');
      const found = step?.analyses[0].characteristics.find((each) => each.id === 'leak-flow');
      return found?.kind === 'measured' ? found.estimate.value : null;
    };
    const before = await leakOf();
    const { context } = (await findRun(first))!;
    const repeat = await keepSimulated(job, 'vacuum-hold-rest', 5);
    const other = { ...context, site: { ...context.site, benchVolumeCm3: 4 * (context.site.benchVolumeCm3 ?? 600) } };
    await (
      await database()
    )('runs')
      .where({ id: repeat })
      .update({ context: JSON.stringify(other) });
    expect(await leakOf()).toBe(before);
  });
});

describe('one bad record', () => {
  it('an instrument of a channel that is not known leaves the others and every page standing', async () => {
    const db = await database();
    const row = {
      id: 'no_such_channel',
      set_name: 'Bench',
      instrument: JSON.stringify({ channel: 'no_such_channel' }),
    };
    const before = await listInstruments();
    await db('instruments').insert(row);
    expect(await listInstruments()).toEqual(before);
    expect((await mountedInstruments()).unreadable).toEqual(['no_such_channel']);
    expect((await floorView()).jobs.length).toBeGreaterThan(0);
    await unmountInstrument('no_such_channel');
    expect((await mountedInstruments()).unreadable).toEqual([]);
    expect((await takenOffToday()).map((each) => each.instrument.channel)).not.toContain('no_such_channel');
  });

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
