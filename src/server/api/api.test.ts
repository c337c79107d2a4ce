import { packFrame } from '@/core/traces/frame';
import { makeTrace, sliceTrace } from '@/core/traces/trace';
import { emptyShopFolder, until } from '../../../tests/support/shop';

emptyShopFolder();

import { kindNamed } from '@/core/families';
import { simulateStep } from '@/core/rig/run-step';
import { sphereLives } from '../shop/spheres';
import { contextOf, jobNamed, measuredStepOf, siteNow } from '../context/job-context';
import * as instruments from './instruments';
import * as jobs from './jobs';
import * as cautions from './jobs-one-cautions';
import * as imports from './jobs-one-imports';
import * as looks from './jobs-one-looks';
import * as place from './jobs-one-place';
import * as preview from './jobs-one-preview';
import * as readings from './jobs-one-readings';
import * as releases from './jobs-one-releases';
import * as job from './jobs-one';
import * as runs from './jobs-one-runs';
import * as mappings from './mappings';
import * as html from './releases-one-html';
import * as pdf from './releases-one-pdf';
import * as command from './runs-one-command';
import * as parts from './runs-one-parts';
import * as result from './runs-one-result';
import * as run from './runs-one';
import * as stream from './runs-one-stream';
import * as settings from './settings';
import * as sheets from './sheets';
import * as spheres from './spheres';

const kind = kindNamed('vacuum-remote');
const person = 'Noor Halabi';
const address = 'http://127.0.0.1/api';

interface Answer {
  readonly id: string;
  readonly message: string;
  readonly fields: Readonly<Record<string, string>>;
  readonly mapping?: unknown;
  readonly place?: string;
}

type Handler = (request: Request, context: { params: Promise<{ id: string }> }) => Response | Promise<Response>;

/** What a handler answers to a body (an object as JSON, a text as it is) for an id. */
async function ask(handler: Handler, body?: object | string, id = 'nobody', query = '') {
  const init =
    body === undefined
      ? {}
      : {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: typeof body === 'string' ? body : JSON.stringify(body),
        };
  const response = await handler(new Request(`${address}${query}`, init), { params: Promise.resolve({ id }) });
  const type = response.headers.get('Content-Type') ?? '';
  const text = type.includes('json') ? '' : await response.clone().text();
  const answer = type.includes('json') ? ((await response.json()) as Answer) : null;
  return { status: response.status, type, text, answer, fields: Object.keys(answer?.fields ?? {}) };
}

const idOf = async (asked: ReturnType<typeof ask>) => {
  const { answer, status } = await asked;
  expect(status).toBe(200);
  return answer!.id;
};

let sheetId = '';
const form = () => ({ sheetId, serial: 'TK-2207-201', vehicle: 'Grader 2', person });
const booked = (serial: string) => idOf(ask(jobs.POST, { ...form(), serial }));

beforeAll(async () => {
  sheetId = await idOf(
    ask(sheets.POST, { family: kind.family, name: 'Tarnock R7', spec: kind.sheet.example.spec as object }),
  );
});

describe('a request that is none', () => {
  const bodied: [string, Handler][] = [
    ['jobs', jobs.POST],
    ['sheets', sheets.POST],
    ['settings', settings.PUT],
    ['instruments', instruments.PUT],
    ['instruments, off', instruments.DELETE],
    ['looks', looks.POST],
    ['place', place.PUT],
    ['imports', imports.POST],
    ['readings', readings.POST],
    ['releases', releases.POST],
    ['runs', runs.POST],
    ['command', command.POST],
    ['run', run.POST],
    ['cautions', cautions.POST],
    ['mappings', mappings.POST],
    ['spheres', spheres.POST],
  ];

  it.each(bodied)('%s: is refused as no JSON, and by its fields when it is empty', async (_name, handler) => {
    const id = await booked('TK-2207-200');
    const broken = await ask(handler, '{"serial": ', id);
    expect(broken).toMatchObject({ status: 400, answer: { message: 'The request is not JSON.' } });
    const empty = await ask(handler, {}, id);
    expect(empty.status).toBe(422);
    expect(empty.fields.length).toBeGreaterThan(0);
    expect(empty.answer?.message).not.toMatch(/undefined|\[object/);
  });

  it.each<[string, Handler, object | undefined]>([
    ['job', job.GET, undefined],
    ['place', place.PUT, { place: 'gone', person }],
    ['cautions', cautions.POST, { cautions: [], person }],
    ['looks', looks.POST, { step: 'look-over', person, findings: {} }],
    ['readings', readings.POST, { step: 'vacuum-draw', person, readings: {} }],
    ['stand-in readings', readings.GET, undefined],
    ['runs', runs.POST, { step: 'vacuum-draw', person }],
    ['releases', releases.POST, { kind: 'findings-only', person, units: 'kpa' }],
    ['preview', preview.GET, undefined],
    ['run', run.POST, { action: 'keep', person }],
    ['command', command.POST, { kind: 'lever', level: 0 }],
    ['result', result.GET, undefined],
    ['stream', stream.GET, undefined],
    ['close of an import', parts.POST, undefined],
    ['release on paper', html.GET, undefined],
    ['release as PDF', pdf.GET, undefined],
  ])('%s: one that is not in the book is not found, in words', async (_name, handler, body) => {
    const { status, answer } = await ask(handler, body);
    expect(status).toBe(404);
    expect(answer?.message).toMatch(/\.$/);
  });
});

describe('booking in', () => {
  it('names every field that is wrong at once, and stores nothing', async () => {
    const before = (await ask(jobs.POST, { ...form(), serial: 'TK-2207-202' })).answer as unknown as { number: number };
    const wrong = await ask(jobs.POST, { sheetId: '', serial: 'T', vehicle: ' ', promisedAt: 'Friday', person: '' });
    expect(wrong.fields.sort()).toEqual(['person', 'promisedAt', 'serial', 'sheetId', 'vehicle']);
    const after = (await ask(jobs.POST, { ...form(), serial: 'TK-2207-203' })).answer as unknown as { number: number };
    expect(after.number).toBe(before.number + 1);
  });

  it('a promise that is past is asked about, and stands once somebody says so', async () => {
    const late = { ...form(), serial: 'TK-2207-206', promisedAt: '2026-01-05T10:00' };
    const asked = await ask(jobs.POST, late);
    expect({ status: asked.status, fields: asked.fields }).toEqual({ status: 422, fields: ['promisedAt'] });
    // A promise that was changed since is asked about again.
    expect((await ask(jobs.POST, { ...late, promiseConfirmed: '2026-01-04T10:00' })).status).toBe(422);
    expect((await ask(jobs.POST, { ...late, promiseConfirmed: late.promisedAt })).status).toBe(200);
    expect((await ask(jobs.POST, { ...form(), serial: 'TK-2207-207', promisedAt: '2099-01-05T10:00' })).status).toBe(
      200,
    );
  });

  it('a sheet with a negative diameter and a field that nobody knows is refused by both', async () => {
    const spec = { ...(kind.sheet.example.spec as object), slaveBoreMm: -3, slaveBore: 3 };
    const { status, fields } = await ask(sheets.POST, { family: kind.family, name: 'Wrong', spec });
    expect(status).toBe(422);
    expect(fields).toContain('slaveBoreMm');
    expect((await ask(sheets.POST, { family: 'teapot', name: 'T', spec: {} })).status).toBe(422);
  });

  it('a unit is moved to a place that there is', async () => {
    const id = await booked('TK-2207-204');
    expect((await ask(place.PUT, { place: 'the moon', person }, id)).fields).toEqual(['place']);
    expect((await ask(place.PUT, { place: 'waiting-parts', person }, id)).status).toBe(200);
    expect((await jobNamed(id)).place).toBe('waiting-parts');
  });
});

describe('settings and instruments', () => {
  const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 620 };
  const shop = { shopName: 'Vennholm bench', site, policy: 'guarded' };

  it('keep what was set, and refuse air that there is not on earth', async () => {
    expect((await ask(settings.PUT, shop)).status).toBe(200);
    expect(await siteNow()).toMatchObject(site);
    const wrong = await ask(settings.PUT, { ...shop, site: { altitudeM: 90_000, barometerKpa: 3 } });
    expect(wrong.fields.sort()).toEqual(['site.altitudeM', 'site.barometerKpa']);
    // What was no figure at all arrives as null.
    const none = await ask(settings.PUT, { ...shop, site: { airTemperatureC: null } });
    expect(none.answer?.fields).toEqual({ 'site.airTemperatureC': 'Needs a figure from -60 to 70' });
    expect(await siteNow()).toMatchObject(site);
  });

  it('ask for the air, and for a barometer that does not fit the altitude', async () => {
    const none = await ask(settings.PUT, { ...shop, site: { airTemperatureC: 11 } });
    expect([none.status, none.fields]).toEqual([422, ['site.altitudeM']]);
    const reduced = { ...shop, site: { ...site, barometerKpa: 101.3 } };
    expect((await ask(settings.PUT, reduced)).fields).toEqual(['site.barometerKpa']);
    expect(await siteNow()).toMatchObject(site);
    expect((await ask(settings.PUT, { ...reduced, barometerConfirmed: true })).status).toBe(200);
    expect((await ask(settings.PUT, shop)).status).toBe(200);
  });

  const gauge = {
    channel: 'supply_vacuum',
    name: 'Dial on the tee',
    range: 30,
    resolution: 0.5,
    unit: 'inHg',
    classPercent: 1.6,
    classOf: 'full-scale',
    calibratedOn: '2026-03-01',
    dueOn: '2027-03-01',
  };

  it.each([
    ['channel', { channel: 'mood' }],
    ['unit', { unit: 'mm' }],
    ['unit', { unit: 'cubits' }],
    ['resolution', { resolution: 30 }],
    ['range', { range: 0 }],
    ['classPercent', { classPercent: 50 }],
    ['dueOn', { dueOn: '2026-02-01' }],
    ['dueOn', { dueOn: 'soon' }],
    ['name', { name: ' ' }],
  ])('an instrument is refused by its %s where that is %j', async (field, over) => {
    expect((await ask(instruments.PUT, { ...gauge, ...over })).fields).toEqual([field]);
    expect((await siteNow()).instruments ?? []).toEqual([]);
  });

  it('one that fits is mounted, and taken off again', async () => {
    expect((await ask(instruments.PUT, gauge)).status).toBe(200);
    expect((await siteNow()).instruments).toMatchObject([{ channel: 'supply_vacuum', unit: 'inHg' }]);
    expect((await ask(instruments.DELETE, { channel: 'supply_vacuum' })).status).toBe(200);
    expect((await siteNow()).instruments ?? []).toEqual([]);
  });
});

describe('a step', () => {
  const readCautions = (id: string) =>
    ask(cautions.POST, { cautions: [...new Set(kind.steps.flatMap((step) => step.cautions))], person }, id);

  it('is closed while its cautions are not read, whichever way it is fed', async () => {
    const id = await booked('TK-2207-205');
    const steps = kind.steps.filter((step) => step.cautions.length > 0);
    expect(steps.length).toBeGreaterThan(0);
    for (const step of steps) {
      if (step.kind === 'look') continue;
      expect((await ask(runs.POST, { step: step.id, person }, id)).status).toBe(409);
      expect((await ask(readings.POST, { step: step.id, person, readings: {} }, id)).status).toBe(409);
    }
    expect((await ask(cautions.POST, { cautions: ['be careful'], person }, id)).status).toBe(422);
  });

  it('is run live by requests alone: started, pulled, stopped, judged, kept, struck out with a reason', async () => {
    const id = await booked('TK-2207-206');
    await readCautions(id);
    const runId = await idOf(ask(runs.POST, { step: 'stop-lamp-switch', person }, id));
    expect((await ask(runs.POST, { step: 'boost-curve', person }, id)).answer?.message).toContain('still open');
    for (const wrong of [{ kind: 'speed', speed: 500 }, { kind: 'lever', level: -1 }, { kind: 'sing' }])
      expect((await ask(command.POST, wrong, runId)).status).toBe(422);
    expect((await ask(run.POST, { action: 'keep', person }, runId)).status).toBe(409);
    expect((await ask(command.POST, { kind: 'speed', speed: 20 }, runId)).status).toBe(200);
    await ask(command.POST, { kind: 'by-itself', on: true }, runId);
    await until(async () => (await ask(command.POST, { kind: 'by-itself', on: true }, runId)).status === 409);
    const judged = await ask(result.GET, undefined, runId);
    expect(judged.answer).toMatchObject({ step: 'stop-lamp-switch', verdict: 'pass' });
    expect((await ask(run.POST, { action: 'keep', person }, runId)).status).toBe(200);
    expect((await ask(run.POST, { action: 'discard', person }, runId)).answer?.message).toContain('strike it out');
    expect((await ask(run.POST, { action: 'strike-out', reason: ' ', person }, runId)).fields).toEqual(['reason']);
    expect((await ask(run.POST, { action: 'strike-out', reason: 'lever slipped', person }, runId)).status).toBe(200);
  });

  it('keeps no figure that is hardly so until it is confirmed', async () => {
    const id = await booked('TK-2207-219');
    const readAll = kind.steps.flatMap((step) => step.cautions);
    await ask(cautions.POST, { cautions: [...new Set(readAll)], person }, id);
    const body = { step: 'release', readings: { before: 0, 'let-go': 0.4, after: 80e6 }, person };
    const refused = await ask(readings.POST, body, id);
    expect([refused.status, refused.fields]).toEqual([422, ['after']]);
    const kept = await ask(readings.POST, { ...body, confirmed: ['after'] }, id);
    expect(kept.status).toBe(200);
  });

  it('is read from a log in parts, and one with a hole in it is not kept', async () => {
    const id = await booked('TK-2207-207');
    await readCautions(id);
    const there = await jobNamed(id);
    const context = contextOf(there, await siteNow(), new Date().toISOString());
    const setting = { faults: [], benchSeed: 4, runSeed: 5 };
    const trace = simulateStep(kind, measuredStepOf(kind, 'vacuum-draw'), context, setting);
    const mapping = [
      { use: 'time', unit: 's' },
      { use: 'channel', channel: 'supply_vacuum', unit: 'kPa', sign: 1, absolute: false },
    ];
    const log = { step: 'vacuum-draw', person, file: { name: 'draw.csv', leftOut: [] }, fingerprint: 'a|b', mapping };
    const middle = trace.time.length >> 1;
    const vacuum = makeTrace(trace.time, { supply_vacuum: trace.columns.supply_vacuum });
    const part = (from: number, to?: number) => packFrame(sliceTrace(vacuum, from, to ?? trace.time.length));
    const send = async (runId: string, sequence: number | string, body: Uint8Array<ArrayBuffer>) => {
      const request = new Request(`${address}?sequence=${sequence}`, { method: 'PUT', body });
      return (await parts.PUT(request, { params: Promise.resolve({ id: runId }) })).status;
    };
    const first = await idOf(ask(imports.POST, log, id));
    expect((await ask(parts.POST, {}, first)).answer?.message).toContain('did not arrive');
    expect(await send(first, 'one', part(0, middle))).toBe(422);
    expect(await send(first, -1, part(0, middle))).toBe(422);
    expect(await send(first, 1, part(middle))).toBe(200);
    expect((await ask(parts.POST, {}, first)).answer?.message).toContain('did not arrive');

    const second = await idOf(ask(imports.POST, log, id));
    expect(await send(second, 0, part(0, middle))).toBe(200);
    expect(await send(second, 1, part(middle))).toBe(200);
    expect((await ask(parts.POST, {}, second)).status).toBe(200);
    expect((await ask(result.GET, undefined, second)).answer).toMatchObject({
      characteristics: [
        { id: 'draw-time', kind: 'measured' },
        { id: 'rest-difference', kind: 'absent' },
      ],
    });
    expect((await ask(mappings.POST, { fingerprint: 'a|b' })).answer?.mapping).toEqual(mapping);
    expect((await ask(mappings.POST, { fingerprint: 'x|y' })).answer?.mapping).toBeNull();
  });
});

describe('a release', () => {
  it('is not to be had for an untested unit; its findings are, on paper and as PDF, with what is missing', async () => {
    const id = await booked('TK-2207-208');
    const refused = await ask(releases.POST, { kind: 'released', person, units: 'kpa' }, id);
    expect(refused.status).toBe(409);
    expect(refused.answer?.message).toContain('Not releasable');
    expect((await ask(preview.GET, undefined, id)).text).toContain('TK-2207-208');
    const paper = await idOf(ask(releases.POST, { kind: 'findings-only', person, units: 'psi' }, id));
    const page = await ask(html.GET, undefined, paper);
    expect(page.type).toContain('text/html');
    expect(page.text).toContain('TK-2207-208');
    expect(page.text.toLowerCase()).toContain('not released');
    const printed = await ask(pdf.GET, undefined, paper);
    expect(printed.type).toBe('application/pdf');
    expect(printed.text.startsWith('%PDF-')).toBe(true);
  });
});

describe('spheres', () => {
  it('are entered once, checked by serial, and refused by what is wrong', async () => {
    const sphere = { action: 'enter', serial: 'SP-88', purpose: 'brake', fluid: 'mineral', precharge: '6 MPa' };
    const { status, fields } = await ask(spheres.POST, { ...sphere, purpose: 'juggling' });
    expect([status, fields]).toEqual([422, ['purpose']]);
    expect((await ask(spheres.POST, { action: 'throw', serial: 'SP-88' })).fields).toEqual(['action']);
    expect((await ask(spheres.POST, sphere)).status).toBe(200);
    expect((await ask(spheres.POST, sphere)).fields).toEqual(['serial']);
    const check = { action: 'check', serial: 'SP-88', reading: '5.7 MPa', temperatureC: 8, person };
    expect((await ask(spheres.POST, { ...check, serial: 'SP-89' })).status).toBe(404);
    expect((await ask(spheres.POST, check)).status).toBe(200);
    const coach = kindNamed('stored-pressure');
    const coachSheet = await idOf(
      ask(sheets.POST, { family: coach.family, name: 'Coach', spec: coach.sheet.example.spec as object }),
    );
    expect((await ask(spheres.POST, { action: 'fit', serial: 'SP-88', sheetId: coachSheet })).status).toBe(200);
    const [kept] = await sphereLives();
    expect(kept).toMatchObject({ serial: 'SP-88', fittedTo: 'Coach', checks: [{ person }] });
  });
});
