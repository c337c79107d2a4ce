import { ambientFrom } from '@/core/quantities/standard-atmosphere';
import type { StepVerdict } from '@/core/vocabulary/verdict';
import { loadJobRecord } from '@/data/job-record';
import { shopSettingsSchema, writeShopSettings, type ShopSettings } from '@/data/settings';
import * as z from 'zod';
import { RequestRefused } from '../http/refused';
import { floorRows } from '@/data/floor-cards';
import { evaluateJob } from '../judging/evaluate-job';
import { stepTitle } from '../context/job-context';
import { changeShop } from '../shop/change-shop';
import { loadShop, type Shop } from '../shop/shop-now';

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
}: z.infer<typeof settingsFormSchema>): Promise<{ turned: readonly TurnedVerdict[]; version: number }> {
  refuseUnknownAir(settings, barometerConfirmed);
  let before: Shop | null = null;
  const { version } = await changeShop(
    { key: 'settings', title: 'The settings have been' },
    async () => {
      before = await loadShop();
      return {
        already: !before.broken.includes('settings') && JSON.stringify(before.settings) === JSON.stringify(settings),
      };
    },
    (trx) => writeShopSettings(settings, trx),
  );
  return { turned: before ? await turnedBy(before, settings) : [], version };
}

/** Sets the time zone by which the shop's days begin, and leaves everything else as it is. */
export async function saveTimeZone(timeZone: string): Promise<{ version: number }> {
  let settings = (await loadShop()).settings;
  return changeShop(
    { key: 'settings', title: 'The settings have been' },
    async () => {
      const shop = await loadShop();
      if (shop.broken.includes('settings'))
        throw new RequestRefused(409, 'The workshop’s settings cannot be read. Save them again under Settings first.');
      settings = shop.settings;
      return { already: settings.site.timeZone === timeZone };
    },
    (trx) => writeShopSettings({ ...settings, site: { ...settings.site, timeZone } }, trx),
  );
}

/** Verdicts in the house that another policy turns. */
async function turnedBy(shop: Shop, settings: ShopSettings): Promise<readonly TurnedVerdict[]> {
  if (shop.settings.policy === settings.policy) return [];
  const turned: TurnedVerdict[] = [];
  for (const { id } of await floorRows())
    try {
      const record = await loadJobRecord(id);
      if (!record) continue;
      const was = await evaluateJob(record, shop, 'aside');
      const now = await evaluateJob(record, { ...shop, settings }, 'kept');
      for (const { step, verdict: to } of now.evaluation.steps) {
        const from = was.evaluation.steps.find((each) => each.step === step)?.verdict;
        const { job } = record;
        if (from && from !== to) turned.push({ jobId: id, serial: job.serial, step: stepTitle(job, step), from, to });
      }
    } catch (error) {
      console.error(`job ${id}`, error);
    }
  return turned;
}
