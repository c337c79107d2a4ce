import { emptyShopFolder } from '../../../tests/support/shop';

emptyShopFolder();

import * as jobsRoute from '../api/jobs';
import { kindNamed } from '@/core/families';
import { database } from '@/data/database';
import { ask, bookOf, openWorkshop, person, runWhole } from '../../../tests/support/workshop';
import { issueRelease } from '../desk/issue-release';
import { addSheet } from '../desk/book-in';
import { wholeFloor } from '../../../tests/support/whole-floor';
import { jobView } from '../views/job-view';
import { takeOut } from '../desk/take-out';

const front = { cleared: '', open: '' };
const sheets = { foundation: '', booster: '' };

beforeAll(async () => {
  await openWorkshop();
  const spec = (family: string) => kindNamed(family).sheet.example.spec as Record<string, unknown>;
  sheets.foundation = (await addSheet({ family: 'foundation', name: 'Crew minibus', spec: spec('foundation') })).id;
  sheets.booster = (await addSheet({ family: 'vacuum-inline', name: 'Ullerby', spec: spec('vacuum-inline') })).id;
  const cleared = await bookOf('vacuum-inline', 'vehicle', 'UL-1');
  await runWhole(cleared);
  front.cleared = cleared.id;
  front.open = (await bookOf('vacuum-inline', 'vehicle', 'UL-2')).id;
}, 60_000);

const bookedBehind = (behindOf: string, sheetId = sheets.foundation) =>
  ask(jobsRoute.POST, '', { sheetId, serial: 'UL-1', vehicle: 'Minibus', person, plan: 'vehicle', behindOf });

describe('a job behind another', () => {
  it('is booked only behind an inquiry that hands on, and only on a sheet of the family that it hands on to', async () => {
    expect((await jobView(front.cleared)).conclusion?.handsTo).toBe('foundation');
    expect(await bookedBehind('nowhere')).toMatchObject({
      status: 422,
      body: { message: expect.stringMatching(/not in the book/) as string },
    });
    expect(await bookedBehind(front.open)).toMatchObject({
      status: 422,
      body: { message: expect.stringMatching(/has not come to an end/) as string },
    });
    expect(await bookedBehind(front.cleared, sheets.booster)).toMatchObject({ status: 422 });
  });

  it('holds its release until what is behind it is found good, withdraws one that stood, and says so on the floor', async () => {
    expect((await jobView(front.cleared)).blocking).toEqual([]);
    await issueRelease(front.cleared, { kind: 'released', person, units: 'kpa' });
    const { status, body } = await bookedBehind(front.cleared);
    expect(status).toBe(200);
    const waiting = await jobView(front.cleared);
    expect(waiting.releases[0].withdrawn?.why).toMatch(/still looked through/);
    expect(waiting.blocking).toMatchObject([
      { job: body.id, step: null, title: expect.stringMatching(/still looked through/) as string },
    ]);
    const card = (await wholeFloor()).jobs.find(({ job }) => job.id === front.cleared);
    expect(card?.blocked).toBe(true);

    await takeOut(body.id, person);
    expect((await jobView(front.cleared)).blocking).toEqual([]);
  });

  it('whose record is damaged takes nothing from the one in front, and the other way round', async () => {
    const { body } = await bookedBehind(front.cleared);
    const db = await database();
    await db('jobs').where({ id: body.id }).update({ sheet: '{' });
    const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    expect((await jobView(front.cleared)).blocking).toMatchObject([
      { job: body.id, title: expect.stringMatching(/cannot be read/) as string },
    ]);
    const { body: next } = await bookedBehind(front.cleared);
    await db('jobs').where({ id: front.cleared }).update({ sheet: '{' });
    expect((await jobView(next.id)).inFront).toBeNull();
    expect(said).toHaveBeenCalled();
    said.mockRestore();
  });
});
