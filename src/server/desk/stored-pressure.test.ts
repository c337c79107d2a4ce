import { emptyShopFolder, readEveryCaution, until } from '../../../tests/support/shop';

emptyShopFolder();

import { kindNamed } from '@/core/families';
import type { Job } from '@/data/jobs';
import { listRuns, readTrace } from '@/data/runs';
import { addSheet, bookIn } from './book-in';
import { jobView } from '../views/job-view';
import { commandRun, keepRun, recordLook, resumeRun, startRun, stopRun, strikeOut } from './runs';
import { beginImport } from './import-log';
import { recordReadings } from './record-readings';
import { checkSphere, enterSphere, fitSphere, sphereLives } from '../shop/spheres';

const kind = kindNamed('motor-pump-boost');
const person = 'Tomas Rehn';
let sheetId = '';

async function book(serial: string, standInFault = ''): Promise<Job> {
  const form = { serial, vehicle: 'Hybrid valley shuttle 2', complaint: '', promisedAt: '', plan: 'bench' } as const;
  return bookIn({ ...form, sheetId, person, standInFault });
}

const dead = (job: Job, pressure: number) =>
  recordReadings(
    job.id,
    'make-dead-before',
    { 'dead-pressure': pressure, 'gauge-seen': 0 },
    { person, standIn: false },
  );

const looks = Object.fromEntries(
  kind.steps
    .flatMap((step) => (step.id === 'fluid-look' && step.kind === 'look' ? step.feeds.look.points : []))
    .map((point) => [point.id, 'in-order']),
);

beforeAll(async () => {
  const { name, spec } = kind.sheet.example;
  sheetId = (await addSheet({ family: kind.family, name, spec: spec as Record<string, unknown> })).id;
});

describe('a step behind an interlock', () => {
  it('is refused by every way of feeding it until the system is proved dead', async () => {
    const job = await book('TK-M18-900');
    await readEveryCaution(job, person);
    const shut = /not been proved dead/;
    await expect(startRun(job.id, 'charge-from-empty', person)).rejects.toThrow(shut);
    await expect(recordLook(job.id, 'fluid-look', looks, person)).rejects.toThrow(shut);
    await expect(
      recordReadings(job.id, 'charge-from-empty', { knee: 7.5e6, seconds: 22 }, { person, standIn: false }),
    ).rejects.toThrow(shut);
    const file = { name: 'log.csv', leftOut: [] };
    const form = { step: 'charge-from-empty', person, file, fingerprint: 'x', standIn: false, mapping: [] };
    await expect(beginImport(job.id, form)).rejects.toThrow(shut);
    expect(await listRuns(job.id)).toEqual([]);
  });

  it('a pressure above the dead limit opens nothing, the last reading counts, and a charge shuts it again', async () => {
    const job = await book('TK-M18-901');
    await readEveryCaution(job, person);
    await dead(job, 900e3);
    await expect(recordLook(job.id, 'fluid-look', looks, person)).rejects.toThrow(/not been proved dead/);
    await dead(job, 40e3);
    await recordLook(job.id, 'fluid-look', looks, person);
    const { steps } = await jobView(job.id);
    expect(steps.find((step) => step.id === 'make-dead-before')?.evaluation.verdict).toBe('pass');
    await recordReadings(job.id, 'charge-from-empty', { knee: 7.6e6, seconds: 22 }, { person, standIn: false });
    await expect(recordLook(job.id, 'fluid-look', looks, person)).rejects.toThrow(/charged since/);
    const view = await jobView(job.id);
    expect(view.steps.find((step) => step.id === 'charge-from-empty')?.shut?.opener).toBe('make-dead-before');
    // Striking the charge out does not take the pressure out again.
    const charge = (await listRuns(job.id)).find((run) => run.step === 'charge-from-empty');
    await strikeOut(charge?.id ?? '', 'misread', person);
    await expect(recordLook(job.id, 'fluid-look', looks, person)).rejects.toThrow(/charged since/);
  });

  it('waits for its cautions to be acknowledged by name, whoever asks', async () => {
    const job = await book('TK-M18-902');
    await expect(dead(job, 40e3)).rejects.toThrow(/cautions/);
    await expect(startRun(job.id, 'make-dead-before', person)).rejects.toThrow(/cautions/);
  });
});

describe('a charge that was interrupted', () => {
  it('goes on and is kept: its own pressure does not lock it out, and locks out what must be dead', async () => {
    const job = await book('TK-M18-904');
    await readEveryCaution(job, person);
    await dead(job, 40e3);
    const { id } = await startRun(job.id, 'charge-from-empty', person);
    // Slow enough that it is still charging when it is looked at, however busy the machine.
    await commandRun(id, { kind: 'speed', speed: 2 });
    await until(async () => (await readTrace(id)).trace.time.length > 200);
    await expect(recordLook(job.id, 'fluid-look', looks, person)).rejects.toThrow(/charged since/);
    await expect(resumeRun(id)).resolves.toEqual({ id });
    await stopRun(id);
    await keepRun(id, person);
    expect((await listRuns(job.id)).find((run) => run.id === id)?.state).toBe('kept');
  }, 60_000);
});

describe('a motor’s duty limit', () => {
  it('stops the motor and ends the step by itself', async () => {
    const job = await book('TK-M18-903', 'pressure-switch-stuck');
    await readEveryCaution(job, person);
    await dead(job, 40e3);
    // A clock of its own: what a stalled process does not see counts against the limit and is missing from the trace.
    let now = 0;
    const clock = jest.spyOn(performance, 'now').mockImplementation(() => (now += 33));
    const { id } = await startRun(job.id, 'charge-from-empty', person);
    await commandRun(id, { kind: 'speed', speed: 400 });
    await until(async () => (await listRuns(job.id)).some((run) => run.id === id && run.state === 'complete'));
    clock.mockRestore();
    const { trace } = await readTrace(id);
    const pump = trace.columns.pump_on;
    const on = trace.time.filter((_, i) => pump[i] > 0.5);
    expect(on[on.length - 1] - on[0]).toBeGreaterThan(88);
    expect(on[on.length - 1] - on[0]).toBeLessThan(91);
    expect(pump[pump.length - 1]).toBe(0);
    await keepRun(id, person);
    const step = (await jobView(job.id)).steps.find((each) => each.id === 'charge-from-empty');
    expect(step?.evaluation.analyses[0].notes.map((note) => note.code)).toContain('charged-too-long');
  }, 60_000);
});

describe('spheres', () => {
  it('keep their precharges by serial, restated to 20 °C', async () => {
    await enterSphere({ serial: 'UG-S-1', purpose: 'suspension', fluid: 'mineral', precharge: '2.6 MPa' });
    await checkSphere({ serial: 'UG-S-1', reading: '23.4 bar', temperatureC: -5, person });
    const [sphere] = await sphereLives();
    expect(sphere.checks[0].precharge / 2.567e6).toBeCloseTo(1, 2);
    expect(sphere.checks[0].standard).toBeGreaterThan(5e3);
  });

  it('are refused on a sheet of another purpose, and after another fluid', async () => {
    const coach = kindNamed('stored-pressure');
    const { id } = await addSheet({
      family: coach.family,
      name: 'Coach',
      spec: coach.sheet.example.spec as Record<string, unknown>,
    });
    await expect(fitSphere({ serial: 'UG-S-1', sheetId: id })).rejects.toThrow(
      /suspension sphere on a sheet for a brake sphere/,
    );
    await enterSphere({ serial: 'UG-S-2', purpose: 'brake', fluid: 'glycol', precharge: '6.2 MPa' });
    await expect(fitSphere({ serial: 'UG-S-2', sheetId: id })).rejects.toThrow(
      /glycol fluid where the sheet says mineral oil/,
    );
    await enterSphere({ serial: 'UG-S-3', purpose: 'brake', fluid: 'mineral', precharge: '62 bar' });
    await fitSphere({ serial: 'UG-S-3', sheetId: id });
    expect((await sphereLives()).find((each) => each.serial === 'UG-S-3')?.fittedTo).toBe('Coach');
  });

  it('name the field of what cannot be read', async () => {
    await expect(
      enterSphere({ serial: 'UG-S-4', purpose: 'brake', fluid: 'mineral', precharge: 'full' }),
    ).rejects.toMatchObject({
      fields: { precharge: expect.stringContaining('pressure') },
    });
    await expect(
      enterSphere({ serial: 'UG-S-1', purpose: 'brake', fluid: 'mineral', precharge: '6 MPa' }),
    ).rejects.toMatchObject({
      fields: { serial: expect.stringContaining('already') },
    });
    await expect(checkSphere({ serial: 'nobody', reading: '6 MPa', temperatureC: 20, person })).rejects.toThrow(
      /not in the book/,
    );
  });
});
