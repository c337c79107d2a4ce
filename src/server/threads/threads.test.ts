import { emptyShopFolder } from '../../../tests/support/shop';
import { book, keepSimulated, workshop, openWorkshop } from '../../../tests/support/workshop';
import { database } from '@/data/database';
import { judgedJob } from '../judging/judged-job';
import { contextOf, siteNow } from '../context/job-context';
import { endThreads, heavy } from './pool';
import { WorkCancelled } from '../http/work-cancelled';

emptyShopFolder();

beforeAll(async () => {
  await openWorkshop();
});

beforeEach(() => {
  process.env.HARD_PEDAL_THREADS = '1';
});

afterAll(async () => {
  process.env.HARD_PEDAL_THREADS = '0';
  await endThreads();
});

const forgetResults = async () => {
  const db = await database();
  await db('analyses').delete();
  await db('evaluations').delete();
};

describe('work on threads of its own', () => {
  it('comes to what the same work comes to here', async () => {
    const job = await book('TK-W-1');
    for (const step of ['gauge-agreement', 'boost-curve', 'release']) await keepSimulated(job, step);
    const { evaluation } = (await judgedJob(job.id)).evaluated;
    await forgetResults();
    process.env.HARD_PEDAL_THREADS = '0';
    expect((await judgedJob(job.id)).evaluated.evaluation).toEqual(evaluation);
    expect(evaluation.steps.find((step) => step.step === 'boost-curve')?.verdict).not.toBe('not-run');
  });

  it('leaves this thread free: its clock goes on while a trace is read', async () => {
    const job = await book('TK-W-2');
    const runId = await keepSimulated(job, 'boost-curve');
    const context = contextOf(job, await siteNow(), job.bookedAt);
    let ticks = 0;
    const clock = setInterval(() => ticks++, 1);
    const analysis = await heavy('analyse', { runId, step: 'boost-curve', context });
    clearInterval(clock);
    expect(analysis.characteristics.some((each) => each.kind === 'measured')).toBe(true);
    expect(ticks).toBeGreaterThan(3);
  });

  it('ends when nobody waits for it any more, and the next work is done all the same', async () => {
    const job = await book('TK-W-3');
    const runId = await keepSimulated(job, 'boost-curve');
    const context = contextOf(job, await siteNow(), job.bookedAt);
    const asked = { runId, context, pair: null, points: 60 };
    const controller = new AbortController();
    const given = heavy('curve', asked, controller.signal);
    controller.abort();
    await expect(given).rejects.toThrow(WorkCancelled);
    expect((await heavy('curve', asked))?.apply.length).toBeGreaterThan(10);
  });

  it('says what went wrong', async () => {
    const asked = { runId: 'no-such-run', step: 'boost-curve', context: {} as never };
    await expect(heavy('analyse', asked)).rejects.toThrow('no-such-run is gone');
    expect(workshop.sheetId).not.toBe('');
  });
});
