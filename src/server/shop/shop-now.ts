import type { Site } from '@/core/formats/site-file';
import {
  loadSettings,
  listPeople,
  instrumentsOnBench,
  type Person,
  type Prevalence,
  type ShopSettings,
} from '@/data/settings';
import { shopDay } from '@/core/wording/shop-time';
import { RequestRefused } from '../http/refused';

/** What holds for every job of the workshop, as it is now. */
export interface Shop {
  readonly settings: ShopSettings;
  /** Where it is, with the bench's instruments. */
  readonly site: Site;
  readonly people: readonly Person[];
  /** Time zone by which its days begin: the one that was set, else this machine's. */
  readonly zone: string;
  /** Today, by that zone, as an ISO date. */
  readonly today: string;
  /** How common faults are, by family; what is left out is as the family says. */
  readonly prevalences: Readonly<Record<string, Prevalence>>;
  /** Parts of the settings that cannot be read: what stands here in their place is only good to look at. */
  readonly broken: readonly ('settings' | 'prevalences' | 'people' | 'instruments')[];
}

/** Reads the workshop once for a request. */
export async function loadShop(): Promise<Shop> {
  const [{ settings, prevalences, broken }, people, bench] = await Promise.all([
    loadSettings(),
    listPeople(),
    instrumentsOnBench(),
  ]);
  const zone = settings.site.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  return {
    settings,
    site: { ...settings.site, instruments: bench.instruments },
    zone,
    today: shopDay(new Date().toISOString(), zone),
    people,
    prevalences,
    broken,
  };
}

/** Refuses to measure in air that nobody knows: the workshop's settings cannot be read. */
export function refuseUnknownSite({ broken }: Shop): void {
  if (!broken.includes('settings')) return;
  throw new RequestRefused(
    409,
    'The workshop’s settings cannot be read, so nobody knows its air. Save them again under Settings, then measure.',
  );
}
