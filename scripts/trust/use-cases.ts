import { planOf } from '@/core/contract/kind';
import { kindNamed } from '@/core/families';
import { simulateStep } from '@/core/rig/run-step';
import { packFrame } from '@/core/traces/frame';
import { listActs } from '@/data/acts';
import { findJob } from '@/data/jobs';
import { listRuns } from '@/data/runs';
import { findStandIn } from '@/data/stand-ins';
import { contextOf, measuredStepOf, sheetOf, siteNow } from '@/server/context/job-context';
import { acknowledgeCautions } from '@/server/desk/acknowledge-cautions';
import { addSheet, bookIn } from '@/server/desk/book-in';
import { beginImport, closeImport, takeImportPart } from '@/server/desk/import-log';
import { issueRelease } from '@/server/desk/issue-release';
import { correctBooking } from '@/server/desk/correct-booking';
import { moveUnit } from '@/server/desk/move-job';
import { orderSheet } from '@/server/desk/order-sheet';
import { recordReadings } from '@/server/desk/record-readings';
import { recordRepair } from '@/server/desk/repair';
import { discardRun, keepRun, recordLook, startRun, stopRun, strikeOut } from '@/server/desk/runs';
import { saveSettings } from '@/server/desk/save-settings';
import { savePeople } from '@/server/desk/save-people';
import { takeOut } from '@/server/desk/take-out';
import { undoAct } from '@/server/desk/undo';
import { mountInstrument, putBackInstrument, takenOffToday, unmountInstrument } from '@/server/shop/instruments';
import { savePrevalence } from '@/server/shop/prevalences';
import { checkSphere, enterSphere } from '@/server/shop/spheres';

const person = 'Noor Halabi';
const kind = kindNamed('vacuum-remote');

/** What the use cases hand on to one another. */
export interface Carried {
  sheetId: string;
  jobId: string;
  releaseId: string;
  runId: string;
}

interface UseCase {
  readonly title: string;
  readonly does: (carried: Carried) => Promise<unknown>;
  /** A rig runs on while it is done: how much it has written is another each time. */
  readonly live?: true;
}

/** A log as the bench brings it: begun, its part, closed. Each of them is a request of its own. */
const broughtBy = (step: string): readonly UseCase[] => [
  {
    title: `log begun: ${step}`,
    does: async (carried) => {
      const file = { name: `${step}.csv`, leftOut: [] };
      const form = { step, person, file, fingerprint: step, mapping: [], standIn: true };
      carried.runId = (await beginImport(carried.jobId, form)).id;
    },
  },
  {
    title: `log, its part: ${step}`,
    does: async ({ jobId, runId }) => {
      const job = (await findJob(jobId))!;
      const { kind: of } = sheetOf(job);
      const context = contextOf(job, await siteNow(), '2026-11-23T09:00:00Z');
      const { seed } = await findStandIn(jobId);
      const setting = { faults: [], benchSeed: seed, runSeed: 1 };
      const trace = simulateStep(of, measuredStepOf(of, step), context, setting);
      await takeImportPart(runId, { sequence: 0, bytes: packFrame(trace) });
    },
  },
  { title: `log closed: ${step}`, does: ({ runId }) => closeImport(runId) },
];

const lastAct = async (jobId: string, act: string) =>
  (await listActs(jobId)).findLast((each) => each.act === act && each.undoneAt === null)!.id;

const lastRun = async (jobId: string, step: string) => (await listRuns(jobId)).findLast((run) => run.step === step)!.id;

const issue = async (carried: Carried) => {
  carried.releaseId = (await issueRelease(carried.jobId, { kind: 'released', person, units: 'kpa' })).id;
};

const done = (id: string): readonly UseCase[] => {
  const step = kind.steps.find((each) => each.id === id)!;
  if (step.kind === 'look') {
    const findings = Object.fromEntries(
      step.feeds.look.points.map((point) => [point.id, step.feeds.look.options[0].id]),
    );
    return [{ title: `look: ${id}`, does: ({ jobId }) => recordLook(jobId, id, findings, person) }];
  }
  return broughtBy(id);
};

const gauge = {
  channel: 'supply_vacuum',
  name: 'Dial on the tee',
  range: 100,
  resolution: 0.5,
  unit: 'kPa',
  classPercent: 0.6,
  classOf: 'full-scale' as const,
  calibratedOn: '2026-03-01',
  dueOn: '2027-03-01',
};

const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 620, timeZone: 'Europe/Vienna' };
const settings = { shopName: 'Vennholm bench', site, policy: 'guarded' as const, barometerConfirmed: false };

/** Every use case that writes, in an order in which each has something to do: a unit from its sheet to its release, and back. */
export const useCases: readonly UseCase[] = [
  { title: 'settings', does: () => saveSettings(settings) },
  {
    title: 'sheet',
    does: async (carried) => {
      const spec = kind.sheet.example.spec as Record<string, unknown>;
      carried.sheetId = (await addSheet({ family: kind.family, name: 'Tarnock R7', spec })).id;
    },
  },
  {
    title: 'book in',
    does: async (carried) => {
      const form = { sheetId: carried.sheetId, serial: 'TK-2207-150', vehicle: 'Grader 2', person };
      carried.jobId = (await bookIn(form)).id;
    },
  },
  {
    title: 'cautions',
    does: ({ jobId }) =>
      acknowledgeCautions(jobId, { cautions: [...new Set(kind.steps.flatMap((step) => step.cautions))], person }),
  },
  ...planOf(kind, 'bench').steps.flatMap(done),
  { title: 'release', does: issue },
  {
    title: 'strike-out under a release',
    does: async ({ jobId }) => strikeOut(await lastRun(jobId, 'boost-curve'), 'lever slipped', person),
  },
  { title: 'undo of the strike-out', does: async ({ jobId }) => undoAct(await lastAct(jobId, 'struck-out'), person) },
  { title: 'release again', does: issue },
  {
    title: 'repair under a release',
    does: ({ jobId }) =>
      recordRepair(jobId, { person, note: '', work: [{ part: kind.parts[0].id, action: 'replaced', with: '' }] }),
  },
  { title: 'undo of the repair', does: async ({ jobId }) => undoAct(await lastAct(jobId, 'repaired'), person) },
  { title: 'release a third time', does: issue },
  {
    title: 'a failed look under a release',
    does: ({ jobId }) => {
      const step = kind.steps.find((each) => each.kind === 'look')!;
      const bad = step.feeds.look.options.find((option) => option.effect === 'fail')!;
      return recordLook(
        jobId,
        step.id,
        Object.fromEntries(step.feeds.look.points.map((point) => [point.id, bad.id])),
        person,
      );
    },
  },
  { title: 'findings', does: ({ jobId }) => issueRelease(jobId, { kind: 'findings-only', person, units: 'kpa' }) },
  { title: 'move', does: ({ jobId }) => moveUnit(jobId, { place: 'waiting-parts', person }) },
  { title: 'undo of the move', does: async ({ jobId }) => undoAct(await lastAct(jobId, 'moved'), person) },
  {
    title: 'correct the booking',
    does: ({ jobId }) => correctBooking(jobId, { serial: 'TK-2207-15', vehicle: 'Grader 4', person }),
  },
  { title: 'undo of the correction', does: async ({ jobId }) => undoAct(await lastAct(jobId, 'corrected'), person) },
  { title: 'order', does: ({ jobId }) => orderSheet(jobId, { orderedBy: 'worth' }) },
  {
    title: 'readings',
    does: ({ jobId }) =>
      recordReadings(jobId, 'vacuum-draw', { 'settled-vacuum': 60_000 }, { person, standIn: false }).catch(() => null),
  },
  { title: 'start', live: true, does: ({ jobId }) => startRun(jobId, 'vacuum-draw', person) },
  { title: 'stop', live: true, does: async ({ jobId }) => stopRun(await lastRun(jobId, 'vacuum-draw')) },
  { title: 'start again', live: true, does: ({ jobId }) => startRun(jobId, 'vacuum-draw', person, true) },
  { title: 'stop again', live: true, does: async ({ jobId }) => stopRun(await lastRun(jobId, 'vacuum-draw')) },
  {
    title: 'keep, in place of one aside',
    live: true,
    does: async ({ jobId }) => keepRun(await lastRun(jobId, 'vacuum-draw'), person),
  },
  { title: 'start once more', live: true, does: ({ jobId }) => startRun(jobId, 'stop-lamp-switch', person) },
  {
    title: 'discard',
    live: true,
    does: async ({ jobId }) => discardRun(await lastRun(jobId, 'stop-lamp-switch'), person),
  },
  {
    title: 'people',
    does: () => savePeople({ people: [person, 'Piet Oduya'].map((name) => ({ id: '', name, role: 'technician' })) }),
  },
  { title: 'instrument', does: () => mountInstrument(gauge) },
  { title: 'instrument off', does: () => unmountInstrument('supply_vacuum') },
  { title: 'instrument back', does: async () => putBackInstrument((await takenOffToday())[0].id) },
  {
    title: 'how common a fault is',
    does: () => savePrevalence({ family: kind.family, fault: kind.model.faults[0].id, prevalence: 'common' }),
  },
  {
    title: 'sphere',
    does: () => enterSphere({ serial: 'OW-S-1', purpose: 'brake', fluid: 'mineral', precharge: '6.2 MPa' }),
  },
  {
    title: 'check of a sphere',
    does: () => checkSphere({ serial: 'OW-S-1', reading: '6 MPa', temperatureC: 11, person }),
  },
  {
    title: 'another job',
    does: async (carried) => {
      const form = { sheetId: carried.sheetId, serial: 'TK-2207-151', vehicle: 'Grader 3', person };
      carried.jobId = (await bookIn(form)).id;
    },
  },
  { title: 'taken out of the book', does: ({ jobId }) => takeOut(jobId, person) },
  { title: 'brought back into it', does: async ({ jobId }) => undoAct(await lastAct(jobId, 'taken-out'), person) },
];
