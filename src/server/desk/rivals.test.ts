import { emptyShopFolder } from '../../../tests/support/shop';

emptyShopFolder();

import { kindOfSheet } from '@/core/families';
import { database } from '@/data/database';
import { loadJobRecord, standing } from '@/data/job-record';
import type { Job } from '@/data/jobs';
import { insertRun } from '@/data/runs';
import { book, bookOf, keepSimulated, openWorkshop, person, runWhole } from '../../../tests/support/workshop';
import { siteNow } from '../context/job-context';
import { askedAtVersion } from '../http/asked-version';
import { RequestRefused } from '../http/refused';
import { judgedJob } from '../judging/judged-job';
import { mountInstrument } from '../shop/instruments';
import { locksOf } from '../judging/interlocks';
import { wholeFloor } from '../../../tests/support/whole-floor';
import { jobView } from '../views/job-view';
import { issueRelease } from './issue-release';
import { correctBooking } from './correct-booking';
import { moveUnit } from './move-job';
import { recordRepair } from './repair';
import { discardRun, keepRun, startRun, stopRun, strikeOut } from './runs';
import { saveSettings } from './save-settings';

beforeAll(openWorkshop);
afterEach(() => jest.useRealTimers());

/** Sets the clock, and leaves everything that waits alone. */
function setClock(now: number): void {
  const doNotFake = [
    'hrtime',
    'nextTick',
    'performance',
    'queueMicrotask',
    'setImmediate',
    'clearImmediate',
    'setInterval',
    'clearInterval',
    'setTimeout',
    'clearTimeout',
  ] as const;
  jest.useFakeTimers({ now, doNotFake: [...doNotFake] });
}

/** What two requests at once come to: answered, or refused with a status. */
async function atOnce(...works: readonly (() => Promise<unknown>)[]): Promise<readonly (number | 'done')[]> {
  const ended = await Promise.allSettled(works.map((work) => work()));
  return ended.map((each) => {
    if (each.status === 'fulfilled') return 'done';
    if (!(each.reason instanceof RequestRefused)) throw each.reason;
    expect(each.reason.message).toMatch(/\.$/);
    return each.reason.status;
  });
}

const oneWins = (ended: readonly (number | 'done')[]) => {
  expect([...ended].sort()).toEqual([409, 'done']);
};

const other = 'Tomas Rehn';
const finished = async (job: Job, step = 'vacuum-draw') => {
  const id = await keepSimulated(job, step);
  await (await database())('runs').where({ id }).update({ state: 'complete' });
  return id;
};

/** Eight units of each kind of rivals. */
const eight = Array.from({ length: 8 }, (_, i) => i);

describe('rivals at once: one wins, the other is told, and nothing is half or double', () => {
  it('two starts of a step', async () => {
    for (const i of eight) {
      const job = await book(`TK-R-1${i}`);
      oneWins(
        await atOnce(
          () => startRun(job.id, 'vacuum-draw', person),
          () => startRun(job.id, 'vacuum-draw', other),
        ),
      );
      const { runs } = (await loadJobRecord(job.id))!;
      expect(runs.map((run) => run.state)).toEqual(['recording']);
      await stopRun(runs[0].id);
    }
  });

  it('fifty starts by one person are one run', async () => {
    const job = await book('TK-R-20');
    const ids = await Promise.all(Array.from({ length: 50 }, () => startRun(job.id, 'vacuum-draw', person)));
    expect(new Set(ids.map(({ id }) => id)).size).toBe(1);
    const record = (await loadJobRecord(job.id))!;
    expect(record.runs).toHaveLength(1);
    await stopRun(record.runs[0].id);
  });

  it('keep and discard', async () => {
    for (const i of eight) {
      const job = await book(`TK-R-3${i}`);
      const id = await finished(job);
      const rivals = [() => keepRun(id, person), () => discardRun(id, other)];
      oneWins(await atOnce(...(i % 2 ? rivals : rivals.reverse())));
      const { runs, acts } = (await loadJobRecord(job.id))!;
      const said = acts.filter(({ act }) => act === 'kept' || act === 'discarded').map(({ act }) => act);
      expect(said).toEqual([runs[0].state]);
    }
  });

  it('a release and a strike-out: no release stands on a run that does not count', async () => {
    for (const i of eight) {
      const job = await book(`TK-R-4${i}`);
      await runWhole(job);
      const curve = (await loadJobRecord(job.id))!.runs.find((run) => run.step === 'boost-curve')!;
      const rivals = [
        () => issueRelease(job.id, { kind: 'released', person, units: 'kpa' }),
        () => strikeOut(curve.id, 'lever slipped', other),
      ];
      oneWins(await atOnce(...(i % 2 ? rivals : rivals.reverse())));
      const record = (await loadJobRecord(job.id))!;
      const struck = record.runs.find((run) => run.id === curve.id)!.struckOut !== null;
      expect([struck, standing(record) !== undefined]).toEqual(struck ? [true, false] : [false, true]);
    }
  });

  it('two repairs', async () => {
    for (const i of eight) {
      const job = await book(`TK-R-5${i}`);
      const { parts } = kindOfSheet(job.sheet)!;
      const repair = (part: number, who: string) => () =>
        recordRepair(job.id, { person: who, note: '', work: [{ part: parts[part].id, action: 'replaced', with: '' }] });
      oneWins(await atOnce(repair(0, person), repair(1, other)));
      expect((await loadJobRecord(job.id))!.repairs).toHaveLength(1);
    }
  });

  it('two edits of the settings, and of an instrument', async () => {
    const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 620 };
    const settings = (shopName: string) => () =>
      saveSettings({ shopName, site, policy: 'guarded', barometerConfirmed: false });
    const gauge = (name: string) => () =>
      mountInstrument({
        channel: 'output_pressure',
        name,
        range: 25,
        resolution: 0.1,
        unit: 'MPa',
        classPercent: 0.6,
        classOf: 'full-scale',
        calibratedOn: '',
        dueOn: '',
      });
    for (const i of eight) {
      oneWins(await atOnce(settings(`Bench ${i}`), settings(`Shop ${i}`)));
      oneWins(await atOnce(gauge(`Gauge ${i}`), gauge(`Dial ${i}`)));
    }
  });
});

describe('two corrections of one booking at once', () => {
  it('one stands, the other is told', async () => {
    for (const i of eight) {
      const job = await book(`TK-R-7${i}`);
      const seen = (await jobView(job.id)).job.version;
      const as = (serial: string) => () =>
        askedAtVersion(seen, () => correctBooking(job.id, { serial, vehicle: 'Grader 2', person }));
      oneWins(await atOnce(as(`TK-A-${i}`), as(`TK-B-${i}`)));
    }
  });
});

describe('somebody who decided on what was there before', () => {
  it('is told what was done since, in words; what he has seen since, he may decide on', async () => {
    const job = await book('TK-R-60');
    const seen = (await jobView(job.id)).job.version;
    await moveUnit(job.id, { place: 'waiting-parts', person: other });
    const move = (version: number) => askedAtVersion(version, () => moveUnit(job.id, { place: 'ready', person }));
    await expect(move(seen)).rejects.toMatchObject({
      status: 409,
      message: `Since this page was loaded: ${other} moved it to “waiting for parts”. Look again, then decide.`,
      also: { version: seen + 1 },
    });
    await expect(move(seen + 1)).resolves.toMatchObject({ version: seen + 2 });
  });
});

describe('a clock that runs back', () => {
  it('opens no interlock, is said on the job and on the floor, and put on record once', async () => {
    const job = await bookOf('motor-pump-boost', 'bench', 'MP-R-1');
    const locks = async () => {
      const { record, ...judged } = await judgedJob(job.id);
      return locksOf(record, judged);
    };
    const proved = { jobId: job.id, step: 'make-dead-before', state: 'kept', person } as const;
    const context = { site: await siteNow(), source: 'dial readings' } as const;
    const readings = { 'dead-pressure': 0, 'gauge-seen': 0 };
    await insertRun({ ...proved, startedAt: new Date().toISOString(), context, readings });
    await moveUnit(job.id, { place: 'on-bench', person });
    expect((await locks()).has('charge-from-empty')).toBe(false);

    setClock(Date.now() - 3_600_000);
    const charged = await startRun(job.id, 'charge-from-empty', person);
    await stopRun(charged.id);
    await discardRun(charged.id, person);
    jest.useRealTimers();
    // The charge came after the proof, whatever its time says: what must be dead is shut.
    expect((await locks()).get('charge-from-empty')).toMatchObject({ code: 'back-since' });
    const view = await jobView(job.id);
    expect(view.clockRanBack).toHaveLength(1);
    expect(view.clockRanBack[0].seconds).toBeGreaterThan(3500);
    expect((await wholeFloor()).clockRanBack).toHaveLength(1);
  });
});
