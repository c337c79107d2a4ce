import { randomUUID } from 'node:crypto';
import { entryOf, notReadByHand } from '@/core/dials/characteristic-entry';
import { notByHandText } from '@/core/wording/not-by-hand-text';
import { questionedFields } from '@/core/dials/question-figure';
import { readStandIn } from '@/core/rig/run-step';
import { loadJobRecord, runsOf } from '@/data/job-record';
import { contextOf, jobNamed, judgedStepOf, sheetOf } from '../context/job-context';
import { standInNow } from '../context/stand-in-now';
import { RequestRefused } from '../http/refused';
import { loadShop, refuseUnknownSite } from '../shop/shop-now';
import { changeJob } from './change-job';
import { refuseShut, refuseWhileOpen } from './open-step';
import { actOn, toTheBench } from './runs';

/** Records dial readings of a step, SI by field, as a kept run: what they mean was shown while they were typed. */
export async function recordReadings(
  jobId: string,
  stepId: string,
  readings: Readonly<Record<string, number>>,
  how: { readonly person: string; readonly standIn: boolean; readonly confirmed?: readonly string[] },
): Promise<{ id: string; version: number }> {
  const { person, standIn } = how;
  return changeJob(jobId, {
    person,
    async decide({ record, shop, at }) {
      const step = judgedStepOf(sheetOf(record.job).kind, stepId);
      if (step.kind === 'typed' && step.workedOut)
        throw new RequestRefused(409, `"${step.title}" is worked out of the sheet: nothing is typed.`);
      const unread = notReadByHand(step);
      if (unread)
        throw new RequestRefused(
          409,
          `"${step.title}" is not read by hand. ${notByHandText(unread, step.kind === 'measured' && step.feeds.live !== undefined)}`,
        );
      refuseUnknownSite(shop);
      await refuseShut(record, shop, stepId);
      const fields = entryOf(step).fields(contextOf(record.job, shop.site, at), readings);
      const missing = fields.filter((field) => !field.optional && readings[field.id] === undefined);
      if (missing.length > 0)
        throw new RequestRefused(
          422,
          `Still to read: ${missing.map((field) => field.title.toLowerCase()).join(', ')}.`,
          Object.fromEntries(missing.map((field) => [field.id, 'not read yet'])),
        );
      if (Object.keys(readings).length === 0) throw new RequestRefused(422, 'Nothing was read yet.');
      const unknown = Object.keys(readings).find((id) => !fields.some((field) => field.id === id));
      if (unknown !== undefined) throw new RequestRefused(422, `This step has no reading "${unknown}".`);
      const questioned = questionedFields(fields, readings, how.confirmed ?? []);
      if (questioned.length > 0)
        throw new RequestRefused(
          422,
          `Hardly: ${questioned.map((field) => field.title.toLowerCase()).join(', ')}. Mend it, or confirm that it is so.`,
          Object.fromEntries(questioned.map((field) => [field.id, 'Hardly: mend it, or confirm that it is so'])),
        );
      refuseWhileOpen(record);
      const id = randomUUID();
      const context = { site: shop.site, source: 'dial readings', standIn } as const;
      const run = { jobId, step: stepId, state: 'kept', startedAt: at, person, context, readings } as const;
      return {
        edits: [...toTheBench(record), { kind: 'run-begun', id, run }, actOn(jobId, id, 'kept', { person })],
        result: { id },
      };
    },
  });
}

/** What the stand-in's instruments show for a typed step, SI by field; empty where it has none to offer. */
export async function standInReadings(jobId: string, stepId: string): Promise<Readonly<Record<string, number>>> {
  const job = await jobNamed(jobId);
  const { kind } = sheetOf(job);
  const step = judgedStepOf(kind, stepId);
  if (step.kind !== 'typed') return {};
  const [record, { site }] = await Promise.all([loadJobRecord(jobId), loadShop()]);
  if (!record) return {};
  const context = contextOf(job, site, new Date().toISOString());
  const repeat = runsOf(record).filter((run) => run.step === stepId).length;
  const { faults, seed } = await standInNow(job, record.repairs);
  return readStandIn(kind, step, context, { faults, seed: seed + repeat });
}
