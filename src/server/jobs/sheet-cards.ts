import { familyOfSheet } from '@/core/families';
import { defaultWorkshopLimits } from '@/core/procedure/workshop-limits';
import { toleranceBand } from '@/core/pictures/tolerance-band';
import { listSheets } from '@/data/unit-sheets';
import { airNow, ambientNow } from './air-text';
import type { Face } from './job-view';

export interface SheetCard {
  readonly id: string;
  readonly name: string;
  readonly familyTitle: string;
  readonly face: Face;
}

/** The library's sheets with the bands they expect in today's air. */
export async function sheetCards(): Promise<SheetCard[]> {
  const [sheets, ambient, { temperature }] = await Promise.all([listSheets(), ambientNow(), airNow()]);
  return sheets.flatMap(({ id, name, family: familyId, spec }) => {
    const family = familyOfSheet({ family: familyId, spec });
    if (!family) return [];
    const unit: unknown = family.prepare(family.schema.parse(spec));
    const supply = family.plans[0].stand.supply(unit, ambient);
    const { input, low, high } = toleranceBand(family, unit, () => supply, {
      ambient,
      airTemperature: temperature,
      workshopLimits: defaultWorkshopLimits,
    });
    return [{ id, name, familyTitle: family.title, face: { input, low, high, measured: null } }];
  });
}
