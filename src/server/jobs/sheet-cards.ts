import { kindOfSheet, defaultWorkshopLimits } from '@/core/families';
import { toleranceBand } from '@/core/pictures/tolerance-band';
import { listSheets } from '@/data/unit-sheets';
import { airNow, ambientNow } from './air-text';
import type { Face } from './unit-face';

export interface SheetCard {
  readonly id: string;
  readonly name: string;
  readonly family: string;
  readonly familyTitle: string;
  readonly face: Face;
}

/** The library's sheets with the bands they expect in today's air. */
export async function sheetCards(): Promise<SheetCard[]> {
  const [sheets, ambient, { temperature }] = await Promise.all([listSheets(), ambientNow(), airNow()]);
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
    return [{ id, name, family: kind.family, familyTitle: kind.title, face: { input, low, high, measured: null } }];
  });
}
