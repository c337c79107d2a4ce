import { kindOfSheet, defaultWorkshopLimits } from '@/core/families';
import { toleranceBand } from '@/core/pictures/tolerance-band';
import { listSheets } from '@/data/unit-sheets';
import { airOf, ambientOf } from './air-text';
import type { Shop } from './shop-now';
import { facePaths, type FacePaths } from '@/core/pictures/face-paths';

export interface SheetCard {
  readonly id: string;
  readonly name: string;
  readonly family: string;
  readonly familyTitle: string;
  readonly face: FacePaths;
}

/** The library's sheets with the bands they expect in today's air. */
export async function sheetCards(shop: Shop): Promise<SheetCard[]> {
  const sheets = await listSheets();
  const ambient = ambientOf(shop);
  const { temperature } = airOf(shop);
  return sheets.flatMap(({ id, name, family: familyId, spec }) => {
    const kind = kindOfSheet({ family: familyId, spec });
    if (!kind) return [];
    const unit: unknown = kind.sheet.prepare(kind.sheet.schema.parse(spec));
    const supply = kind.plans[0].supply?.at(unit, ambient) ?? 0;
    const { input, low, high } = toleranceBand(kind.curve, unit, () => supply, {
      ambient,
      airTemperature: temperature,
      workshopLimits: defaultWorkshopLimits,
    });
    const face = facePaths({ input, low, high, measured: null }, { width: 120, height: 84 });
    return [{ id, name, family: kind.family, familyTitle: kind.title, face }];
  });
}
