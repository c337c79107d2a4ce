import { emptyShopFolder, until } from '../../../tests/support/shop';

emptyShopFolder();

import { FrameReader } from '@/core/traces/frame';
import { concatTraces, makeTrace, sliceTrace } from '@/core/traces/trace';
import { database, openDatabase } from '@/data/database';
import { acknowledgeCaution, findJob, listCautions, listJobs } from '@/data/jobs';
import { appendChunk, findRun, insertRun, listRuns, readTrace } from '@/data/runs';
import { listInstruments, listPeople, readShopSettings } from '@/data/settings';
import { findStandIn } from '@/data/stand-ins';
import { findSheet, listSheets } from '@/data/unit-sheets';
import { RequestRefused } from '../http/refused';
import { addSheet, bookIn } from './book-in';
import { judgedRun } from '../judging/judged-job';
import { jobView } from '../views/job-view';
import { commandRun, discardRun, keepRun, resumeRun, startRun, stopRun, strikeOut } from './runs';
import { recorders } from '../recording/recorders';
import { runStream } from './run-stream';
import { book, kind, openWorkshop, person, workshop } from '../../../tests/support/workshop';

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
    expect(recorders().isRecording(id)).toBe(false);
    await expect(commandRun(id, { kind: 'lever', level: 1e6 })).rejects.toMatchObject({ status: 409 });

    const run = (await findRun(id))!;
    const result = await judgedRun(run.id);
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
    const result = await judgedRun(id);
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
    // As after a crash: the recorder is gone, the database still says "recording".
    await recorders().abandon(id);
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
