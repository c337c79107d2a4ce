import { couplingsCalled, plainWords, type CouplingWord } from '@/core/vocabulary/coupling-words';
import type { SheetCard } from '@/server/shop/sheet-cards';

type Named = Pick<SheetCard, 'name' | 'family' | 'familyTitle'>;

/** Sheets that a search means, and what has to be said of its word. */
export interface FoundSheets<Sheet extends Named> {
  readonly sheets: readonly Sheet[];
  /** Exact words for what was asked, where shops use one for several things. */
  readonly said: readonly CouplingWord[];
}

/** Sheets whose name or kind has the words, or whose kind shops call so; all of them without words. */
export function foundSheets<Sheet extends Named>(sheets: readonly Sheet[], text: string): FoundSheets<Sheet> {
  const words = plainWords(text);
  if (words === '') return { sheets, said: [] };
  const said = couplingsCalled(text);
  const meant = said.map(({ family }) => family);
  return {
    sheets: sheets.filter(
      ({ name, family, familyTitle }) => plainWords(`${name} ${familyTitle}`).includes(words) || meant.includes(family),
    ),
    said,
  };
}
