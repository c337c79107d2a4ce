import { findFamily } from '@/core/families';
import type { AnyKind } from '@/core/contract/kind';
import type { StepContext } from '@/core/procedure/step-context';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import { contextAt, type Site } from '@/core/formats/site-file';
import { checkSpec, type UnitSheet } from '@/core/formats/unit-sheet';
import type { JudgedStep } from '@/core/judging/evaluate-unit';
import { findJob, type Job } from '@/data/jobs';
import { findRun, type Run } from '@/data/runs';
import { listInstruments, readShopSettings } from '@/data/settings';
import { RequestRefused } from '../http/refused';

/** The job, or a refusal that says so. */
export async function jobNamed(id: string): Promise<Job> {
  const job = await findJob(id);
  if (!job) throw new RequestRefused(404, 'This job is not in the book.');
  return job;
}

/** The run, or a refusal that says so. */
export async function runNamed(id: string): Promise<Run> {
  const run = await findRun(id);
  if (!run) throw new RequestRefused(404, 'This run is not recorded here.');
  return run;
}

/** Sheets that were checked already: a job is asked for its sheet many times while it is on the desk. */
const checkedSheets = new WeakMap<Job['sheet'], UnitSheet>();

/** The job's sheet as it was booked in, checked again on reading. */
export function sheetOf(job: Job): UnitSheet {
  const known = checkedSheets.get(job.sheet);
  if (known) return known;
  const family = findFamily(job.sheet.family);
  if (!family) throw new Error(`job ${job.number} is of the unknown family ${job.sheet.family}`);
  const checked = checkSpec(family, job.sheet.name, job.sheet.spec, `job ${job.number}`);
  if (!checked.ok) throw new Error(`the sheet of job ${job.number} is not valid any more`);
  checkedSheets.set(job.sheet, checked.value);
  return checked.value;
}

/** What a step of the job is called. */
export const stepTitle = (job: Job, id: string): string =>
  sheetOf(job).kind.steps.find((step) => step.id === id)?.title ?? id;

/** The shop's site with the bench's instruments, as it is now. */
export async function siteNow(): Promise<Site> {
  const [settings, instruments] = await Promise.all([readShopSettings(), listInstruments()]);
  return { ...settings.site, instruments };
}

/** Context of a job's steps at a site on a date. */
export function contextOf(job: Job, site: Site, date: string): StepContext<unknown> {
  return contextAt(sheetOf(job), site, date, job.plan);
}

/** A step that yields characteristics, or a refusal that says so. */
export function judgedStepOf(kind: AnyKind, id: string): JudgedStep {
  const step = kind.steps.find((each) => each.id === id);
  if (!step || step.kind === 'look') throw new RequestRefused(404, `This unit has no step "${id}" that is measured.`);
  return step;
}

export function measuredStepOf(kind: AnyKind, id: string): MeasuredStep<unknown> {
  const step = kind.steps.find((each) => each.id === id);
  if (step?.kind !== 'measured') throw new RequestRefused(404, `This unit has no measured step "${id}".`);
  return step;
}

/** A measured step that a bench can run. */
export function runnableStepOf(kind: AnyKind, id: string): MeasuredStep<unknown> {
  const step = measuredStepOf(kind, id);
  if (!step.feeds.live) throw new RequestRefused(409, `No bench runs "${step.title}": bring a log of it.`);
  return step;
}

/** The refusal of a second run beside one that is not kept yet, by the step's own name. */
export function stillOpen(job: Job, stepId: string): RequestRefused {
  return new RequestRefused(409, `“${stepTitle(job, stepId)}” of this unit is still open. Keep or discard it first.`);
}
