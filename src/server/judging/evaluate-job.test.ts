import { emptyShopFolder, until } from '../../../tests/support/shop';

emptyShopFolder();

import { database } from '@/data/database';
import { findRun } from '@/data/runs';
import { listInstruments, readShopSettings, writeShopSettings } from '@/data/settings';
import { takenOffToday, unmountInstrument } from '../shop/instruments';
import { mountedInstruments } from '../shop/library';
import { correctionsBefore } from '@/core/judging/evaluate-unit';
import { judgedJob, judgedRun } from './judged-job';
import { floorView, type FloorView } from '../views/floor-view';
import { wholeFloor } from '../../../tests/support/whole-floor';
import { jobView } from '../views/job-view';
import { recordLook } from '../desk/runs';
import { book, keepSimulated, lookAt, openWorkshop, person } from '../../../tests/support/workshop';

beforeAll(openWorkshop);
describe('evaluating a job', () => {
  it('corrects later steps by the gauge agreement, and averages repeats', async () => {
    const job = await book('TK-2207-148');
    await keepSimulated(job, 'gauge-agreement');
    await keepSimulated(job, 'boost-curve', 2);
    const single = (await judgedJob(job.id)).evaluated.evaluation;
    expect(correctionsBefore(single.steps, 'gauge-agreement').pair).toBeNull();
    expect(correctionsBefore(single.steps, 'boost-curve').pair?.applied).toBe(true);
    await keepSimulated(job, 'boost-curve', 3);
    const double = (await judgedJob(job.id)).evaluated.evaluation;
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
    const { evaluation } = (await judgedJob(job.id)).evaluated;
    const { face } = await jobView(job.id);
    expect(face.measured).not.toBeNull();
    const db = await database();
    await db('trace_chunks').delete();
    expect((await judgedJob(job.id)).evaluated.evaluation).toEqual(evaluation);
    expect((await jobView(job.id)).face).toEqual(face);

    const settings = await readShopSettings();
    await writeShopSettings({ ...settings, policy: settings.policy === 'simple' ? 'guarded' : 'simple' });
    const anew = (await judgedJob(job.id)).evaluated.evaluation;
    expect(anew.steps.map((step) => step.analyses)).toEqual(evaluation.steps.map((step) => step.analyses));
    expect((await judgedRun(run)).verdict).toBe('pass');
    await writeShopSettings(settings);
    await judgedJob(job.id);

    // By another method it is made again, and its trace is wanted for that.
    await db('evaluations').update({ method_version: 1 });
    await db('analyses').update({ method_version: 1 });
    const lost = (await judgedJob(job.id)).evaluated.evaluation.steps.find((step) => step.step === 'boost-curve');
    expect(lost?.verdict).toBe('undecided');
    // And it is said what came out otherwise.
    const [{ by, what }] = (await jobView(job.id)).rejudged;
    expect(by).toMatch(/^Method \d+$/);
    expect(what).toContain('Boost curve was pass, is undecided');
  });

  it('the floor shows what an earlier method found until today’s has judged it, and says so', async () => {
    const job = await book('TK-2207-154');
    await keepSimulated(job, 'vacuum-hold-rest', 8);
    await wholeFloor();
    const db = await database();
    await db('evaluations').where({ job_id: job.id }).update({ method_version: 1 });
    await db('floor_cards').delete();
    await db('trace_chunks').delete();
    await db('analyses').delete();
    const verdict = ({ jobs }: FloorView) => jobs.find((each) => each.job.id === job.id)?.undecided;
    const first = await wholeFloor();
    expect([verdict(first), first.judging]).toEqual([null, { done: 0, of: 1 }]);
    await until(async () => (await wholeFloor()).judging === null);
    expect(verdict(await wholeFloor())).toBe('Vacuum hold, at rest');
    expect((await jobView(job.id)).rejudged[0].what).toContain('was pass, is undecided');

    // What another method wrote may be nothing that this one can read, and what was tried once is not tried for ever.
    await db('evaluations').where({ job_id: job.id }).update({ method_version: 1, evaluation: '{}' });
    await db('floor_cards').delete();
    const again = await wholeFloor();
    expect([verdict(again), again.judging]).toEqual(['Vacuum hold, at rest', null]);
  });

  it('the floor waits for no unit that is being judged, and one judging serves all floors that ask', async () => {
    const job = await book('TK-2207-155');
    await keepSimulated(job, 'vacuum-hold-rest', 8);
    const db = await database();
    let judged = 0;
    const count = ({ sql }: { sql: string }) => (judged += Number(/^insert into `evaluations`/.test(sql)));
    db.on('query', count);
    const floors = await Promise.all([0, 0, 0].map((waits) => floorView(undefined, waits)));
    for (const { jobs, beingJudged } of floors) {
      expect(beingJudged.map(({ serial }) => serial)).toEqual(['TK-2207-155']);
      expect(jobs.some((each) => each.job.id === job.id)).toBe(false);
    }
    const card = (await wholeFloor()).jobs.find((each) => each.job.id === job.id);
    db.removeListener('query', count);
    expect([card?.steps.done, judged]).toEqual([1, 1]);
    // What is put on record while a card is being made is on the next floor.
    await db('floor_cards').where({ job_id: job.id }).delete();
    const early = floorView(undefined, 0);
    await keepSimulated(job, 'vacuum-draw', 9);
    await early;
    expect((await wholeFloor()).jobs.find((each) => each.job.id === job.id)?.steps.done).toBe(2);
  });

  it('a unit that cannot be judged is said to be broken, and is not judged in vain at every look', async () => {
    const job = await book('TK-2207-156');
    await keepSimulated(job, 'vacuum-hold-rest', 8);
    const db = await database();
    const quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    await db('trace_chunks').update({ columns: Buffer.from('no frame') });
    let tries = 0;
    const count = ({ sql }: { sql: string }) => (tries += Number(/from `trace_chunks`/.test(sql)));
    db.on('query', count);
    const broken = async (waits: number) => (await floorView(undefined, waits)).broken.map(({ id }) => id);
    expect(await broken(0)).toEqual([]);
    await until(async () => (await broken(0)).includes(job.id));
    const once = tries;
    expect(await broken(0)).toContain(job.id);
    expect(tries).toBe(once);
    // What is mended on its record is judged at once.
    await db('runs').where({ job_id: job.id }).update({ struck_out: 'unreadable' });
    expect(await broken(Infinity)).not.toContain(job.id);
    db.removeListener('query', count);
    quiet.mockRestore();
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
    await judgedJob(job.id);
    const db = await database();
    const kept = async () => (await db('analyses').count('* as n').first()) as { n: number };
    const { n } = await kept();
    await judgedJob(job.id);
    expect((await kept()).n).toBe(n);
    // A later run under another school is judged with the earlier ones by that: they are read anew.
    const later = await keepSimulated(job, 'vacuum-draw', 7);
    const { context } = (await findRun(later))!;
    const site = { ...context.site, schools: { exhaust: 'count', leastVacuum: 'both' } };
    await db('runs')
      .where({ id: later })
      .update({ context: JSON.stringify({ ...context, site }) });
    await judgedJob(job.id);
    expect((await kept()).n).toBe(n + 2);
  });

  it('a repeat is read by what held when it was made, whatever the later one was made with', async () => {
    const job = await book('TK-2207-151');
    const first = await keepSimulated(job, 'vacuum-hold-rest', 4);
    const leakOf = async () => {
      const step = (await judgedJob(job.id)).evaluated.evaluation.steps.find(
        (each) => each.step === 'vacuum-hold-rest',
      );
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
    expect((await wholeFloor()).jobs.length).toBeGreaterThan(0);
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
    const { jobs, broken } = await wholeFloor();
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
