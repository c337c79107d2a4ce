import { sliceTrace } from '@/core/traces/trace';
import { planOf } from '@/core/contract/kind';
import { simulateStep } from '@/core/rig/run-step';
import { type Job } from '@/data/jobs';
import { listRepairs } from '@/data/repairs';
import { appendChunk, insertRun } from '@/data/runs';
import { writeShopSettings } from '@/data/settings';
import { kindNamed } from '@/core/families';
import { addSheet, bookIn } from '@/server/desk/book-in';
import { contextOf, measuredStepOf, sheetOf, siteNow } from '@/server/context/job-context';
import { standInNow } from '@/server/context/stand-in-now';
import { recordLook } from '@/server/desk/runs';

import { readEveryCaution } from './shop';

export const kind = kindNamed('vacuum-remote');
export const person = 'Noor Halabi';
export const workshop = { sheetId: '' };

/** A job of the workshop's own sheet, every caution read. */
export async function book(serial: string, standInFault = ''): Promise<Job> {
  const job = await bookIn({
    sheetId: workshop.sheetId,
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
export async function keepSimulated(
  job: Job,
  stepId: string,
  runSeed = 1,
  startedAt = new Date(2026, 10, 23, 9, 0, runSeed).toISOString(),
): Promise<string> {
  const site = await siteNow();
  const { kind } = sheetOf(job);
  const { faults, seed } = await standInNow(job, await listRepairs(job.id));
  const trace = simulateStep(kind, measuredStepOf(kind, stepId), contextOf(job, site, startedAt), {
    faults,
    benchSeed: seed,
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

/** Records a look step, every point with one option: the first where none is said. */
export async function lookAt(job: Job, stepId: string, option?: string): Promise<void> {
  const step = sheetOf(job).kind.steps.find((each) => each.id === stepId);
  if (step?.kind !== 'look') throw new Error('not a look step');
  const findings = Object.fromEntries(
    step.feeds.look.points.map((point) => [point.id, option ?? step.feeds.look.options[0].id]),
  );
  await recordLook(job.id, stepId, findings, person);
}

/** Every step of the plan, kept. */
export async function runWhole(job: Job): Promise<void> {
  const { kind } = sheetOf(job);
  for (const id of planOf(kind, job.plan).steps)
    if (kind.steps.find((step) => step.id === id)?.kind === 'look') await lookAt(job, id);
    else await keepSimulated(job, id);
}

/** What a route answers to a body. */
export async function ask(
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

/** A job of another kind on a plan of its own, every caution read. */
export async function bookOf(familyId: string, plan: 'bench' | 'vehicle', serial: string): Promise<Job> {
  const other = kindNamed(familyId);
  const sheet = await addSheet({
    family: familyId,
    name: serial,
    spec: other.sheet.example.spec as Record<string, unknown>,
  });
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
export async function bookedInquiry(): Promise<Job> {
  const job = await bookOf('vacuum-inline', 'vehicle', 'OW-V-32');
  const inline = kindNamed('vacuum-inline');
  const behind = inline.steps.find((step) => step.id === 'behind-the-booster')!;
  if (behind.kind !== 'look') throw new Error('not a look');
  const [good] = behind.feeds.look.options;
  const findings = Object.fromEntries(
    behind.feeds.look.points.map((point) => [point.id, point.id === 'seized-wheel' ? 'found' : good.id]),
  );
  await recordLook(job.id, behind.id, findings, person);
  return job;
}

/** The shop the server's tests stand in: a bench at 1420 m with one unit sheet. Call it before the first test. */
export async function openWorkshop(): Promise<void> {
  await writeShopSettings({
    shopName: 'Vennholm bench',
    site: { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 620 },
    policy: 'guarded',
  });
  workshop.sheetId = (
    await addSheet({
      family: kind.family,
      name: 'Tarnock R7',
      spec: kind.sheet.example.spec as Record<string, unknown>,
    })
  ).id;
}
