import { emptyShopFolder, readEveryCaution } from '../../../tests/support/shop';

emptyShopFolder();

import { kindNamed } from '@/core/families';
import { packFrame } from '@/core/traces/frame';
import { makeTrace } from '@/core/traces/trace';
import type { Job } from '@/data/jobs';
import { findMapping } from '@/data/column-mappings';
import { findRun, listRuns, readTrace } from '@/data/runs';
import { listInstruments } from '@/data/settings';
import { mountInstrument, unmountInstrument, type InstrumentForm } from '../shop/instruments';
import { addSheet, bookIn } from './book-in';
import { judgedJob } from '../judging/judged-job';
import { jobView } from '../views/job-view';
import { discardRun, resumeRun, stopRun, strikeOut } from './runs';
import { displayUnits } from '@/core/wording/display';
import { reportOfJob } from '../views/build-report';
import { beginImport, closeImport, takeImportPart } from './import-log';
import { recordReadings, standInReadings } from './record-readings';

const kind = kindNamed('vacuum-inline');
const person = 'Noor Halabi';
let job: Job;

beforeAll(async () => {
  const { id: sheetId } = await addSheet({
    family: kind.family,
    name: kind.sheet.example.name,
    spec: kind.sheet.example.spec as Record<string, unknown>,
  });
  job = await bookIn({
    sheetId,
    serial: 'UL-25-0900',
    vehicle: 'Crew minibus 9',
    complaint: '',
    promisedAt: '',
    plan: 'bench',
    person,
    standInFault: 'rod-gap-too-large',
  });
  await readEveryCaution(job, person);
});

const verdictOf = async (step: string) =>
  (await judgedJob(job.id)).evaluated.evaluation.steps.find((each) => each.step === step)?.verdict;

describe('dial readings', () => {
  it('count as a run, and repeats are averaged', async () => {
    await recordReadings(
      job.id,
      'vacuum-hold-rest',
      { start: 60e3, seconds: 15, end: 59.2e3 },
      { person, standIn: false },
    );
    await recordReadings(
      job.id,
      'vacuum-hold-rest',
      { start: 60e3, seconds: 30, end: 58.38e3 },
      { person, standIn: false },
    );
    const step = (await judgedJob(job.id)).evaluated.evaluation.steps.find((each) => each.step === 'vacuum-hold-rest');
    const [loss] = step?.characteristics ?? [];
    // 800 Pa, and half of 1,620 Pa over twice the time or a little more: a leak is fastest at first.
    expect(loss.kind === 'measured' && loss.estimate.value).toBeCloseTo(806.4, 1);
    expect(step?.verdict).toBe('pass');
  });

  it('are refused by field while one is missing, or not of this step', async () => {
    await expect(
      recordReadings(job.id, 'rod-gap', { 'pocket-depth': 0.014 }, { person, standIn: false }),
    ).rejects.toMatchObject({
      status: 422,
      fields: { 'stand-off': 'not read yet', protrusion: 'not read yet' },
    });
    await expect(
      recordReadings(
        job.id,
        'vacuum-hold-rest',
        { start: 60e3, seconds: 15, end: 59e3, nonsense: 2 },
        { person, standIn: false },
      ),
    ).rejects.toMatchObject({ status: 422 });
    await expect(recordReadings(job.id, 'look-over', {}, { person, standIn: false })).rejects.toMatchObject({
      status: 404,
    });
  });

  it('of the stand-in show the fault that is mounted', async () => {
    const readings = await standInReadings(job.id, 'rod-gap');
    await recordReadings(job.id, 'rod-gap', readings, { person, standIn: true });
    expect(await verdictOf('rod-gap')).toBe('fail');
    expect(await standInReadings(job.id, 'assist-curve')).toEqual({});
    const details = {
      kind: 'findings-only',
      issuedAt: '2026-11-24',
      issuedBy: person,
      units: displayUnits('kpa'),
    } as const;
    const report = await reportOfJob(job.id, details);
    expect(report.standIn).toBe(true);
    const sources = new Map(report.steps.map((step) => [step.title, step.source]));
    expect(sources.get('Output-rod gap')).toBe('read off dials from a stand-in rig');
    expect(sources.get('Vacuum hold, at rest')).toBe('read off dials');
    const instruments = report.instruments.map((each) => each.name).join();
    expect(instruments).toContain('rod travel');
    expect(instruments).not.toContain('pedal');
  });
});

describe('a log that is sent in parts', () => {
  const form = {
    step: 'vacuum-draw',
    person,
    file: { name: 'draw.csv', leftOut: ['line 12'] },
    fingerprint: 't|vac',
    standIn: false,
    mapping: [
      { use: 'time' as const, unit: 's' },
      { use: 'channel' as const, channel: 'supply_vacuum', unit: 'bar', sign: -1 as const, absolute: false },
    ],
  };
  const part = (from: number, to: number) => {
    const time = Float64Array.from({ length: to - from }, (_, i) => (from + i) / 50);
    const vacuum = time.map((t) => (t < 1 ? 0 : 60e3 * (1 - Math.exp(-(t - 1) / 0.8))));
    return { bytes: packFrame(makeTrace(time, { supply_vacuum: vacuum })) };
  };

  it('counts once it is closed, with what was left out and how it was understood', async () => {
    const { id } = await beginImport(job.id, form);
    await takeImportPart(id, { sequence: 0, ...part(0, 400) });
    await takeImportPart(id, { sequence: 1, ...part(400, 1000) });
    expect(await verdictOf('vacuum-draw')).toBe('not-run');
    await closeImport(id);
    const { trace } = await readTrace(id);
    expect(trace.time).toHaveLength(1000);
    expect(trace.time[999]).toBeCloseTo(19.98, 9);
    expect((await findRun(id))?.context.file).toMatchObject(form.file);
    expect(await findMapping('t|vac')).toEqual(form.mapping);
    expect(await verdictOf('vacuum-draw')).toBe('recorded');
  });

  it('whose figures are in doubt is not kept until somebody has looked at them', async () => {
    const odd = {
      bytes: packFrame(makeTrace(Float64Array.of(0, 1, 2, 3), { supply_vacuum: new Float64Array(4).fill(9e6) })),
    };
    const { id } = await beginImport(job.id, form);
    await takeImportPart(id, { sequence: 0, ...odd });
    await expect(closeImport(id)).rejects.toMatchObject({ status: 422 });
    expect((await findRun(id))?.state).toBe('discarded');
    const { id: again } = await beginImport(job.id, { ...form, confirmed: ['supply_vacuum'] });
    await takeImportPart(again, { sequence: 0, ...odd });
    await closeImport(again);
    expect((await findRun(again))?.state).toBe('kept');
    await strikeOut(again, 'Only a trial', person);
  });

  it('one that broke off leaves nothing behind', async () => {
    const { id } = await beginImport(job.id, form);
    await takeImportPart(id, { sequence: 0, ...part(0, 400) });
    // Half a log is neither gone on with as a run of the rig, nor judged.
    await expect(resumeRun(id)).rejects.toMatchObject({ status: 409 });
    await expect(stopRun(id)).rejects.toMatchObject({ status: 409 });
    await expect(takeImportPart(id, { sequence: 1, bytes: new Uint8Array(20) })).rejects.toMatchObject({ status: 422 });
    const { id: next } = await beginImport(job.id, form);
    expect((await listRuns(job.id)).map((run) => run.id)).not.toContain(id);
    await discardRun(next, person);
    await expect(closeImport(id)).rejects.toMatchObject({ status: 409 });
  });
});

describe('the vehicle plan', () => {
  it('is judged on its own steps, with the stroke prediction as its face', async () => {
    const [{ id: sheetId }] = [
      await addSheet({ family: kind.family, name: 'Second', spec: kind.sheet.example.spec as Record<string, unknown> }),
    ];
    const other = await bookIn({
      sheetId,
      serial: 'UL-25-0901',
      vehicle: 'Crew minibus 9',
      complaint: '',
      promisedAt: '',
      plan: 'vehicle',
      person,
      standInFault: '',
    });
    const view = await jobView(other.id);
    expect(view.steps.map((step) => step.id)).toContain('pedal-drop');
    expect(view.steps.map((step) => step.id)).not.toContain('assist-curve');
    expect(view.conclusion).toBeNull();
    expect(view.face.high[0]).toBeGreaterThan(view.face.high[view.face.high.length - 1]);
  });
});

describe('instruments', () => {
  const gauge: InstrumentForm = {
    channel: 'supply_vacuum',
    name: 'Old dial',
    range: 30,
    resolution: 0.5,
    unit: 'inHg',
    classPercent: 1.6,
    classOf: 'full-scale',
    calibratedOn: '2024-01-01',
    dueOn: '2025-01-01',
  };

  it('are mounted on a channel, replace one another, and are taken off again', async () => {
    await mountInstrument(gauge);
    await mountInstrument({ ...gauge, name: 'New dial', dueOn: '' });
    const mounted = (await listInstruments()).filter((each) => each.channel === 'supply_vacuum');
    expect(mounted).toHaveLength(1);
    expect(mounted[0]).toMatchObject({ name: 'New dial', unit: 'inHg' });
    expect(mounted[0].dueOn).toBeUndefined();
    await unmountInstrument('supply_vacuum');
    expect(await listInstruments()).toEqual([]);
  });

  it.each([
    ['channel', { channel: 'nonsense' }],
    ['unit', { unit: 'N' }],
    ['resolution', { resolution: 40 }],
    ['dueOn', { dueOn: '2023-01-01' }],
  ])('are refused by field: %s', async (field, change) => {
    await expect(mountInstrument({ ...gauge, ...change })).rejects.toMatchObject({
      status: 422,
      fields: { [field]: expect.any(String) as string },
    });
  });
});
