import { ambientFrom } from '@/core/quantities/standard-atmosphere';
import type { StepVerdict } from '@/core/vocabulary/verdict';
import { readShopSettings, shopSettingsSchema, writeShopSettings, type ShopSettings } from '@/data/settings';
import { z } from 'zod';
import { RequestRefused } from './http/refused';
import { listJobs, type Job } from '@/data/jobs';
import { evaluateJob } from './jobs/evaluate-job';
import { onFloor } from './jobs/floor-view';
import { sheetOf } from './jobs/job-context';

export const settingsFormSchema = shopSettingsSchema.extend({
  /** A barometer that does not fit the altitude was looked at again. */
  barometerConfirmed: z.boolean().default(false),
});

/** A verdict of a unit in the house that is another under the new settings. */
export interface TurnedVerdict {
  readonly jobId: string;
  readonly serial: string;
  readonly step: string;
  readonly from: StepVerdict;
  readonly to: StepVerdict;
}

/** Refuses air that nobody could know: neither altitude nor barometer, or a barometer that does not fit the altitude. */
function refuseUnknownAir({ site }: ShopSettings, confirmed: boolean): void {
  const { altitudeM, barometerKpa } = site;
  const refuse = (field: string, message: string): never => {
    throw new RequestRefused(422, 'Some fields need another look.', { [`site.${field}`]: message });
  };
  if (altitudeM === undefined && barometerKpa === undefined)
    return refuse(
      'altitudeM',
      'Say how high the workshop lies, or what its barometer shows: limits are restated for the air',
    );
  const ambient = ambientFrom({
    altitude: altitudeM,
    barometer: barometerKpa === undefined ? undefined : barometerKpa * 1e3,
  });
  if (ambient.questionedBy !== null && !confirmed)
    refuse(
      'barometerKpa',
      'Hardly, at this altitude: is it a station reading, not one reduced to sea level? Mend it, or confirm it',
    );
}

/** Keeps the settings, and tells which verdicts in the house a change of policy has turned. */
export async function saveSettings({
  barometerConfirmed,
  ...settings
}: z.infer<typeof settingsFormSchema>): Promise<{ turned: readonly TurnedVerdict[] }> {
  refuseUnknownAir(settings, barometerConfirmed);
  if ((await readShopSettings()).policy === settings.policy) {
    await writeShopSettings(settings);
    return { turned: [] };
  }
  const before = await verdictsInTheHouse();
  await writeShopSettings(settings);
  const after = await verdictsInTheHouse();
  return {
    turned: [...after].flatMap(([key, now]) => {
      const was = before.get(key);
      return was && was.verdict !== now.verdict
        ? [{ jobId: now.jobId, serial: now.serial, step: now.step, from: was.verdict, to: now.verdict }]
        : [];
    }),
  };
}

async function verdictsOf(job: Job) {
  const { evaluation } = await evaluateJob(job);
  const { steps } = sheetOf(job).kind;
  return evaluation.steps.map(({ step, verdict }) => {
    const title = steps.find((each) => each.id === step)?.title ?? step;
    return [`${job.id} ${step}`, { jobId: job.id, serial: job.serial, step: title, verdict }] as const;
  });
}

async function verdictsInTheHouse() {
  const { jobs } = await listJobs();
  const verdicts = await Promise.all(
    jobs.filter(onFloor).map((job) =>
      verdictsOf(job).catch((error: unknown) => {
        console.error(`job ${job.number}`, error);
        return [];
      }),
    ),
  );
  return new Map(verdicts.flat());
}
