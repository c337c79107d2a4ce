import { emptyShopFolder } from '../../../tests/support/shop';

emptyShopFolder();

import { database } from '@/data/database';
import { loadJobRecord, standing } from '@/data/job-record';
import { insertRun } from '@/data/runs';
import { fromStored, toStored } from '@/data/stored-json';
import type { Job } from '@/data/jobs';
import { book, keepSimulated, kind, openWorkshop, person, runWhole } from '../../../tests/support/workshop';
import { wholeFloor } from '../../../tests/support/whole-floor';
import { jobView } from '../views/job-view';
import { bookIn } from './book-in';
import { issueRelease, issuedReport } from './issue-release';
import { moveUnit } from './move-job';
import { recordRepair } from './repair';
import { reviewStanding } from './review-standing';
import { startRun } from './runs';
import { saveSettings } from './save-settings';

beforeAll(openWorkshop);

const release = (job: Job) => issueRelease(job.id, { kind: 'released', person, units: 'kpa' });

/** A look that finds something wrong, written past every use case. */
async function badLook(job: Job): Promise<void> {
  const step = kind.steps.find((each) => each.kind === 'look')!;
  const bad = step.feeds.look.options.find((option) => option.effect === 'fail')!;
  await insertRun({
    jobId: job.id,
    step: step.id,
    state: 'kept',
    startedAt: new Date().toISOString(),
    person,
    context: { site: {}, source: 'looked at' },
    findings: Object.fromEntries(step.feeds.look.points.map((point) => [point.id, bad.id])),
  });
}

describe('a release', () => {
  it('is judged from the traces, and believes no evaluation that was kept', async () => {
    const job = await book('TK-T-1', 'vacuum-valve-leak');
    await runWhole(job);
    expect((await jobView(job.id)).blocking.length).toBeGreaterThan(0);
    const db = await database();
    const row = (await db('evaluations').where({ job_id: job.id }).first()) as { evaluation: string };
    const kept = fromStored(row.evaluation) as { verdict: string; steps: { verdict: string }[] };
    const lie = { ...kept, verdict: 'pass', steps: kept.steps.map((step) => ({ ...step, verdict: 'pass' })) };
    await db('evaluations')
      .where({ job_id: job.id })
      .update({ evaluation: toStored(lie) });
    expect((await jobView(job.id)).blocking).toEqual([]);
    await expect(release(job)).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining('Not releasable'),
    });
  });

  it('that an end without warning has left standing is withdrawn at the next start', async () => {
    const [left, sound] = [await book('TK-T-2'), await book('TK-T-3')];
    for (const job of [left, sound]) {
      await runWhole(job);
      await release(job);
    }
    await badLook(left);
    await (await database())('jobs').whereIn('id', [left.id, sound.id]).increment('version', 1);
    await reviewStanding();
    expect(standing((await loadJobRecord(left.id))!)).toBeUndefined();
    expect((await loadJobRecord(left.id))!.acts.at(-1)).toMatchObject({ act: 'withdrawn', person: 'Hard Pedal' });
    // One that stands rightly is looked at once, and no more.
    const looked = (await loadJobRecord(sound.id))!;
    expect(standing(looked)).toBeDefined();
    await reviewStanding();
    expect((await loadJobRecord(sound.id))!.job.version).toBe(looked.job.version);
  });
});

describe('one damaged row', () => {
  const damage = async (table: string, where: object, over: object) =>
    (await database())(table).where(where).update(over);

  it('is said on its job, and takes neither that page nor the floor with it', async () => {
    const job = await book('TK-T-4');
    await runWhole(job);
    const { id } = await release(job);
    await moveUnit(job.id, { place: 'waiting', person });
    const { parts } = kind;
    await recordRepair(job.id, { person, note: '', work: [{ part: parts[0].id, action: 'replaced', with: '' }] });
    await damage('acts', { job_id: job.id, act: 'moved' }, { act: 'flown' });
    await damage('releases', { id }, { kind: 'blessed', report: '{' });
    const acts = await jobView(job.id);
    expect(acts.broken.map(({ of }) => of).sort()).toEqual(['act', 'release']);
    await expect(issuedReport(id)).rejects.toThrow();
    await damage('repairs', { job_id: job.id }, { work: 'scribble' });
    const view = await jobView(job.id);
    expect(view.broken.map(({ of }) => of)).toContain('repair');
    // What is due since is not known: nothing is released on that.
    expect(view.blocking.map(({ title }) => title)).toContain('A repair on its record cannot be read');
    const floor = await wholeFloor();
    expect(floor.broken.find((each) => each.id === job.id)?.why).toContain('repair');
  });

  it('of a run holds the release back', async () => {
    const job = await book('TK-T-5');
    await runWhole(job);
    await keepSimulated(job, 'vacuum-draw', 3);
    await damage('runs', { job_id: job.id, sequence: 3 }, { context: 'scribble' });
    await expect(release(job)).rejects.toMatchObject({ status: 409 });
  });

  it('of the settings stops measuring, is said, and is mended by saving them', async () => {
    const job = await book('TK-T-6');
    await damage('settings', { key: 'shop' }, { value: '{' });
    expect((await wholeFloor()).unreadable).toEqual(['settings']);
    await expect(startRun(job.id, 'vacuum-draw', person)).rejects.toMatchObject({ status: 409 });
    const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 620 };
    await saveSettings({ shopName: 'Vennholm bench', site, policy: 'guarded', barometerConfirmed: false });
    expect((await wholeFloor()).unreadable).toEqual([]);
  });
});

it('a promise is the time on the shop’s wall, wherever the screen stands', async () => {
  const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 620, timeZone: 'Pacific/Auckland' };
  await saveSettings({ shopName: 'Vennholm bench', site, policy: 'guarded', barometerConfirmed: false });
  const job = await book('TK-T-7');
  const { sheet } = job;
  const sheets = (await (await database())('unit_sheets').where({ name: sheet.name }).pluck('id')) as string[];
  const booked = await bookIn({
    sheetId: sheets[0],
    serial: 'TK-T-8',
    vehicle: 'Grader 2',
    person,
    promisedAt: '2099-01-05T10:00',
  });
  expect(booked.promisedAt).toBe('2099-01-04T21:00:00.000Z');
});
