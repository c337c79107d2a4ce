import { emptyShopFolder } from '../../../tests/support/shop';

emptyShopFolder();

import * as actRoute from '../api/acts-one';
import * as bookingRoute from '../api/jobs-one-booking';
import { setRunState, listRuns } from '@/data/runs';
import { sheetOf } from '../context/job-context';
import { jobView } from '../views/job-view';
import { addSheet } from './book-in';
import type { Correction } from './correct-booking';
import { issueRelease } from './issue-release';
import { startRun, stopRun } from './runs';
import { takeOut } from './take-out';
import { wholeFloor } from '../../../tests/support/whole-floor';
import {
  ask,
  book,
  bookOf,
  keepSimulated,
  kind,
  openWorkshop,
  person,
  runWhole,
} from '../../../tests/support/workshop';

beforeAll(openWorkshop);

const asBooked = { serial: 'TK-C-1', vehicle: 'Grader 2', complaint: '', symptoms: [], promisedAt: '' };

const correct = (job: string, over: Partial<Correction>) =>
  ask(bookingRoute.PUT, job, { ...asBooked, person, ...over });

describe('correcting what was booked', () => {
  it('changes what is otherwise, keeps on record what stood before, and can be taken back', async () => {
    const job = await book('TK-C-1');
    const symptom = kind.symptoms[0];
    const corrected = await correct(job.id, {
      serial: ' TK-C-2 ',
      complaint: 'Hard pedal',
      symptoms: [symptom.id],
      promisedAt: '2099-01-05T15:00',
    });
    expect(corrected.status).toBe(200);
    const view = await jobView(job.id);
    expect(view.job).toMatchObject({ serial: 'TK-C-2', vehicle: 'Grader 2', complaint: 'Hard pedal' });
    expect(view.job.symptoms).toEqual([symptom.id]);
    expect(view.corrected.map(({ by, what }) => [by, what])).toEqual([
      [
        person,
        `serial “TK-C-2”, was “TK-C-1”; complaint “Hard pedal”, was nothing; noticed “${symptom.title.toLowerCase()}”, was nothing; promised for Mon 5 Jan 2099, 15:00, was nothing`,
      ],
    ]);
    expect((await wholeFloor()).jobs.find((each) => each.job.id === job.id)?.job.serial).toBe('TK-C-2');

    const [undo] = view.undoable;
    expect(undo.what).toBe('corrected');
    expect((await ask(actRoute.DELETE, String(undo.act), { person })).status).toBe(200);
    const back = await jobView(job.id);
    expect(back.job).toMatchObject({ serial: 'TK-C-1', complaint: '', symptoms: [], promisedAt: null });
    expect(back.corrected).toEqual([]);
  });

  it('that changes nothing is no change, and one that is not so is refused at its field', async () => {
    const job = await book('TK-C-1');
    const { version } = (await jobView(job.id)).job;
    expect((await correct(job.id, {})).status).toBe(200);
    expect((await jobView(job.id)).job.version).toBe(version);
    const wrong: readonly [Partial<Correction>, string][] = [
      [{ serial: ' ' }, 'serial'],
      [{ symptoms: ['none-such'] }, 'symptoms'],
      [{ promisedAt: '2020-01-05T15:00' }, 'promisedAt'],
      [{ sheetId: 'none-such' }, 'sheetId'],
    ];
    for (const [over, field] of wrong) {
      const refused = await correct(job.id, over);
      const { fields } = refused.body as unknown as { fields: object };
      expect([refused.status, Object.keys(fields)]).toEqual([422, [field]]);
    }
    const meant = { promisedAt: '2020-01-05T15:00', promiseConfirmed: '2020-01-05T15:00' };
    expect((await correct(job.id, meant)).status).toBe(200);
    // A promise that is past by now and was left as it is needs no second word.
    expect((await correct(job.id, { promisedAt: '2020-01-05T15:00', complaint: 'Hard' })).status).toBe(200);
  });

  it('says no more than what it corrects: what somebody else corrected meanwhile stays', async () => {
    const job = await book('TK-C-1');
    expect((await ask(bookingRoute.PUT, job.id, { person, serial: 'TK-C-3' })).status).toBe(200);
    expect((await ask(bookingRoute.PUT, job.id, { person, vehicle: 'Grader 9' })).status).toBe(200);
    expect((await jobView(job.id)).job).toMatchObject({ serial: 'TK-C-3', vehicle: 'Grader 9', complaint: '' });
    await takeOut(job.id, person);
    expect((await ask(bookingRoute.PUT, job.id, { person, serial: 'TK-C-4' })).status).toBe(409);
  });

  it('by another sheet judges anew what was measured; a sheet of another kind of unit is refused, and none is changed under a run', async () => {
    const job = await book('TK-C-1');
    await keepSimulated(job, 'boost-curve');
    const verdict = async () =>
      (await jobView(job.id)).steps.find(({ id }) => id === 'boost-curve')?.evaluation.verdict;
    expect(await verdict()).toBe('pass');
    const spec = structuredClone(sheetOf(job).spec) as Record<string, number>;
    const other = await addSheet({
      family: kind.family,
      name: 'Larger bore',
      spec: { ...spec, powerPistonDiameterMm: 230 },
    });
    const strange = await bookOf('motor-pump-boost', 'bench', 'MP-C-1');
    const strangeSheet = await addSheet({ ...strange.sheet, spec: strange.sheet.spec as Record<string, unknown> });
    expect((await correct(job.id, { sheetId: strangeSheet.id })).status).toBe(422);

    const run = await startRun(job.id, 'vacuum-draw', person);
    expect((await correct(job.id, { sheetId: other.id })).status).toBe(409);
    // What does not bear on the run may be corrected beside it.
    expect((await correct(job.id, { vehicle: 'Grader 3' })).status).toBe(200);
    await stopRun(run.id);
    await setRunState(run.id, 'discarded');
    expect((await correct(job.id, { vehicle: 'Grader 3', sheetId: other.id })).status).toBe(200);
    expect((await jobView(job.id)).job.sheet.name).toBe('Larger bore');
    expect(await verdict()).toBe('fail');
    expect((await listRuns(job.id)).length).toBeGreaterThan(0);
  });

  it('withdraws a release that names another unit, and leaves one that does not', async () => {
    const job = await book('TK-C-1');
    await runWhole(job);
    await issueRelease(job.id, { kind: 'released', person, units: 'kpa' });
    expect((await correct(job.id, { complaint: 'Hard pedal' })).status).toBe(200);
    expect((await jobView(job.id)).releases.map(({ withdrawn }) => withdrawn)).toEqual([null]);
    expect((await correct(job.id, { complaint: 'Hard pedal', serial: 'TK-C-9' })).status).toBe(200);
    const { releases, job: now } = await jobView(job.id);
    expect(releases[0].withdrawn?.why).toBe('The paper says otherwise: its serial was corrected');
    expect(now.place).toBe('waiting');
    // What is issued after it names what is right.
    const { id } = await issueRelease(job.id, { kind: 'released', person, units: 'kpa' });
    expect(id).toBeTruthy();
  });
});
