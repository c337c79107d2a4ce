import { instrumentsOnBench, listPeople, readShopSettings, type ShopSettings } from '@/data/settings';
import { findSheet, listSheets, type StoredSheet } from '@/data/unit-sheets';

/** Name and people of the shop, for every page. */
export async function shopAndPeople() {
  const [people, { shopName }] = await Promise.all([listPeople(), readShopSettings()]);
  return { people, shopName };
}

/** Where the shop is, and how it decides. */
export const settingsNow = (): Promise<ShopSettings> => readShopSettings();

/** Instruments that are mounted on the bench, and the channels of those that cannot be read. */
export const mountedInstruments = () => instrumentsOnBench();

/** Every unit sheet of the library. */
export const sheetsInLibrary = (): Promise<readonly StoredSheet[]> => listSheets();

/** A sheet of the library, where it is there. */
export const sheetInLibrary = (id: string): Promise<StoredSheet | undefined> => findSheet(id);

/** Sheets that name a purpose for their spheres. */
export async function sheetsWithSpheres(): Promise<readonly { readonly id: string; readonly name: string }[]> {
  const fitting = (await listSheets()).filter(
    ({ spec }) => (spec as { spherePurpose?: string }).spherePurpose !== undefined,
  );
  return fitting.map(({ id, name }) => ({ id, name }));
}
