/**
 * Starting values that families and toolboxes bring: each declares its own here (by module augmentation) and gives them in its rows.
 * Fractions and SI. A workshop can edit them; the maker's service data for the unit always wins.
 */
export interface LimitWords {}

export type WorkshopLimits = Readonly<LimitWords>;

/** Where practitioners disagree, the school a workshop follows; named on the report. */
export interface WorkshopSchools {
  /** Least supply vacuum: 16 inHg, 18 inHg, or both (between them a pass is marginal). */
  readonly leastVacuum: 'both' | 'sixteen' | 'eighteen';
  /** The reserve is used up after a number of strokes, or once two strokes read the same. */
  readonly exhaust: 'count' | 'two-alike';
}

export const defaultWorkshopSchools: WorkshopSchools = { leastVacuum: 'both', exhaust: 'two-alike' };

const joined: Record<string, number> = {};

/** The starting values of all who bring some; whoever reads them takes them from the registry, which has joined them. */
export const defaultWorkshopLimits = joined as unknown as WorkshopLimits;

/** Adds starting values; the registry does. Throws where one is there already (a programmer's error). */
export function joinWorkshopLimits(more: Partial<WorkshopLimits>): void {
  for (const id of Object.keys(more)) if (id in joined) throw new Error(`there is a limit "${id}" already`);
  Object.assign(joined, more);
}
