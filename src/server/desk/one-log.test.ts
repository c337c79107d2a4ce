import { emptyShopFolder, readEveryCaution } from '../../../tests/support/shop';

emptyShopFolder();

import * as timelineRoute from '../api/runs-one-timeline';
import * as logRoute from '../api/jobs-one-stand-in-log';
import * as repairRoute from '../api/jobs-one-repairs';
import { kindNamed } from '@/core/families';
import { readBenchLog } from '@/core/formats/bench-log';
import type { TimelinePart } from '@/core/pictures/timeline-window';
import { simulateStep } from '@/core/rig/run-step';
import { listRepairs } from '@/data/repairs';
import type { Job } from '@/data/jobs';
import { appendChunk, insertRun } from '@/data/runs';
import { addSheet, bookIn } from './book-in';
import { contextOf, measuredStepOf, siteNow } from '../context/job-context';
import { jobView } from '../views/job-view';
import { standInNow } from '../context/stand-in-now';
import { recordReadings } from './record-readings';
import { ask, openWorkshop, person } from '../../../tests/support/workshop';

const kind = kindNamed('blended-braking');
let sheetId = '';

beforeAll(async () => {
  await openWorkshop();
  const { name, spec } = kind.sheet.example;
  sheetId = (await addSheet({ family: kind.family, name, spec: spec as Record<string, unknown> })).id;
});

async function shuttle(serial: string, standInFault = ''): Promise<Job> {
  const job = await bookIn({
    sheetId,
    serial,
    vehicle: 'Valley shuttle 4',
    complaint: '',
    promisedAt: '',
    plan: 'vehicle',
    person,
    standInFault,
  });
  await readEveryCaution(job, person);
  return job;
}

/** Keeps a log that was brought for one step. */
async function keepDrive(job: Job, step: string, runSeed: number): Promise<string> {
  const site = await siteNow();
  const { faults, seed } = await standInNow(job, await listRepairs(job.id));
  const startedAt = new Date().toISOString();
  const context = contextOf(job, site, startedAt);
  const trace = simulateStep(kind, measuredStepOf(kind, step), context, { faults, benchSeed: seed, runSeed });
  const id = await insertRun({
    jobId: job.id,
    step,
    state: 'kept',
    startedAt,
    person,
    context: { site, source: 'log file', file: { name: 'drive.csv', leftOut: [] }, standIn: true },
  });
  await appendChunk(id, 0, trace, null);
  return id;
}

const verdictsOf = async (job: Job) =>
  Object.fromEntries((await jobView(job.id)).steps.map(({ id, evaluation }) => [id, evaluation.verdict]));

describe('one log of a drive', () => {
  it('brought for any step is the evidence of all of them', async () => {
    const job = await shuttle('TK-HV-401', 'handover-dip');
    const run = await keepDrive(job, 'panic-events', 3);
    const verdicts = await verdictsOf(job);
    expect(verdicts.handover).toBe('fail');
    expect(Object.values(verdicts)).not.toContain('not-run');
    const view = await jobView(job.id);
    expect(view.steps.every(({ runs }) => runs.length === 1 && runs[0].id === run && runs[0].recorded)).toBe(true);
    expect(view.nextStep).toBeNull();
    expect(view.ledger?.rows[0].id).toBe('handover-dip');
  });

  it('is proved by one more', async () => {
    const job = await shuttle('TK-HV-402', 'handover-dip');
    await keepDrive(job, 'log-check', 5);
    const mended = { person, work: [{ part: 'controller', action: 'replaced', with: '' }], note: '' };
    expect((await ask(repairRoute.POST, job.id, mended)).status).toBe(200);
    const due = await jobView(job.id);
    expect(due.due.map(({ step }) => step)).toEqual(due.steps.map(({ id }) => id));
    // What reading it takes, and one drive for all of them.
    expect(due.verification).toMatchObject({ kind: 'to-do', minutes: 40 });
    await keepDrive(job, 'handover', 7);
    expect((await jobView(job.id)).verification.kind).toBe('verified');
    // The first drive stays what it was, in the round that it was made in.
    expect((await jobView(job.id)).before.find(({ step }) => step === 'handover')?.verdict).toBe('fail');
  });

  it('is read by nobody, and that is said', async () => {
    const job = await shuttle('TK-HV-405');
    const typed = recordReadings(job.id, 'lamp-states', { 'switch-difference': 0 }, { person, standIn: false });
    await expect(typed).rejects.toThrow('is not read by hand');
    expect((await verdictsOf(job))['lamp-states']).toBe('not-run');
  });

  it('can be looked into anywhere, for a step that it answers', async () => {
    const job = await shuttle('TK-HV-403');
    const run = await keepDrive(job, 'log-check', 9);
    const look = async (query: string) => {
      const request = new Request(`http://127.0.0.1/api/runs/${run}/timeline?${query}`);
      return timelineRoute.GET(request, { params: Promise.resolve({ id: run }) });
    };
    const whole = (await (await look('step=closure')).json()) as TimelinePart;
    expect(whole.lanes.map(({ title }) => title)).toEqual(['Speed', 'Pedal travel', 'Torque', 'Missing torque']);
    const { from } = whole.whole;
    const part = (await (await look(`step=closure&from=${from + 20}&to=${from + 22}`)).json()) as TimelinePart;
    const [{ points }] = part.lanes[2].lines;
    expect(points.length).toBeGreaterThan(95);
    expect(points.length).toBeLessThan(106);
    expect((await look('step=closure&from=9&to=3')).status).toBe(400);
    expect((await look('step=no-such-step')).status).toBe(404);
  });

  it('is written by the stand-in as any tool would, another drive each time', async () => {
    const job = await shuttle('TK-HV-404');
    const written = async () => {
      const request = new Request(`http://127.0.0.1/api/jobs/${job.id}/stand-in-log?step=log-check`);
      const response = await logRoute.GET(request, { params: Promise.resolve({ id: job.id }) });
      return ((await response.json()) as { log: string }).log;
    };
    const log = await written();
    const { needs, leastRows } = measuredStepOf(kind, 'closure').feeds.log;
    const read = readBenchLog(log, 'drive.csv', { step: 'closure', needs, leastRows });
    expect(read.ok && read.value.trace.time.length > 10_000).toBe(true);
    await keepDrive(job, 'log-check', 1);
    expect(await written()).not.toBe(log);
  });
});
