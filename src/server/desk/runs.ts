import { randomUUID } from 'node:crypto';
import { writtenKey } from '@/core/procedure/look-step';
import type { JobEdit } from '@/data/job-edits';
import { loadRecordOfRun, openRun, runsOf, type JobRecord } from '@/data/job-record';
import { countChunks, type Run } from '@/data/runs';
import { runNamed, runnableStepOf, sheetOf, stepTitle, stillOpen } from '../context/job-context';
import { RequestRefused } from '../http/refused';
import type { RunCommand } from '../recording/recorder-host';
import { recorders } from '../recording/recorders';
import { loadShop, refuseUnknownSite } from '../shop/shop-now';
import { changeJob } from './change-job';
import { refuseShut } from './open-step';

const notRecordedHere = () => new RequestRefused(404, 'This run is not recorded here.');

/** The run on its job's record. */
function runOn({ runs }: JobRecord, id: string): Run {
  const run = runs.find((each) => each.id === id);
  if (!run) throw notRecordedHere();
  return run;
}

/** A unit that waits comes to the bench with whatever is done to it. */
export const toTheBench = ({ job: { place } }: JobRecord): readonly JobEdit[] =>
  place === 'waiting' || place === 'waiting-parts' ? [{ kind: 'placed', place: 'on-bench' }] : [];

/** An act of somebody on a run. */
export const actOn = (
  jobId: string,
  subject: string,
  act: 'begun' | 'kept' | 'struck-out',
  { person, detail = null }: { readonly person: string; readonly detail?: string | null },
): JobEdit => ({ kind: 'act', act: { jobId, subject, act, person, detail } });

/**
 * Starts a live run of a step. One run at a time a job: the bench has one set of gauges. A finished run of the same step that nobody has
 * kept yet is set aside where `again` says so, until this one is kept or thrown away.
 */
export async function startRun(
  jobId: string,
  stepId: string,
  person: string,
  again = false,
): Promise<{ id: string; version: number }> {
  const answer = await changeJob<{ id: string }>(jobId, {
    person,
    already: (record) => {
      const open = openRun(record);
      return open?.step === stepId && open.state === 'recording' && open.person === person
        ? { id: open.id }
        : undefined;
    },
    async decide({ record, shop, at }) {
      runnableStepOf(sheetOf(record.job).kind, stepId);
      refuseUnknownSite(shop);
      await refuseShut(record, shop, stepId);
      const open = openRun(record);
      const former = again && open?.step === stepId && open.state === 'complete' ? open : null;
      if (open && !former)
        throw open.step === stepId && open.state === 'recording'
          ? new RequestRefused(409, `“${stepTitle(record.job, stepId)}” is being recorded already, by ${open.person}.`)
          : stillOpen(record.job, open.step);
      const id = randomUUID();
      const context = { site: shop.site, source: 'stand-in rig' } as const;
      const run = { jobId, step: stepId, state: 'recording', startedAt: at, person, context } as const;
      return {
        edits: [
          ...(former ? [{ kind: 'run-state', id: former.id, from: 'complete', to: 'aside' } as const] : []),
          { kind: 'run-begun', id, run },
          ...toTheBench(record),
          actOn(jobId, id, 'begun', { person }),
        ],
        result: { id },
      };
    },
  });
  await recorders().start(answer.id);
  return answer;
}

/** A log that broke off on its way here is no run of the rig: half a log is neither gone on with nor judged. */
function refuseBrokenImport(run: Run): void {
  if (run.context.source === 'log file')
    throw new RequestRefused(409, 'This log broke off on its way here. Run the step again, or bring the log again.');
}

/** Goes on with a run that a crash interrupted, from its last written second. */
export async function resumeRun(id: string): Promise<{ id: string }> {
  const record = await loadRecordOfRun(id);
  if (!record) throw notRecordedHere();
  const run = runOn(record, id);
  if (run.state !== 'recording') throw new RequestRefused(409, 'This run has ended.');
  refuseBrokenImport(run);
  if (recorders().isRecording(id)) return { id };
  await refuseShut(record, await loadShop(), run.step, id);
  await recorders().start(id);
  return { id };
}

/** Moves the lever, lets the rig pull, or sets the stand-in's speed. */
export async function commandRun(id: string, command: RunCommand): Promise<void> {
  if (await recorders().command(id, command)) return;
  await runNamed(id);
  throw new RequestRefused(409, 'This run is not being recorded now. Resume it or run the step again.');
}

/** Ends a run early: what was recorded stays and can be judged. */
export async function stopRun(id: string): Promise<void> {
  const run = await runNamed(id);
  if (run.state !== 'recording') return;
  refuseBrokenImport(run);
  await recorders().stop(id);
}

/** The job of a run, or a refusal that says that there is none. */
async function jobOfRun(id: string): Promise<string> {
  return (await runNamed(id)).jobId;
}

/** Keeps a complete run: it counts from now on. */
export async function keepRun(id: string, person: string): Promise<{ version: number }> {
  return changeJob(await jobOfRun(id), {
    person,
    already: (record) =>
      runOn(record, id).state === 'kept' &&
      record.acts.findLast((act) => act.act === 'kept' && act.subject === id)?.person === person
        ? {}
        : undefined,
    async decide({ record, shop }) {
      const run = runOn(record, id);
      if (run.state === 'recording') throw new RequestRefused(409, 'This run is still recording.');
      if (run.state === 'discarded') throw new RequestRefused(409, 'This run was discarded.');
      if (run.state === 'kept') throw new RequestRefused(409, 'This run was kept already.');
      await refuseShut(record, shop, run.step, id);
      const former = await Promise.all(asideOf(record, run).map((each) => thrownAway(each, person)));
      return {
        edits: [
          { kind: 'run-state', id, from: run.state, to: 'kept' },
          actOn(run.jobId, id, 'kept', { person }),
          ...former.flat(),
        ],
        result: {},
      };
    },
  });
}

/** Finished runs of the same step that were set aside while it was run again. */
const asideOf = (record: JobRecord, { id, step }: Run): readonly Run[] =>
  runsOf(record).filter((each) => each.id !== id && each.state === 'aside' && each.step === step);

/** What throws a run away on record, so that it can be brought back for a day. */
export async function thrownAway(run: Run, person: string): Promise<readonly JobEdit[]> {
  // Half a log, or a run of which nothing was written, is nothing to bring back.
  const whole = run.context.source !== 'log file' && (await countChunks(run.id)).count > 0;
  const act = { jobId: run.jobId, subject: run.id, act: 'discarded', person, detail: null } as const;
  return [
    { kind: 'run-state', id: run.id, from: run.state, to: 'discarded' },
    { kind: 'act', act: { ...act, ...(whole ? { before: run.state } : {}) } },
  ];
}

/** Throws a run away; the step can be run again. A kept run is struck out with a reason instead. */
export async function discardRun(id: string, person: string): Promise<{ version: number }> {
  const answer = await changeJob(await jobOfRun(id), {
    person,
    already: (record) =>
      runOn(record, id).state === 'discarded' &&
      record.acts.findLast((act) => act.act === 'discarded' && act.subject === id)?.person === person
        ? {}
        : undefined,
    async decide({ record }) {
      const run = runOn(record, id);
      if (run.state === 'kept')
        throw new RequestRefused(409, 'A kept run is not thrown away; strike it out with a reason.');
      if (run.state === 'discarded') throw new RequestRefused(409, 'This run was thrown away already.');
      // The one before it comes back, and waits to be kept as it did.
      const former = asideOf(record, run).at(-1);
      return {
        edits: [
          ...(await thrownAway(run, person)),
          ...(former ? [{ kind: 'run-state', id: former.id, from: 'aside', to: 'complete' } as const] : []),
        ],
        result: {},
      };
    },
  });
  await recorders().abandon(id);
  return answer;
}

/** Leaves a kept run out of the judged value, with the reason on record. */
export async function strikeOut(id: string, reason: string, person: string): Promise<{ version: number }> {
  return changeJob(await jobOfRun(id), {
    person,
    decide({ record }) {
      const run = runOn(record, id);
      if (run.state !== 'kept') throw new RequestRefused(409, 'Only a kept run can be struck out.');
      if (run.struckOut !== null) throw new RequestRefused(409, 'This run has been struck out already.');
      return {
        edits: [{ kind: 'run-struck', id, reason }, actOn(run.jobId, id, 'struck-out', { person, detail: reason })],
        result: {},
        withdraws: `A run of “${stepTitle(record.job, run.step)}” was struck out: ${reason}`,
      };
    },
  });
}

/** Records findings of a look step as a kept run. */
export async function recordLook(
  jobId: string,
  stepId: string,
  findings: Readonly<Record<string, string>>,
  person: string,
): Promise<{ id: string; version: number }> {
  return changeJob(jobId, {
    person,
    async decide({ record, shop, at }) {
      const step = sheetOf(record.job).kind.steps.find((each) => each.id === stepId);
      if (step?.kind !== 'look') throw new RequestRefused(404, `This unit has no look step "${stepId}".`);
      const { points, options } = step.feeds.look;
      const missing = points.filter((point) => !options.some((option) => option.id === findings[point.id]));
      if (missing.length > 0)
        throw new RequestRefused(
          422,
          `Say how these look: ${missing.map((point) => point.title.toLowerCase()).join(', ')}.`,
          Object.fromEntries(missing.map((point) => [point.id, 'not said yet'])),
        );
      const known = new Set(points.flatMap(({ id, writes }) => (writes ? [id, writtenKey(id)] : [id])));
      const unknown = Object.keys(findings).find((key) => !known.has(key));
      if (unknown !== undefined)
        throw new RequestRefused(422, `Nothing is looked at here that is called "${unknown}".`, {
          [unknown]: 'not known',
        });
      refuseUnknownSite(shop);
      await refuseShut(record, shop, stepId);
      const id = randomUUID();
      const context = { site: shop.site, source: 'looked at' } as const;
      const run = { jobId, step: stepId, state: 'kept', startedAt: at, person, context, findings } as const;
      return { edits: [{ kind: 'run-begun', id, run }, actOn(jobId, id, 'kept', { person })], result: { id } };
    },
  });
}
