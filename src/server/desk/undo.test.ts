import { emptyShopFolder } from '../../../tests/support/shop';

emptyShopFolder();

import { sliceTrace } from '@/core/traces/trace';
import { simulateStep } from '@/core/rig/run-step';
import * as actRoute from '../api/acts-one';
import * as instrumentsRoute from '../api/instruments';
import * as jobRoute from '../api/jobs-one';
import * as placeRoute from '../api/jobs-one-place';
import * as runsRoute from '../api/jobs-one-runs';
import * as runRoute from '../api/runs-one';
import { database } from '@/data/database';
import type { Job } from '@/data/jobs';
import { appendChunk, bringBackAside, findRun, insertRun, listEveryRun, listRuns, setRunState } from '@/data/runs';
import { listInstruments, storeInstrument } from '@/data/settings';
import { takenOffToday } from '../shop/instruments';
import { contextOf, measuredStepOf, sheetOf, siteNow } from '../context/job-context';
import { wholeFloor } from '../../../tests/support/whole-floor';
import { jobView } from '../views/job-view';
import { stopRun } from './runs';
import { locksOf } from '../judging/interlocks';
import { judgedJob } from '../judging/judged-job';
import { ask, book, bookOf, kind, keepSimulated, openWorkshop, person } from '../../../tests/support/workshop';

beforeAll(openWorkshop);

const step = 'vacuum-hold-rest';

/** A finished run that waits to be kept. */
async function finished(job: Job, at = '2026-11-23T09:00:00.000Z'): Promise<string> {
  const site = await siteNow();
  const trace = simulateStep(kind, measuredStepOf(kind, step), contextOf(job, site, at), {
    faults: [],
    benchSeed: 1,
    runSeed: 2,
  });
  const context = { site, source: 'stand-in rig' } as const;
  const id = await insertRun({ jobId: job.id, step, state: 'complete', startedAt: at, person, context });
  await appendChunk(id, 0, sliceTrace(trace, 0, trace.time.length), null);
  return id;
}

const undoable = async (job: Job) => (await jobView(job.id)).undoable;
const takeBack = async (job: Job, what: string) => {
  const found = (await undoable(job)).find((each) => each.what === what);
  if (!found) throw new Error(`nothing ${what} to take back`);
  return ask(actRoute.DELETE, String(found.act), { person });
};

/** What keeps a job's steps shut now. */
const locksNow = async (id: string) => {
  const { record, ...judged } = await judgedJob(id);
  return locksOf(record, judged);
};

describe('what was done is taken back within the day', () => {
  it('a run that was thrown away waits to be kept again', async () => {
    const job = await book('TK-U-1');
    const run = await finished(job);
    await ask(runRoute.POST, run, { action: 'discard', person });
    expect((await jobView(job.id)).openRun).toBeNull();
    expect((await undoable(job)).map(({ what, of }) => [what, of?.id])).toEqual([['discarded', step]]);
    expect((await takeBack(job, 'discarded')).status).toBe(200);
    expect((await jobView(job.id)).openRun).toEqual({ kind: 'complete', id: run, step });
    expect(await undoable(job)).toEqual([]);
  });

  it('a run that was struck out counts again', async () => {
    const job = await book('TK-U-2');
    const run = await keepSimulated(job, step);
    const before = (await jobView(job.id)).steps.find((each) => each.id === step)?.evaluation.verdict;
    await ask(runRoute.POST, run, { action: 'strike-out', person, reason: 'Hose was loose' });
    expect((await jobView(job.id)).steps.find((each) => each.id === step)?.evaluation.verdict).toBe('not-run');
    await takeBack(job, 'struck-out');
    expect((await findRun(run))?.struckOut).toBeNull();
    expect((await jobView(job.id)).steps.find((each) => each.id === step)?.evaluation.verdict).toBe(before);
  });

  it('a unit that was moved goes back to where it was, also from among the fetched', async () => {
    const job = await book('TK-U-3');
    await ask(placeRoute.PUT, job.id, { place: 'on-bench', person });
    await ask(placeRoute.PUT, job.id, { place: 'gone', person });
    const floor = await wholeFloor();
    expect(floor.jobs.map((each) => each.job.id)).not.toContain(job.id);
    const left = floor.left.find((each) => each.id === job.id)!;
    expect(left.undoable).toMatchObject({ what: 'moved', person });
    await ask(actRoute.DELETE, String(left.undoable.act), { person });
    expect((await wholeFloor()).jobs.find((each) => each.job.id === job.id)?.job.place).toBe('on-bench');
    // Then the move before that one.
    await takeBack(job, 'moved');
    expect((await jobView(job.id)).job.place).toBe('waiting');
  });

  it('a job that was taken out of the book comes back, and takes nothing until it has', async () => {
    const job = await book('TK-U-4');
    const run = await finished(job);
    expect((await ask(jobRoute.DELETE, job.id, { person })).status).toBe(409);
    await ask(runRoute.POST, run, { action: 'keep', person });
    expect((await ask(jobRoute.DELETE, job.id, { person })).status).toBe(200);
    expect((await wholeFloor()).jobs.map((each) => each.job.id)).not.toContain(job.id);
    const refused = await ask(runsRoute.POST, job.id, { step, person });
    expect(refused).toMatchObject({
      status: 409,
      body: { message: expect.stringContaining('taken out of the book') as string },
    });
    await takeBack(job, 'taken-out');
    expect((await wholeFloor()).jobs.map((each) => each.job.id)).toContain(job.id);
    expect((await findRun(run))?.state).toBe('kept');
  });

  it('an instrument that was taken off is put back as it was', async () => {
    await storeInstrument(await database(), {
      channel: 'output_pressure',
      name: 'Output gauge 2',
      range: 25,
      resolution: 0.1,
      unit: 'MPa',
      classPercent: 0.6,
      classOf: 'full-scale',
    });
    const [first] = await listInstruments();
    await ask(instrumentsRoute.DELETE, '', { channel: first.channel });
    expect((await listInstruments()).map((each) => each.channel)).not.toContain(first.channel);
    const [off] = await takenOffToday();
    expect(off.instrument).toEqual(first);
    await ask(instrumentsRoute.POST, '', { takenOff: off.id });
    expect(await listInstruments()).toContainEqual(first);
    expect((await ask(instrumentsRoute.POST, '', { takenOff: off.id })).status).toBe(409);
  });

  it('is taken back once, by somebody of the shop, while nothing else is open, and not after a day', async () => {
    const job = await book('TK-U-5');
    await ask(runRoute.POST, await finished(job), { action: 'discard', person });
    const [{ act }] = await undoable(job);
    await (await database())('people').insert({ id: 'noor', name: person, role: 'Technician' });
    expect((await ask(actRoute.DELETE, String(act), { person: 'Nobody' })).status).toBe(422);
    const other = await finished(job, '2026-11-23T10:00:00.000Z');
    expect((await ask(actRoute.DELETE, String(act), { person })).status).toBe(409);
    await ask(runRoute.POST, other, { action: 'keep', person });
    const twice = await Promise.all([1, 2].map(() => ask(actRoute.DELETE, String(act), { person })));
    expect(twice.map((answer) => answer.status).sort()).toEqual([200, 409]);

    const late = await book('TK-U-6');
    await ask(runRoute.POST, await finished(late), { action: 'discard', person });
    await (await database())('acts').where({ job_id: late.id }).update({ at: '2026-01-01T00:00:00.000Z' });
    expect(await undoable(late)).toEqual([]);
  });
});

describe('a finished run whose step is run again', () => {
  it('is set aside, and comes back when the new one is thrown away', async () => {
    const job = await book('TK-U-7');
    const former = await finished(job);
    const again = await ask(runsRoute.POST, job.id, { step, person, again: true });
    expect(again.status).toBe(200);
    expect((await findRun(former))?.state).toBe('aside');
    expect((await jobView(job.id)).aside).toEqual([step]);
    await ask(runRoute.POST, again.body.id, { action: 'discard', person });
    expect((await jobView(job.id)).openRun).toEqual({ kind: 'complete', id: former, step });
  });

  it('goes when the new one is kept, and can be brought back for the day', async () => {
    const job = await book('TK-U-8');
    const former = await finished(job);
    const { id } = (await ask(runsRoute.POST, job.id, { step, person, again: true })).body;
    await stopRun(id);
    await ask(runRoute.POST, id, { action: 'keep', person });
    expect((await listRuns(job.id)).map((run) => run.id)).toEqual([id]);
    await takeBack(job, 'discarded');
    expect((await findRun(former))?.state).toBe('complete');
  });

  it('that was set aside for one that never came to be is brought back when the server starts', async () => {
    const [lost, replaced] = [await book('TK-U-11'), await book('TK-U-12')];
    const [alone, former] = [await finished(lost), await finished(replaced)];
    await setRunState(alone, 'aside');
    const { id } = (await ask(runsRoute.POST, replaced.id, { step, person, again: true })).body;
    await bringBackAside();
    expect([(await findRun(alone))?.state, (await findRun(former))?.state]).toEqual(['complete', 'aside']);
    await ask(runRoute.POST, id, { action: 'discard', person });
  });

  it('stays in the way of another start that does not say so', async () => {
    const job = await book('TK-U-9');
    await finished(job);
    expect((await ask(runsRoute.POST, job.id, { step, person })).status).toBe(409);
    await Promise.all(
      (await listEveryRun(job.id)).map((run) => ask(runRoute.POST, run.id, { action: 'discard', person })),
    );
  });
});

describe('what a run did to a unit it has done, kept or not', () => {
  it('a charge that was thrown away shuts what must be dead all the same', async () => {
    const job = await bookOf('motor-pump-boost', 'bench', 'MP-U-1');
    const { kind: pumps } = sheetOf(job);
    const proof = pumps.steps.find((each) => each.id === 'make-dead-before')!;
    const site = await siteNow();
    const dead = await insertRun({
      jobId: job.id,
      step: proof.id,
      state: 'kept',
      startedAt: '2026-11-23T09:00:00.000Z',
      person,
      context: { site, source: 'dial readings' },
      readings: { 'dead-pressure': 0, 'gauge-seen': 0 },
    });
    expect((await findRun(dead))?.state).toBe('kept');
    expect((await locksNow(job.id)).has('charge-from-empty')).toBe(false);
    const charged = await insertRun({
      jobId: job.id,
      step: 'charge-from-empty',
      state: 'complete',
      startedAt: '2026-11-23T10:00:00.000Z',
      person,
      context: { site, source: 'stand-in rig' },
    });
    await ask(runRoute.POST, charged, { action: 'discard', person });
    expect((await locksNow(job.id)).get('charge-from-empty')).toMatchObject({ code: 'back-since', hazard: 'pressure' });
  });

  it('a file that was brought and let go again has charged nothing', async () => {
    const job = await bookOf('motor-pump-boost', 'bench', 'MP-U-2');
    const common = { jobId: job.id, person, startedAt: '2026-11-23T09:00:00.000Z' };
    const site = await siteNow();
    await insertRun({
      ...common,
      step: 'make-dead-before',
      state: 'kept',
      context: { site, source: 'dial readings' },
      readings: { 'dead-pressure': 0, 'gauge-seen': 0 },
    });
    await insertRun({
      ...common,
      startedAt: '2026-11-23T10:00:00.000Z',
      step: 'charge-from-empty',
      state: 'discarded',
      context: { site, source: 'log file' },
    });
    expect((await locksNow(job.id)).has('charge-from-empty')).toBe(false);
  });
});
